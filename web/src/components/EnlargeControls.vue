<script setup lang="ts">
import { computed } from 'vue'
import type { ParamDescription, RecipeProblem, RecipeStep, StepDescription } from '@/api/client'
import { inWay, type SizeWay, sizeWay } from '@/view/recipe'
import ParamControl from './ParamControl.vue'

/** The enlarge step's controls: one of three ways to say how large, and the kernel. */
const props = defineProps<{
  step: RecipeStep
  description: StepDescription
  /** Size behind this step, for a start when the way changes. */
  width: number
  height: number
  problems: RecipeProblem[]
}>()
const emit = defineEmits<{ change: [step: RecipeStep] }>()

const ways: { way: SizeWay; label: string }[] = [
  { way: 'factor', label: 'factor' },
  { way: 'target', label: 'target' },
  { way: 'pixels', label: 'pixels' },
]
const keys: Record<SizeWay, string[]> = {
  factor: ['factor'],
  target: ['target'],
  pixels: ['width', 'height'],
}
const factors = [1.5, 2, 3, 4]

const way = computed(() => sizeWay(props.step))
const factor = computed(() => Number(props.step.settings['factor'] ?? 2))
const params = computed(() => [...keys[way.value], 'kernel'].map(param).filter((one) => one !== undefined))

function param(key: string): ParamDescription | undefined {
  return props.description.params.find((one) => one.key === key)
}

function set(key: string, value: number | string | undefined) {
  const settings = { ...props.step.settings }
  if (value === undefined) {
    delete settings[key]
  } else {
    settings[key] = value
  }
  emit('change', { ...props.step, settings })
}

function problem(key: string): string {
  return props.problems.find((one) => one.key === key)?.sentence ?? ''
}
</script>

<template>
  <div class="controls">
    <div class="way">
      <span class="label">Size by</span>
      <span class="segments" role="group" aria-label="Size by">
        <button
          v-for="one in ways"
          :key="one.way"
          type="button"
          :aria-pressed="way === one.way"
          @click="way === one.way || emit('change', inWay(step, one.way, width, height))"
        >
          {{ one.label }}
        </button>
      </span>
    </div>
    <div v-if="way === 'factor'" class="way">
      <span class="segments" role="group" aria-label="Usual factors">
        <button
          v-for="one in factors"
          :key="one"
          type="button"
          :aria-pressed="factor === one"
          @click="set('factor', one)"
        >
          {{ one }}×
        </button>
      </span>
    </div>
    <div :class="{ pair: way === 'pixels' }">
      <ParamControl
        v-for="one in params.filter((p) => p.key !== 'kernel')"
        :key="one.key"
        :param="one"
        :value="step.settings[one.key] ?? (one.key === 'factor' ? factor : undefined)"
        :problem="problem(one.key)"
        @change="(value) => set(one.key, value)"
      />
    </div>
    <ParamControl
      v-for="one in params.filter((p) => p.key === 'kernel')"
      :key="one.key"
      :param="one"
      :value="step.settings[one.key]"
      :problem="problem(one.key)"
      @change="(value) => set(one.key, value)"
    />
    <p v-for="one in problems.filter((p) => p.key === '')" :key="one.sentence" class="fault">
      {{ one.sentence }}
    </p>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  gap: 12px;
}

.way {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
