<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import type { ParamDescription, RecipeProblem, RecipeStep, StepDescription } from '@/api/client'
import ChoiceSegments from '@/components/common/ChoiceSegments.vue'
import { useModels } from '@/stores/models'
import type { Point, Size } from '@/view/glass'
import { stepWith } from '@/view/recipe'
import type { Sides } from '@/view/sides'
import { type Fit, lost, placed, sameShape, STANDARDS, standing } from '@/view/sizes'
import { rowsOf, type Swatch } from '@/view/swatches'
import NumberField from './NumberField.vue'
import ParamControl from './ParamControl.vue'
import SizeFrames from './SizeFrames.vue'
import Swatches from './Swatches.vue'

/** The enlarge step's card: the size as frames drawn to scale, the treatment as swatches of one spot, the rest behind "more". */
const props = defineProps<{
  step: RecipeStep
  description: StepDescription
  /** What reaches the step, and what it makes of it. */
  picture: Size
  made: Size
  problems: RecipeProblem[]
  /** The model that the clip's condition speaks for, and why. */
  suggestion: { model: string; reason: string } | undefined
  /** Whether its pixels are oblong. */
  oblong?: boolean
  /** What swatches show; none while there is no plan yet. */
  look?: { clip: string; sides: Sides; index: number; frame: number; spot: Point; named: string } | undefined
}>()
const emit = defineEmits<{ change: [step: RecipeStep] }>()

const SIZES = ['factor', 'target', 'width', 'height']
const models = useModels()
onMounted(models.load)
const more = ref(false)

const params = computed(() => new Map(props.description.params.map((one) => [one.key, one])))
const settings = computed(() => props.step.settings)
const factor = computed(() => {
  const given = settings.value['factor']
  if (given !== undefined) {
    return Number(given)
  }
  return SIZES.some((key) => key in settings.value)
    ? Math.round((1000 * props.made.height) / props.picture.height) / 1000
    : 2
})
const target = computed(() => {
  const id = settings.value['target']
  return typeof id === 'string' ? id : undefined
})

/** Only a size of two sides can differ from the picture's shape. */
const isFramed = computed(
  () => target.value !== undefined || ('width' in settings.value && 'height' in settings.value),
)
const fit = computed(() => String(settings.value['fit'] ?? 'shape') as Fit)
const offset = computed(() => Number(settings.value['offset'] ?? 0))
/** The frame that was asked for, whatever shape the picture in it has. */
const frame = computed<Size>(() => {
  const standard = STANDARDS.find((one) => one.id === target.value)
  if (standard) {
    return standing(standard, props.picture)
  }
  return {
    width: Number(settings.value['width'] ?? props.made.width),
    height: Number(settings.value['height'] ?? props.made.height),
  }
})
const isOtherShape = computed(() => isFramed.value && !sameShape(props.picture, frame.value))
/** What the fit does to the picture, in words. */
const fitted = computed(() => {
  const { made, picture } = props
  const share = Math.round(lost(picture, made, fit.value))
  if (fit.value === 'letterbox') {
    const wide = placed(picture, made, 'letterbox', 0).x > 0.5
    return `${share} % of the frame stays black, ${wide ? 'left and right' : 'above and below'}`
  }
  return fit.value === 'fill' ? `${share} % of the picture is cut off` : 'the picture alone, in its own shape'
})

const model = computed(() => String(settings.value['model'] ?? params.value.get('model')?.fallback ?? 'none'))
const mode = computed(() => String(settings.value['mode'] ?? models.modesOf(model.value)[0] ?? ''))
// planning with a model measures it, if it was not yet
watch(
  () => [props.made, model.value, mode.value],
  () => {
    const card = models.all.find((one) => one.id === model.value && one.mode === mode.value)
    if (card && card.pixelsASecond === undefined) {
      void models.load()
    }
  },
)
const isTold = computed(() => model.value !== 'none' && models.isTold(model.value, mode.value))
const rows = computed(() =>
  rowsOf(
    props.step,
    params.value.get('model')?.options ?? [],
    params.value.get('mode')?.options ?? [],
    models,
  ),
)
/** Places on the scale that have a name; anything between can be set beside. */
const looks = [
  { id: '', label: 'Not told', effect: 'what is usual' },
  { id: '0', label: 'Sharp', effect: 'to the pixel; slanted edges have stairs' },
  { id: '50', label: 'Even', effect: 'made small by a good resize' },
  { id: '80', label: 'Soft', effect: 'a little out of focus, or enlarged before' },
]

function param(key: string): ParamDescription | undefined {
  return params.value.get(key)
}

function set(key: string, value: number | string | undefined) {
  emit('change', stepWith(props.step, key, value))
}

/** Gives the size in one way only. */
function setSize(size: Record<string, number | string>) {
  const keepsFit = 'target' in size || ('width' in size && 'height' in size)
  const gone = keepsFit ? SIZES : [...SIZES, 'fit', 'offset']
  const kept = Object.fromEntries(Object.entries(settings.value).filter(([key]) => !gone.includes(key)))
  emit('change', { ...props.step, settings: { ...kept, ...size } })
}

/** One side alone lets the other follow; with the other typed before, it is a frame of its own. */
function setSide(key: 'width' | 'height', value: number | undefined) {
  const other = key === 'width' ? 'height' : 'width'
  const typed = settings.value[other]
  const size = {
    ...(value === undefined ? {} : { [key]: value }),
    ...(typed === undefined ? {} : { [other]: Number(typed) }),
  }
  setSize(Object.keys(size).length > 0 ? size : { factor: 2 })
}

function choose(swatch: Swatch) {
  emit('change', swatch.step)
}

function problem(key: string): string {
  return props.problems.find((one) => one.key === key)?.sentence ?? ''
}
/** What is wrong with settings that stand behind "more" brings them into sight. */
const behind = ['pixels', 'kernel', 'softness', 'texture', 'mode', 'model', 'target']
const faults = computed(() => props.problems.filter((one) => one.key === '' || behind.includes(one.key)))
</script>

<template>
  <div class="controls">
    <SizeFrames
      :picture="picture"
      :chosen="made"
      :target="target"
      :fit="isOtherShape ? fit : 'shape'"
      :offset="offset"
      :least="param('factor')?.min ?? 0.125"
      :most="param('factor')?.max ?? 8"
      @target="(id) => setSize({ target: id })"
      @factor="(next) => setSize({ factor: next })"
    />
    <div class="sizes">
      <NumberField
        v-if="param('factor')"
        :param="{ ...param('factor')!, unit: '×' }"
        label="Factor"
        :value="factor"
        :problem="problem('factor')"
        @change="(value) => setSize({ factor: value ?? 2 })"
      />
      <span class="figure pair">
        <NumberField
          v-if="param('width')"
          :param="{ ...param('width')!, unit: '' }"
          :value="settings['width'] ?? made.width"
          :problem="problem('width')"
          @change="(value) => setSide('width', value)"
        />
        ×
        <NumberField
          v-if="param('height')"
          :param="{ ...param('height')!, unit: '' }"
          :value="settings['height'] ?? made.height"
          :problem="problem('height')"
          @change="(value) => setSide('height', value)"
        />
      </span>
    </div>
    <div v-if="isOtherShape && param('fit')">
      <ChoiceSegments
        :param="{ ...param('fit')!, label: '' }"
        :options="param('fit')!.options"
        :chosen="fit"
        :problem="problem('fit')"
        @change="(id) => set('fit', id === param('fit')?.fallback ? undefined : id)"
      />
      <p class="label fitted" data-test="fitted">{{ fitted }}</p>
      <ParamControl
        v-if="param('offset') && fit !== 'shape'"
        :param="param('offset')!"
        :value="settings['offset']"
        :problem="problem('offset')"
        @change="(value) => set('offset', value)"
      />
    </div>
    <div>
      <p class="label same">
        The same spot, each way <span class="faint">{{ look?.named }}</span>
      </p>
      <Swatches
        :rows="rows"
        :model="model"
        :mode="mode"
        :suggestion="suggestion"
        :look="look"
        :picture="picture"
        @choose="choose"
      />
    </div>
    <ParamControl
      v-if="model !== 'none' && param('texture') && mode === 'made'"
      :param="param('texture')!"
      :value="settings['texture']"
      problem=""
      @change="(value) => set('texture', value)"
    />
    <ParamControl
      v-if="model !== 'none' && param('strength')"
      :param="param('strength')!"
      :value="settings['strength']"
      :problem="problem('strength')"
      @change="(value) => set('strength', value)"
    />
    <p v-for="one in faults" :key="one.sentence" class="fault">{{ one.sentence }}</p>
    <v-btn
      v-if="more || isTold || model === 'none' || oblong"
      class="link more"
      variant="plain"
      :aria-expanded="more"
      data-test="more"
      @click="more = !more"
    >
      {{ more ? 'less' : 'more' }}
    </v-btn>
    <template v-if="more">
      <ChoiceSegments
        v-if="param('softness') && isTold"
        is-tall
        :param="{ ...param('softness')!, label: 'Footage is' }"
        :options="looks"
        :chosen="String(settings['softness'] ?? '')"
        problem=""
        @change="(id) => set('softness', id === '' ? undefined : Number(id))"
      />
      <ParamControl
        v-if="param('softness') && isTold && settings['softness'] !== undefined"
        :param="param('softness')!"
        :value="settings['softness']"
        problem=""
        @change="(value) => set('softness', value)"
      />
      <ParamControl
        v-if="param('kernel') && model === 'none'"
        :param="param('kernel')!"
        :value="settings['kernel']"
        problem=""
        @change="(value) => set('kernel', value)"
      />
      <ParamControl
        v-if="param('pixels') && oblong"
        :param="param('pixels')!"
        :value="settings['pixels']"
        problem=""
        @change="(value) => set('pixels', value)"
      />
    </template>
  </div>
</template>

<style scoped>
.controls {
  display: grid;
  gap: 10px;
}

.sizes {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}

.pair {
  display: flex;
  gap: 4px;
  align-items: baseline;
}

.more {
  justify-self: start;
}

.fitted,
.same {
  margin: 0;
}

.fitted {
  margin-top: 4px;
}

.same {
  margin-bottom: 4px;
}
</style>
