<script setup lang="ts">
import { computed, onMounted } from 'vue'
import type { ParamDescription, RecipeProblem, RecipeStep, StepDescription } from '@/api/client'
import { useModels } from '@/stores/models'
import { inWay, type SizeWay, sizeWay, stepWith } from '@/view/recipe'
import ChoiceSegments from './ChoiceSegments.vue'
import ParamControl from './ParamControl.vue'

/** The enlarge step's controls: one of three ways to say how large, which model, and the kernel where none is used. */
const props = defineProps<{
  step: RecipeStep
  description: StepDescription
  /** Size behind this step, for a start when the way changes. */
  width: number
  height: number
  problems: RecipeProblem[]
  /** The model the clip's file speaks for, and why. */
  suggestion: { model: string; reason: string } | undefined
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
/** Only a size of two sides can differ from the picture's shape. */
const framed = computed(
  () =>
    way.value === 'target' ||
    (way.value === 'pixels' && 'width' in props.step.settings && 'height' in props.step.settings),
)
const fit = computed(() => param('fit'))
const offset = computed(() => param('offset'))
const chosenFit = computed(() => String(props.step.settings['fit'] ?? fit.value?.fallback ?? 'shape'))

const way = computed(() => sizeWay(props.step))
const factor = computed(() => Number(props.step.settings['factor'] ?? 2))
const sizes = computed(() => keys[way.value].map(param).filter((one) => one !== undefined))
const model = computed(() => param('model'))
const chosen = computed(() => String(props.step.settings['model'] ?? model.value?.fallback ?? 'none'))
const mode = computed(() => param('mode'))
const models = useModels()
const modes = computed(() => {
  const had = models.modesOf(chosen.value)
  return mode.value?.options.filter((one) => had.includes(one.id)) ?? []
})
const chosenMode = computed(() => String(props.step.settings['mode'] ?? modes.value[0]?.id ?? ''))
onMounted(models.load)
const texture = computed(() => param('texture'))
const softness = computed(() => param('softness'))
/** Places on the scale that have a name; anything between can be set beside. */
const looks = [
  { id: '', label: 'Not told', effect: 'what is usual' },
  { id: '0', label: 'Sharp', effect: 'to the pixel; slanted edges have stairs' },
  { id: '50', label: 'Even', effect: 'made small by a good resize' },
  { id: '80', label: 'Soft', effect: 'a little out of focus, or enlarged before' },
]
const isTold = computed(() => models.isTold(chosen.value, chosenMode.value))
const strength = computed(() => param('strength'))
const kernel = computed(() => param('kernel'))

function param(key: string): ParamDescription | undefined {
  return props.description.params.find((one) => one.key === key)
}

function set(key: string, value: number | string | undefined) {
  emit('change', stepWith(props.step, key, value))
}

function setModel(id: string) {
  const settings: RecipeStep['settings'] = { ...props.step.settings, model: id }
  if (!models.modesOf(id).includes(String(settings['mode']))) {
    delete settings['mode']
  }
  emit('change', { ...props.step, settings: told(settings) })
}

/** What a model is told goes with one that cannot be told, and an amount of made texture with the mode that makes it. */
function told(settings: RecipeStep['settings']): RecipeStep['settings'] {
  const mode = String(settings['mode'] ?? models.modesOf(String(settings['model']))[0] ?? '')
  const gone = [
    ...(models.isTold(String(settings['model']), mode) ? [] : ['softness']),
    ...(mode === 'made' ? [] : ['texture']),
  ]
  return Object.fromEntries(Object.entries(settings).filter(([key]) => !gone.includes(key)))
}

function setMode(id: string) {
  emit('change', { ...props.step, settings: told({ ...props.step.settings, mode: id }) })
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
        v-for="one in sizes"
        :key="one.key"
        :param="one"
        :value="step.settings[one.key] ?? (one.key === 'factor' ? factor : undefined)"
        :problem="problem(one.key)"
        @change="(value) => set(one.key, value)"
      />
    </div>
    <template v-if="framed && fit">
      <ChoiceSegments
        :param="fit"
        :options="fit.options"
        :chosen="chosenFit"
        :problem="problem('fit')"
        @change="(id) => set('fit', id === fit?.fallback ? undefined : id)"
      />
      <ParamControl
        v-if="offset && chosenFit !== fit.fallback"
        :param="offset"
        :value="step.settings['offset']"
        :problem="problem('offset')"
        @change="(value) => set('offset', value)"
      />
    </template>
    <div v-if="model" role="radiogroup" aria-label="Model" class="models">
      <button
        v-for="one in model.options"
        :key="one.id"
        type="button"
        role="radio"
        class="model"
        :aria-checked="chosen === one.id"
        :data-test="`model-${one.id}`"
        @click="setModel(one.id)"
      >
        <span class="name">
          {{ one.label }}
          <span v-if="suggestion?.model === one.id" class="suggested"
            >suggested: {{ suggestion.reason }}</span
          >
        </span>
        <span class="for">{{ one.effect }}</span>
      </button>
      <p v-if="problem('model')" class="fault">{{ problem('model') }}</p>
    </div>
    <template v-if="chosen !== 'none'">
      <ChoiceSegments
        v-if="mode && modes.length > 1"
        is-tall
        :param="mode"
        :options="modes"
        :chosen="chosenMode"
        :problem="problem('mode')"
        @change="setMode"
      />
      <p v-else-if="problem('mode')" class="fault">{{ problem('mode') }}</p>
      <ParamControl
        v-if="texture && chosenMode === 'made'"
        :param="texture"
        :value="step.settings['texture']"
        :problem="problem('texture')"
        @change="(value) => set('texture', value)"
      />
      <p v-else-if="problem('texture')" class="fault">{{ problem('texture') }}</p>
      <ChoiceSegments
        v-if="softness && isTold"
        is-tall
        :param="{ ...softness, label: 'Footage is' }"
        :options="looks"
        :chosen="String(step.settings['softness'] ?? '')"
        problem=""
        @change="(id) => set('softness', id === '' ? undefined : Number(id))"
      />
      <ParamControl
        v-if="softness && isTold && step.settings['softness'] !== undefined"
        :param="softness"
        :value="step.settings['softness']"
        :problem="problem('softness')"
        @change="(value) => set('softness', value)"
      />
      <p v-else-if="problem('softness')" class="fault">{{ problem('softness') }}</p>
      <ParamControl
        v-if="strength"
        :param="strength"
        :value="step.settings['strength']"
        :problem="problem('strength')"
        @change="(value) => set('strength', value)"
      />
    </template>
    <ParamControl
      v-else-if="kernel"
      :param="kernel"
      :value="step.settings['kernel']"
      :problem="problem('kernel')"
      @change="(value) => set('kernel', value)"
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

.models {
  display: grid;
  gap: 1px;
}

.model {
  display: grid;
  gap: 2px;
  padding: 6px 10px;
  text-align: left;
  border: 0;
  border-left: 2px solid transparent;
  background: transparent;
  color: inherit;
  font: inherit;
  cursor: pointer;
}

.model:hover {
  background: rgb(255 255 255 / 4%);
}

.model[aria-checked='true'] {
  border-left-color: rgb(var(--v-theme-primary));
  background: rgb(255 255 255 / 6%);
}

.model .suggested {
  display: block;
  font: 12px/1.35 var(--label);
  color: var(--treated);
}

.model .for {
  font-size: 12px;
  line-height: 1.35;
  opacity: 0.62;
}

.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
