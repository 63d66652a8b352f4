<script setup lang="ts">
import { computed } from 'vue'
import type { PlanView, Recipe, RecipeProblem, RecipeStep, StepDescription, StepsView } from '@/api/client'
import { type Did, takenWords } from '@/view/figures'
import type { Size } from '@/view/glass'
import type { Sides } from '@/view/sides'
import { changesInPlace } from '@/view/useOneStep'
import { rate } from '@/view/words'
import EnlargeControls from './EnlargeControls.vue'
import Looking from './Looking.vue'
import StepControls from './StepControls.vue'
import StepCurves from './StepCurves.vue'
import KeyHint from '@/components/common/KeyHint.vue'

/** One step of the recipe: a line, and under it its card while it is open. */
const props = defineProps<{
  recipe: Recipe
  index: number
  kind: StepDescription | undefined
  plan: PlanView | undefined
  problems: RecipeProblem[]
  figures: StepsView | undefined
  /** What it did, where that was measured with this very recipe. */
  done: Did | undefined
  open: boolean
  cropping: boolean
  alone: boolean
  /** Seconds of the frame that is seen, as it reaches the step. */
  seconds: number
  /** Size of the source, which reaches the first step. */
  source: Size
  oblong: boolean
  suggestion: { model: string; reason: string } | undefined
  look:
    { clip: string; sides: Sides; frame: number; spot: { x: number; y: number }; named: string } | undefined
}>()
const emit = defineEmits<{
  open: []
  change: [step: RecipeStep]
  remove: []
  move: [by: -1 | 1]
  crop: []
  alone: []
  look: []
  'stop-look': [id: string]
}>()

const step = computed(() => props.recipe.steps[props.index]!)
const name = computed(() => props.kind?.name ?? step.value.step)
const made = computed(() => props.plan?.steps[props.index])
const before = computed<Size>(() => props.plan?.steps[props.index - 1] ?? props.source)
const size = computed(() => {
  const now = made.value
  return now ? `${now.width}×${now.height} · ${rate(now.ratePerSecond)}${now.scan}` : ''
})
const own = computed(() => props.problems.filter((one) => one.step === props.index))
const waiting = computed(() =>
  step.value.on ? (props.plan?.waiting.filter((one) => one.step === props.index) ?? []) : [],
)
const taken = computed(() => (props.alone ? takenWords(props.figures, props.index, step.value.step) : ''))
</script>

<template>
  <div :class="{ open, off: !step.on }">
    <div class="step">
      <v-btn
        variant="plain"
        class="bare stitch"
        role="switch"
        :aria-checked="step.on"
        :aria-label="`${name} on`"
        :title="step.on ? 'Switch this step off' : 'Switch it on again'"
        @click="emit('change', { ...step, on: !step.on })"
      >
        <svg viewBox="0 0 14 18" width="14" height="18" aria-hidden="true"><path d="M3 15 11 3" /></svg>
      </v-btn>
      <v-btn variant="plain" class="bare name" :aria-expanded="open" @click="emit('open')">{{ name }}</v-btn>
      <span class="figure">{{ step.on ? made?.summary : 'off' }}</span>
    </div>
    <!-- its line is kept, so that what was measured moves nothing when it comes -->
    <div v-if="step.on && open" class="size figure did">
      <span v-if="done?.text" data-test="did">{{ done.text }}</span>
    </div>
    <div v-if="step.on && done?.worse" class="size label fault" data-test="worse">{{ done.worse }}</div>
    <Looking
      v-for="(one, n) in waiting"
      :key="n"
      :waiting="one"
      @ask="emit('look')"
      @stop="(id) => emit('stop-look', id)"
    />
    <div v-if="open && kind" class="inside">
      <EnlargeControls
        v-if="step.step === 'enlarge'"
        :step="step"
        :description="kind"
        :picture="before"
        :made="made ?? before"
        :problems="own"
        :suggestion="suggestion"
        :oblong="oblong"
        :look="look && { ...look, index }"
        @change="(next) => emit('change', next)"
      />
      <template v-else>
        <v-btn v-if="step.step === 'crop'" block class="wide" :aria-pressed="cropping" @click="emit('crop')">
          {{ cropping ? 'Done' : 'Draw on the picture' }} <KeyHint of="c" />
        </v-btn>
        <v-btn
          v-if="step.on && changesInPlace(kind)"
          block
          class="wide"
          data-test="alone"
          :aria-pressed="alone"
          title="What reaches this step against what it makes of it, and their difference made larger: where shapes of the picture show in it, detail goes with it"
          @click="emit('alone')"
        >
          {{ alone ? 'See the whole recipe again' : 'See what it changes' }}
        </v-btn>
        <p v-if="taken" class="label taken">{{ taken }}</p>
        <StepControls
          :step="step"
          :description="kind"
          :problems="own"
          :seconds="seconds"
          @change="(next) => emit('change', next)"
        />
      </template>
      <StepCurves v-if="step.on && made?.curves.length" :curves="made.curves" />
      <div class="acts">
        <v-btn class="link faint" variant="plain" :disabled="index === 0" @click="emit('move', -1)">
          Earlier
        </v-btn>
        <v-btn
          class="link faint"
          variant="plain"
          :disabled="index === recipe.steps.length - 1"
          @click="emit('move', 1)"
        >
          Later
        </v-btn>
        <v-btn class="link faint remove" variant="plain" @click="emit('remove')">Remove this step</v-btn>
      </div>
    </div>
    <div v-if="step.on" class="size figure ends">
      <span data-test="size">{{ size }}</span>
      <span v-if="done?.text && !open" class="did" data-test="did">{{ done.text }}</span>
    </div>
  </div>
</template>

<style scoped src="./ledger.css"></style>

<style scoped>
.open .name {
  font-weight: 500;
}

/* a stitch as the thread's, but firm, and one that can be undone */
.stitch {
  position: absolute;
  left: 17px;
  top: 6px;
  padding: 0;
  border: 0;
  background: var(--table);
  cursor: pointer;
}

.open .stitch {
  background: var(--raised);
}

.stitch svg {
  display: block;
  fill: none;
  stroke: var(--treated);
  stroke-width: 4;
  stroke-linecap: round;
}

.off .stitch svg {
  stroke: var(--faint);
  stroke-width: 3;
  stroke-dasharray: 0.1 20;
}

.off {
  color: var(--faint);
}

.size.did {
  min-height: 20px;
}

.did {
  color: var(--treated);
}

.ends {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 0 8px;
}

.open {
  background-color: var(--raised);
  background-image: var(--stitches);
  background-repeat: repeat-y;
  background-position: 20px 0;
  margin: 4px 0;
  padding-bottom: 8px;
}

.inside {
  padding: 8px 16px 6px 44px;
}

.taken {
  margin: 0 0 8px;
}

.wide {
  margin-bottom: 12px;
}

.wide[aria-pressed='true'] {
  border-color: var(--treated);
}

.acts {
  display: flex;
  gap: 14px;
  margin-top: 10px;
}

.v-btn.faint {
  color: var(--faint);
}

.remove {
  margin-left: auto;
}
</style>
