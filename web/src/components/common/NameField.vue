<script setup lang="ts">
import { onMounted, ref } from 'vue'

/** A name typed where it stands: Enter, or going elsewhere, gives it; Escape leaves it as it was. */
const props = defineProps<{ name: string; label: string; longest?: number }>()
/** The new name; none where it stays. */
const emit = defineEmits<{ done: [name: string | undefined] }>()

const field = ref<HTMLInputElement>()
const typed = ref(props.name)
/** Once it is told the field goes away, and the browser tells of its going too. */
let isDone = false

onMounted(() => field.value?.select())

function end(isGiven: boolean) {
  if (isDone) {
    return
  }
  isDone = true
  const name = typed.value.trim()
  emit('done', isGiven && name !== '' && name !== props.name ? name : undefined)
}
</script>

<template>
  <input
    ref="field"
    v-model="typed"
    class="naming"
    :maxlength="longest ?? 60"
    :aria-label="label"
    @click.stop
    @blur="end(true)"
    @keydown.enter.prevent="end(true)"
    @keydown.esc.stop="end(false)"
  />
</template>

<style scoped>
.naming {
  min-width: 0;
  padding: 1px 4px;
  border: 1px solid var(--treated);
  background: var(--ground);
  color: var(--ink);
  font: inherit;
}
</style>
