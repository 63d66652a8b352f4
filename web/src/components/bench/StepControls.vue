<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ParamDescription, RecipeProblem, RecipeStep, StepDescription } from '@/api/client'
import { stepWith } from '@/view/recipe'
import ChoiceSegments from '@/components/common/ChoiceSegments.vue'
import ColourField from './ColourField.vue'
import CurveField from './CurveField.vue'
import FileField from './FileField.vue'
import KeyedField from './KeyedField.vue'
import MarksField from './MarksField.vue'
import ParamControl from './ParamControl.vue'

/** The controls of a step as its description has them; short choices lie side by side. */
const props = defineProps<{
  step: RecipeStep
  description: StepDescription
  problems: RecipeProblem[]
  /** Seconds of the frame that is seen, as it reaches the step. */
  seconds: number
}>()
const emit = defineEmits<{ change: [step: RecipeStep] }>()

const SHORT = 22
/** Settings that are seen at once; the rest, unless it was set or is wrong, stands behind "more". */
const AT_ONCE = 3
const more = ref(false)
const shown = computed(() => {
  const all = props.description.params
  const isSeen = (one: ParamDescription, n: number) =>
    n < AT_ONCE || one.key in props.step.settings || problem(one.key) !== ''
  // one alone is not worth a click
  return more.value || all.length <= AT_ONCE + 1 ? all : all.filter(isSeen)
})
const hidden = computed(() => props.description.params.length - shown.value.length)

function isShort(param: ParamDescription): boolean {
  return param.options.reduce((sum, option) => sum + option.label.length, 0) <= SHORT
}

function chosen(param: ParamDescription): string {
  return String(props.step.settings[param.key] ?? param.fallback ?? '')
}

function set(key: string, value: number | string | undefined) {
  emit('change', stepWith(props.step, key, value))
}

function text(key: string): string | undefined {
  const value = props.step.settings[key]
  return value === undefined ? undefined : String(value)
}

function problem(key: string): string {
  return props.problems.find((one) => one.key === key)?.sentence ?? ''
}
</script>

<template>
  <div class="controls">
    <p v-if="problem('')" class="fault">{{ problem('') }}</p>
    <template v-for="param in shown" :key="param.key">
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
      <div v-else-if="param.kind === 'curve'">
        <CurveField
          :label="param.label"
          :value="text(param.key)"
          :problem="problem(param.key)"
          @change="(value) => set(param.key, value)"
        />
        <p class="effect">{{ param.effect }}</p>
      </div>
      <div v-else-if="param.kind === 'colour'">
        <ColourField
          :label="param.label"
          :value="text(param.key)"
          :fallback="param.fallback"
          :problem="problem(param.key)"
          @change="(value) => set(param.key, value)"
        />
        <p class="effect">{{ param.effect }}</p>
      </div>
      <div v-else-if="param.kind === 'file'">
        <FileField
          :label="param.label"
          :ending="param.unit"
          :value="text(param.key)"
          :problem="problem(param.key)"
          @change="(value) => set(param.key, value)"
        />
        <p class="effect">{{ param.effect }}</p>
      </div>
      <div v-else-if="param.kind === 'marks'">
        <MarksField
          :param="param"
          :value="text(param.key)"
          :problem="problem(param.key)"
          :seconds="seconds"
          @change="(value) => set(param.key, value)"
        />
        <p class="effect">{{ param.effect }}</p>
      </div>
      <KeyedField
        v-else-if="param.keyed"
        :param="param"
        :value="step.settings[param.key]"
        :problem="problem(param.key)"
        :seconds="seconds"
        @change="(value) => set(param.key, value)"
      />
      <ParamControl
        v-else
        :param="param"
        :value="step.settings[param.key]"
        :problem="problem(param.key)"
        @change="(value) => set(param.key, value)"
      />
    </template>
    <v-btn
      v-if="hidden > 0 || more"
      class="link more"
      variant="plain"
      :aria-expanded="more"
      data-test="more"
      @click="more = !more"
    >
      {{ more ? 'less' : `more (${hidden})` }}
    </v-btn>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  gap: 12px;
}

.more {
  justify-self: start;
}

.effect {
  margin: 4px 0 0;
  font: 12px var(--label);
  color: var(--faint);
}
</style>
