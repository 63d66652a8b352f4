<script setup lang="ts">
import type { ParamDescription, RecipeProblem, RecipeStep, StepDescription } from '@/api/client'
import { stepWith } from '@/view/recipe'
import ChoiceSegments from './ChoiceSegments.vue'
import ParamControl from './ParamControl.vue'

/** The controls of a step as its description has them; short choices lie side by side. */
const props = defineProps<{
  step: RecipeStep
  description: StepDescription
  problems: RecipeProblem[]
}>()
const emit = defineEmits<{ change: [step: RecipeStep] }>()

const SHORT = 22

function isShort(param: ParamDescription): boolean {
  return param.options.reduce((sum, option) => sum + option.label.length, 0) <= SHORT
}

function chosen(param: ParamDescription): string {
  return String(props.step.settings[param.key] ?? param.fallback ?? '')
}

function set(key: string, value: number | string | undefined) {
  emit('change', stepWith(props.step, key, value))
}

function problem(key: string): string {
  return props.problems.find((one) => one.key === key)?.sentence ?? ''
}
</script>

<template>
  <div class="controls">
    <p v-if="problem('')" class="fault">{{ problem('') }}</p>
    <template v-for="param in description.params" :key="param.key">
      <div v-if="param.kind === 'choice' && isShort(param)">
        <ChoiceSegments
          :param="param"
          :options="param.options"
          :chosen="chosen(param)"
          :problem="problem(param.key)"
          @change="(id) => set(param.key, id)"
        />
        <p class="effect">{{ param.effect }}</p>
      </div>
      <ParamControl
        v-else
        :param="param"
        :value="step.settings[param.key]"
        :problem="problem(param.key)"
        @change="(value) => set(param.key, value)"
      />
    </template>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  gap: 12px;
}

.effect {
  margin: 4px 0 0;
  font: 12px var(--label);
  color: var(--faint);
}
</style>
