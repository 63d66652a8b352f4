<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type {
  ClipView,
  PlanView,
  Recipe,
  RecipeProblem,
  RecipeStep,
  StepDescription,
  StepsView,
} from '@/api/client'
import { did } from '@/view/figures'
import type { Sides } from '@/view/sides'
import { mostWrong, rescueWords, suggested } from '@/view/condition'
import { withNewStep, withoutStep, withStep } from '@/view/recipe'
import { bytes, rate, wait } from '@/view/words'
import ConditionList from './ConditionList.vue'
import LedgerStep from './LedgerStep.vue'
import StepPicker from './StepPicker.vue'
import Suggested from './Suggested.vue'

/** The recipe as a list on a thread: source at the top, what is sent out at the bottom. */
const props = defineProps<{
  clip: ClipView
  recipe: Recipe
  steps: StepDescription[]
  plan: PlanView | undefined
  problems: RecipeProblem[]
  /** What was measured behind each step of the part that is seen. */
  figures: StepsView | undefined
  /** The crop step whose rectangle is being dragged on the picture, or -1. */
  cropping: number
  /** Seconds of the clip at the frame that is seen. */
  seconds: number
  /** The step that is seen alone, or -1. */
  alone: number
  /** What swatches show, once there is a plan. */
  look:
    { clip: string; sides: Sides; frame: number; spot: { x: number; y: number }; named: string } | undefined
}>()
/** Whether a step is being chosen that is to be added. */
const adding = defineModel<boolean>('adding', { default: false })
const emit = defineEmits<{
  change: [recipe: Recipe]
  dispatch: []
  /** A step is to change places with the one before or behind it; what to do when it did. */
  move: [index: number, by: -1 | 1, done: () => void]
  crop: [index: number]
  /** What a step changes is to be seen alone; -1 ends that. */
  alone: [index: number]
  /** What steps wait for is to be found in the whole clip. */
  look: []
  'stop-look': [id: string]
  /** A step was opened, or -1: what is before it stays as it is for now. */
  opened: [index: number]
}>()
/** Which step is open; the enlarge step at first, as it is what most come for. */
const open = ref(props.recipe.steps.findIndex((step) => step.step === 'enlarge'))
// a step that comes before the open one, by a key or from elsewhere, must not open another
watch(
  () => props.recipe.steps,
  (now, before) => {
    if (coming !== undefined) {
      coming = undefined
      return
    }
    const step = before[open.value]
    const at = step === undefined ? -1 : now.indexOf(step)
    if (at >= 0 && at !== open.value) {
      isSought = false
      open.value = at
    }
  },
)
watch(open, (at) => emit('opened', at), { immediate: true })
const seesCondition = ref(false)
const scroll = ref<HTMLElement>()
/** Where the open step will be with the recipe that is on its way. */
let coming: number | undefined
/** Whether what opens is brought into sight; not where that would move what was just clicked. */
let isSought = true
function openAt(index: number, sought = true) {
  coming = index
  isSought = sought
  open.value = index
}
// a step that was opened far down would show its head alone
watch(open, async () => {
  await nextTick()
  if (isSought) {
    scroll.value?.querySelector('.open')?.scrollIntoView?.({ block: 'nearest' })
  }
  isSought = true
})

const facts = computed(() => props.clip.facts)
const estimate = computed(() => {
  const plan = props.plan
  if (!plan) {
    return ''
  }
  // as long as the file will be: a change of speed makes it another length than the span's
  const parts = [`${(plan.frames / plan.ratePerSecond).toFixed(1)} s`, bytes(plan.fileBytes)]
  return parts.join(' · ')
})

function describe(step: RecipeStep): StepDescription | undefined {
  return props.steps.find((one) => one.id === step.step)
}

function change(index: number, step: RecipeStep) {
  emit('change', withStep(props.recipe, index, step))
}

const condition = computed(() => props.clip.examination?.condition)

/** The model that was suggested with the rest of the recipe; before the clip was examined, by its file alone. */
const modelSuggestion = computed(() => {
  const part = condition.value?.suggestion.steps.find((step) => step.step === 'enlarge')
  const model = part?.settings['model']
  return part && typeof model === 'string'
    ? { model, reason: part.reason.replace(`${model}: `, '') }
    : facts.value?.suggestion
})

function takeSuggestion() {
  if (condition.value) {
    const recipe = suggested(condition.value)
    openAt(recipe.steps.length - 1, false)
    emit('change', recipe)
  }
}

function add(kind: string, settings: RecipeStep['settings']) {
  const { recipe, index } = withNewStep(
    props.recipe,
    kind,
    props.steps.map((step) => step.id),
    settings,
  )
  openAt(index)
  emit('change', recipe)
  if (kind === 'crop') {
    emit('crop', index)
  }
}

function remove(index: number) {
  openAt(-1)
  emit('crop', -1)
  emit('change', withoutStep(props.recipe, index))
}

/** What each step did, where it was measured with this very recipe. */
const done = computed(() => {
  const figures = props.figures
  return figures?.steps.length === props.recipe.steps.length
    ? figures.steps.map((after, i) => did(figures.steps[i - 1] ?? figures.source, after))
    : []
})

/** Seconds of the frame that is seen, as it reaches a step: those before it may change the speed. */
function reaching(index: number): number {
  return Math.round((props.seconds / (props.plan?.steps[index - 1]?.speed ?? 1)) * 1000) / 1000
}
</script>

<template>
  <section class="ledger" aria-label="Recipe">
    <slot></slot>
    <StepPicker v-model="adding" :steps="steps" :condition="condition" :recipe="recipe" @add="add" />
    <div ref="scroll" class="scroll">
      <div class="thread" aria-hidden="true"></div>
      <div class="step">
        <v-btn
          variant="plain"
          class="bare name clip-title"
          :aria-expanded="seesCondition"
          title="What is wrong with it"
          @click="seesCondition = !seesCondition"
        >
          {{ clip.title }}
        </v-btn>
        <span class="figure source">source</span>
      </div>
      <div v-if="facts" class="size figure">
        {{ facts.width }}×{{ facts.height }} · {{ rate(facts.ratePerSecond) }}{{ facts.scan }} ·
        {{ facts.depth }} bit{{ facts.transparent ? ' · transparent' : '' }}
      </div>
      <div v-if="facts && facts.sar !== '1'" class="size label">pixels {{ facts.sar.replace('/', ':') }}</div>
      <div v-if="clip.problem" class="size label fault" data-test="damage-words">{{ clip.problem }}</div>
      <div v-if="rescueWords(clip)" class="size label">{{ rescueWords(clip) }}</div>
      <div v-if="condition && !seesCondition" class="size label">{{ mostWrong(condition) }}</div>
      <ConditionList v-if="seesCondition" :clip="clip" />
      <Suggested
        v-if="condition"
        :condition="condition"
        :steps="steps"
        :recipe="recipe"
        @take="takeSuggestion"
      />
      <LedgerStep
        v-for="(step, index) in recipe.steps"
        :key="index"
        :recipe="recipe"
        :index="index"
        :kind="describe(step)"
        :plan="plan"
        :problems="problems"
        :figures="figures"
        :done="done[index]"
        :open="open === index"
        :cropping="cropping === index"
        :alone="alone === index"
        :seconds="reaching(index)"
        :source="plan?.base ?? { width: facts?.width ?? 1, height: facts?.height ?? 1 }"
        :oblong="facts !== undefined && facts.sar !== '1'"
        :suggestion="modelSuggestion"
        :look="look"
        @open="open = open === index ? -1 : index"
        @change="(next) => change(index, next)"
        @remove="remove(index)"
        @move="(by) => emit('move', index, by, () => openAt(index + by))"
        @crop="emit('crop', cropping === index ? -1 : index)"
        @alone="emit('alone', alone === index ? -1 : index)"
        @look="emit('look')"
        @stop-look="(id) => emit('stop-look', id)"
      />
      <div class="add">
        <v-btn class="link treated" variant="plain" title="Add a step: L" @click="adding = true">
          + step
        </v-btn>
      </div>
    </div>
    <div class="foot">
      <div>
        <div>H.264, MP4</div>
        <div class="figure quiet" title="estimated">{{ estimate }}</div>
        <div v-if="plan?.estimateSeconds !== undefined" class="figure quiet" title="by the last render here">
          {{ wait(plan.estimateSeconds) }} to make
        </div>
        <div v-if="plan && !plan.wholeClip" class="label treated">
          only {{ plan.seconds.toFixed(1) }} s of {{ plan.clipSeconds.toFixed(1) }} s
        </div>
      </div>
      <v-btn color="primary" variant="flat" :disabled="!plan" @click="emit('dispatch')">Dispatch…</v-btn>
    </div>
  </section>
</template>

<style scoped src="./ledger.css"></style>

<style scoped>
.ledger {
  background: var(--table);
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  min-height: 0;
}

.scroll {
  position: relative;
  /* a card that gets shorter must not pull what is above it down under the pointer */
  padding-bottom: 240px;
  flex: 1;
  overflow: hidden auto;
  min-height: 0;
}

.thread {
  position: absolute;
  left: 20px;
  top: 64px;
  bottom: 0;
  width: 8px;
  background: var(--stitches) repeat-y;
}

.thread::before {
  content: '';
  position: absolute;
  top: -56px;
  width: 8px;
  height: 56px;
  background: var(--stitches-source) repeat-y;
}

.clip-title {
  overflow-wrap: anywhere;
}

.add {
  padding: 6px 16px 14px 44px;
}

.foot {
  position: relative;
  /* as high as what it may ever say */
  min-height: 82px;
  border-top: 1px solid var(--rule);
  padding: 8px 16px 8px 44px;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
</style>
