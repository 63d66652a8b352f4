<script setup lang="ts">
import { onMounted, ref } from 'vue'

/** A name typed where it stands: Enter, or going elsewhere, gives it; Escape leaves it as it was. */
const props = defineProps<{
  name: string
  label: string
  longest?: number
  /** Something new gets the name: only Enter gives it, and then the one that stood there too. */
  explicit?: boolean
}>()
/** The name; none where nothing is to be named, or anew. */
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
  emit('done', isGiven && name !== '' && (props.explicit || name !== props.name) ? name : undefined)
}
</script>

<template>
  <v-text-field
    ref="field"
    v-model="typed"
    class="in-line naming"
    variant="plain"
    hide-details
    :maxlength="longest ?? 60"
    :aria-label="label"
    @click.stop
    @blur="end(!explicit)"
    @keydown.enter.prevent="end(true)"
    @keydown.esc.stop="end(false)"
  />
</template>

<style scoped>
.in-line.naming {
  border: 1px solid var(--treated);
  background: var(--ground);
}
</style>
