<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { ParamDescription } from '@/api/client'

/** A number typed in a line: sent when it is done and allowed, with the range said beside it when not. */
const props = defineProps<{
  param: ParamDescription
  value: number | string | undefined
  /** Said instead of the parameter's own label. */
  label?: string
  problem?: string
}>()
const emit = defineEmits<{ change: [value: number | undefined] }>()

const text = ref('')
watch(
  () => props.value,
  (value) => (text.value = value === undefined ? '' : String(value)),
  { immediate: true },
)
const wrong = computed(() => {
  if (text.value === '') {
    return ''
  }
  const { min, max, unit } = props.param
  const number = Number(text.value)
  const whole = props.param.kind === 'whole' && !Number.isInteger(number)
  return Number.isNaN(number) || whole || number < (min ?? -Infinity) || number > (max ?? Infinity)
    ? `allowed: ${min}..${max}${unit ? ` ${unit}` : ''}`
    : ''
})
const told = computed(() => wrong.value || props.problem || '')

/** The keys are the bench's again once a value is done. */
function finish(event: KeyboardEvent) {
  typed()
  if (!wrong.value) {
    ;(event.target as HTMLInputElement).blur()
  }
}

function typed() {
  const next = text.value === '' ? undefined : Number(text.value)
  if (!wrong.value && next !== props.value) {
    emit('change', next)
  }
}
</script>

<template>
  <span class="number">
    <v-text-field
      v-model="text"
      class="in-line figure"
      variant="plain"
      hide-details
      inputmode="decimal"
      autocomplete="off"
      :aria-label="label ?? param.label"
      :aria-invalid="told !== ''"
      :title="param.effect"
      @change="typed"
      @keydown.enter="finish"
    />
    <span v-if="param.unit" class="figure unit">{{ param.unit }}</span>
    <span v-if="told" class="fault" role="alert">{{ told }}</span>
  </span>
</template>

<style scoped>
.number {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 3px;
}

.in-line {
  flex: none;
  width: 46px;
  border-bottom: 1px solid var(--faint);
}

.in-line :deep(input) {
  padding: 1px 2px;
  text-align: right;
}

.in-line :deep(input:focus) {
  outline: none;
}

.in-line:focus-within {
  border-color: var(--treated);
  box-shadow: 0 1px 0 var(--treated);
}

.in-line:has([aria-invalid='true']) {
  border-color: var(--fault);
}

.unit {
  color: var(--quiet);
}

.fault {
  flex-basis: 100%;
  font: 12px var(--label);
}
</style>
