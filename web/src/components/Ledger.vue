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
import { did, takenWords } from '@/view/figures'
import { holdsSteps, mostWrong, suggested } from '@/view/condition'
import { changesInPlace } from '@/view/useOneStep'
import { withNewStep, withoutStep, withStep } from '@/view/recipe'
import { bytes, rate, wait } from '@/view/words'
import ConditionList from './ConditionList.vue'
import EnlargeControls from './EnlargeControls.vue'
import Looking from './Looking.vue'
import StepControls from './StepControls.vue'
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
}>()
/** Whether a step is being chosen that is to be added. */
const adding = defineModel<boolean>('adding', { default: false })
const emit = defineEmits<{
  change: [recipe: Recipe]
  dispatch: []
  crop: [index: number]
  /** What a step changes is to be seen alone; -1 ends that. */
  alone: [index: number]
  /** What steps wait for is to be found in the whole clip. */
  look: []
  'stop-look': [id: string]
}>()
/** Which step is open; the enlarge step at first, as it is what most come for. */
const open = ref(props.recipe.steps.findIndex((step) => step.step === 'enlarge'))
const seesCondition = ref(false)
const scroll = ref<HTMLElement>()
// a step that was opened far down would show its head alone
watch(open, async () => {
  await nextTick()
  scroll.value?.querySelector('.open')?.scrollIntoView?.({ block: 'nearest' })
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
const taken = computed(() => condition.value && holdsSteps(props.recipe, suggested(condition.value)))

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
    emit('change', recipe)
    open.value = recipe.steps.length - 1
  }
}

function add(kind: string, settings: RecipeStep['settings']) {
  const { recipe, index } = withNewStep(
    props.recipe,
    kind,
    props.steps.map((step) => step.id),
    settings,
  )
  open.value = index
  emit('change', recipe)
  if (kind === 'crop') {
    emit('crop', index)
  }
}

function remove(index: number) {
  open.value = -1
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

function size(index: number): string {
  const step = props.plan?.steps[index]
  return step ? `${step.width}×${step.height} · ${rate(step.ratePerSecond)}${step.scan}` : ''
}
</script>

<template>
  <section class="ledger" aria-label="Recipe">
    <slot></slot>
    <StepPicker v-model="adding" :steps="steps" :condition="condition" :recipe="recipe" @add="add" />
    <div ref="scroll" class="scroll">
      <div class="thread" aria-hidden="true"></div>
      <div class="step">
        <span class="knot at-source" aria-hidden="true"></span>
        <button
          class="name clip-title"
          type="button"
          :aria-expanded="seesCondition"
          title="What is wrong with it"
          @click="seesCondition = !seesCondition"
        >
          {{ clip.title }}
        </button>
        <span class="figure source">source</span>
      </div>
      <div v-if="facts" class="size figure">
        {{ facts.width }}×{{ facts.height }} · {{ rate(facts.ratePerSecond) }}{{ facts.scan }} ·
        {{ facts.depth }} bit{{ facts.transparent ? ' · transparent' : '' }}
      </div>
      <div v-if="facts && facts.sar !== '1'" class="size label">
        pixels {{ facts.sar.replace('/', ':') }}, shown square here
      </div>
      <div v-if="condition && !seesCondition" class="size label">{{ mostWrong(condition) }}</div>
      <ConditionList v-if="seesCondition" :clip="clip" />
      <Suggested
        v-if="condition && (!taken || seesCondition)"
        :condition="condition"
        :steps="steps"
        :taken="taken === true"
        @take="takeSuggestion"
      />
      <div
        v-for="(step, index) in recipe.steps"
        :key="index"
        :class="{ open: open === index, off: !step.on }"
      >
        <div class="step">
          <button
            class="knot"
            type="button"
            role="switch"
            :aria-checked="step.on"
            :aria-label="`${describe(step)?.name} on`"
            :title="step.on ? 'Switch this step off' : 'Switch it on again'"
            @click="change(index, { ...step, on: !step.on })"
          ></button>
          <button
            class="name"
            type="button"
            :aria-expanded="open === index"
            @click="open = open === index ? -1 : index"
          >
            {{ describe(step)?.name ?? step.step }}
          </button>
          <span class="figure">{{ step.on ? plan?.steps[index]?.summary : 'off' }}</span>
        </div>
        <div v-if="step.on && done[index]?.text" class="size figure did" data-test="did">
          {{ done[index]?.text }}
        </div>
        <div v-if="step.on && done[index]?.worse" class="size label fault" data-test="worse">
          {{ done[index]?.worse }}
        </div>
        <Looking
          v-for="(waiting, n) in step.on ? (plan?.waiting.filter((one) => one.step === index) ?? []) : []"
          :key="n"
          :waiting="waiting"
          @ask="emit('look')"
          @stop="(id) => emit('stop-look', id)"
        />
        <div v-if="open === index && describe(step)" class="inside">
          <EnlargeControls
            v-if="step.step === 'enlarge'"
            :step="step"
            :description="describe(step)!"
            :width="plan?.steps[index]?.width ?? 1280"
            :height="plan?.steps[index]?.height ?? 720"
            :problems="problems.filter((one) => one.step === index)"
            :suggestion="modelSuggestion"
            @change="(next) => change(index, next)"
          />
          <template v-else>
            <button
              v-if="step.step === 'crop'"
              class="button drag"
              type="button"
              :aria-pressed="cropping === index"
              @click="emit('crop', cropping === index ? -1 : index)"
            >
              {{ cropping === index ? 'Done' : 'Drag on the picture' }} <kbd>C</kbd>
            </button>
            <button
              v-if="step.on && changesInPlace(describe(step))"
              class="button drag"
              type="button"
              data-test="alone"
              :aria-pressed="alone === index"
              title="What reaches this step against what it makes of it, and their difference made larger: where shapes of the picture show in it, detail goes with it"
              @click="emit('alone', alone === index ? -1 : index)"
            >
              {{ alone === index ? 'See the whole recipe again' : 'See what it changes' }}
            </button>
            <p v-if="alone === index && takenWords(figures, index, step.step)" class="label taken">
              {{ takenWords(figures, index, step.step) }}
            </p>
            <StepControls
              :step="step"
              :description="describe(step)!"
              :problems="problems.filter((one) => one.step === index)"
              :seconds="reaching(index)"
              @change="(next) => change(index, next)"
            />
          </template>
          <button class="link remove" type="button" @click="remove(index)">Remove this step</button>
        </div>
        <div v-if="step.on" class="size figure" data-test="size">{{ size(index) }}</div>
      </div>
      <div class="add">
        <button class="link treated" type="button" title="Add a step: L" @click="adding = true">
          + step
        </button>
      </div>
    </div>
    <div class="foot">
      <span class="knot square" aria-hidden="true"></span>
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
      <button class="button go" type="button" :disabled="!plan" @click="emit('dispatch')">Dispatch…</button>
    </div>
  </section>
</template>

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
  flex: 1;
  overflow: hidden auto;
  min-height: 0;
}

.thread {
  position: absolute;
  left: 23px;
  top: 16px;
  bottom: 0;
  width: 2px;
  background: linear-gradient(var(--source) 0 52px, var(--treated) 52px);
}

.step {
  position: relative;
  padding: 6px 16px 4px 44px;
  display: flex;
  justify-content: space-between;
  gap: 8px;
}

.clip-title {
  overflow-wrap: anywhere;
}

.name {
  background: none;
  border: 0;
  padding: 0;
  color: inherit;
  font: inherit;
  cursor: pointer;
  text-align: left;
}

.open .name {
  font-weight: 500;
}

.knot {
  position: absolute;
  left: 17px;
  top: 9px;
  width: 14px;
  height: 14px;
  padding: 0;
  border-radius: 7px;
  background: var(--treated);
  border: 3px solid var(--table);
  cursor: pointer;
}

.at-source {
  background: var(--source);
  cursor: default;
}

.off .knot {
  background: var(--table);
  box-shadow: inset 0 0 0 2px var(--faint);
}

.off {
  color: var(--faint);
}

.size {
  padding: 0 16px 4px 44px;
  color: var(--faint);
}

.size.did {
  color: var(--treated);
}

.size.fault {
  color: var(--fault);
}

.open {
  position: relative;
  background: var(--raised);
  margin: 4px 0;
  padding-bottom: 8px;
}

.open::before {
  content: '';
  position: absolute;
  left: 23px;
  top: 0;
  bottom: 0;
  width: 2px;
  background: var(--treated);
}

.open .knot {
  border-color: var(--raised);
}

.inside {
  padding: 8px 16px 10px 44px;
}

.taken {
  margin: 0 0 8px;
}
.drag {
  width: 100%;
  margin-bottom: 12px;
}

.drag[aria-pressed='true'] {
  border-color: var(--treated);
}

.remove {
  margin-top: 10px;
  color: var(--faint);
}

.add {
  padding: 6px 16px 14px 44px;
}

.foot {
  position: relative;
  border-top: 1px solid var(--rule);
  padding: 12px 16px 12px 44px;
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}

.square {
  border-radius: 0;
  border: 0;
  width: 8px;
  height: 8px;
  left: 20px;
  top: 24px;
}
</style>
