<script setup lang="ts">
import { computed, ref, watch } from 'vue'

/** A colour: typed, chosen, or picked from anything on the screen where the browser can. */
const props = defineProps<{
  label: string
  value: string | undefined
  fallback: string | undefined
  problem: string
}>()
const emit = defineEmits<{ change: [value: string | undefined] }>()

interface Dropper {
  open(): Promise<{ sRGBHex: string }>
}
const Picker = (window as unknown as { EyeDropper?: new () => Dropper }).EyeDropper

const text = ref('')
watch(
  () => props.value,
  (value) => (text.value = value ?? props.fallback ?? ''),
  { immediate: true },
)
const wrong = computed(() =>
  text.value && !/^#?[0-9a-fA-F]{6}$/.test(text.value) ? 'write it like #8090a0' : '',
)

function typed() {
  if (!wrong.value) {
    emit('change', text.value === '' ? undefined : text.value)
  }
}

async function pick() {
  try {
    emit('change', (await new Picker!().open()).sRGBHex)
  } catch {
    // given up with Esc
  }
}
</script>

<template>
  <div class="colour">
    <input
      type="color"
      :value="wrong || !text ? '#808080' : text"
      :aria-label="`${label}, choose`"
      :class="{ none: !text }"
      @change="(event) => emit('change', (event.target as HTMLInputElement).value)"
    />
    <v-text-field
      v-model="text"
      :label="label"
      :error-messages="wrong || problem"
      placeholder="none"
      @change="typed"
      @keydown.enter="typed"
    />
    <v-btn v-if="Picker" title="Pick it from the picture" @click="pick"> Pick </v-btn>
  </div>
</template>

<style scoped>
.colour {
  display: flex;
  gap: 8px;
  align-items: start;
}

input {
  flex: none;
  width: 40px;
  height: 40px;
  padding: 0;
  border: 1px solid var(--rule);
  background: none;
  cursor: pointer;
}

input.none {
  opacity: 0.4;
}

.v-btn {
  flex: none;
  height: 40px;
}
</style>
