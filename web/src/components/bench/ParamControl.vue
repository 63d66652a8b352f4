<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ParamDescription } from '@/api/client'
import NumberField from './NumberField.vue'

/** One setting, drawn from its description: a slider with a typed value, a typed value alone, or a list. */
const props = defineProps<{ param: ParamDescription; value: number | string | undefined; problem?: string }>()
const emit = defineEmits<{ change: [value: number | string | undefined] }>()

/** Steps beyond which a slider cannot be set exactly, so that it would only tempt. */
const MOST_STEPS = 1000

const chosen = computed(() => String(props.value ?? props.param.fallback ?? ''))
const effect = computed(
  () => props.param.options.find((option) => option.id === chosen.value)?.effect ?? props.param.effect,
)
const options = computed(() =>
  props.param.options.map((option) => ({ title: option.label, value: option.id })),
)
const number = computed(() => {
  const now = props.value ?? props.param.fallback
  return now === undefined ? undefined : Number(now)
})
const range = computed(() => {
  const { min, max, kind } = props.param
  if (min === undefined || max === undefined) {
    return undefined
  }
  const step = kind === 'whole' ? 1 : max - min <= 2 ? 0.01 : max - min <= 20 ? 0.05 : 0.5
  return (max - min) / step <= MOST_STEPS ? { min, max, step } : undefined
})
const isUsual = computed(
  () =>
    props.value === undefined ||
    (props.param.fallback !== undefined && Number(props.value) === Number(props.param.fallback)),
)

/** Where the slider is while it is dragged: the setting follows once it is let go. */
const dragged = ref<number>()
let isDragging = false

function slide(value: number) {
  // no more figures than its steps have
  const next = Math.round(value * 1000) / 1000
  if (isDragging) {
    dragged.value = next
  } else if (next !== number.value) {
    emit('change', next)
  }
}

function letGo(value: number) {
  isDragging = false
  dragged.value = undefined
  slide(value)
}
</script>

<template>
  <div class="control">
    <v-select
      v-if="param.kind === 'choice'"
      :model-value="chosen"
      :items="options"
      :label="param.label"
      :error-messages="problem"
      @update:model-value="(value: string) => emit('change', value)"
    />
    <template v-else>
      <div class="line">
        <span class="label">{{ param.label }}</span>
        <v-btn
          v-if="!isUsual"
          class="link usual"
          variant="plain"
          :title="param.fallback === undefined ? 'As if it were not set' : `Back to ${param.fallback}`"
          :aria-label="`${param.label}: back to the usual`"
          @click="emit('change', undefined)"
        >
          usual
        </v-btn>
        <NumberField
          :param="param"
          :value="dragged ?? value ?? param.fallback"
          :problem="problem ?? ''"
          @change="(next) => emit('change', next)"
        />
      </div>
      <v-slider
        v-if="range"
        :model-value="dragged ?? number ?? range.min"
        :min="range.min"
        :max="range.max"
        :step="range.step"
        :class="{ unset: number === undefined }"
        :aria-label="`${param.label}, by sliding`"
        @start="isDragging = true"
        @update:model-value="slide"
        @end="letGo"
      />
    </template>
    <p class="effect">{{ effect }}</p>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  gap: 8px;
}

.line .label {
  margin-right: auto;
}

.v-btn.usual {
  color: var(--faint);
}

.unset {
  opacity: 0.45;
}

.effect {
  margin: 2px 0 0;
  font: 12px var(--label);
  color: var(--faint);
}
</style>
