<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { ParamDescription } from '@/api/client'

/** One setting, drawn from its description: a slider with a field, a field, or a list. */
const props = defineProps<{ param: ParamDescription; value: number | string | undefined; problem?: string }>()
const emit = defineEmits<{ change: [value: number | string | undefined] }>()

const text = ref('')
watch(
  () => props.value,
  (value) => (text.value = value === undefined ? (props.param.fallback ?? '') : String(value)),
  { immediate: true },
)

const wrong = computed(() => {
  if (text.value === '' || props.param.kind === 'choice') {
    return ''
  }
  const { min, max, unit } = props.param
  const number = Number(text.value)
  const whole = props.param.kind === 'whole' && !Number.isInteger(number)
  if (Number.isNaN(number) || whole || number < (min ?? -Infinity) || number > (max ?? Infinity)) {
    return `allowed: ${min}..${max}${unit ? ` ${unit}` : ''}`
  }
  return ''
})
const effect = computed(
  () => props.param.options.find((option) => option.id === text.value)?.effect ?? props.param.effect,
)
const options = computed(() =>
  props.param.options.map((option) => ({ title: option.label, value: option.id })),
)

function typed() {
  if (!wrong.value) {
    emit('change', text.value === '' ? undefined : Number(text.value))
  }
}
</script>

<template>
  <div class="control">
    <template v-if="param.kind === 'choice'">
      <v-select
        :model-value="text"
        :items="options"
        :label="param.label"
        :error-messages="problem"
        @update:model-value="(value: string) => emit('change', value)"
      />
    </template>
    <template v-else>
      <v-text-field
        v-model="text"
        :label="param.label"
        :suffix="param.unit"
        :error-messages="wrong || problem"
        inputmode="decimal"
        @change="typed"
        @keydown.enter="typed"
      />
    </template>
    <p class="effect">{{ effect }}</p>
  </div>
</template>

<style scoped>
.effect {
  margin: 4px 0 0;
  font: 12px var(--label);
  color: var(--faint);
}
</style>
