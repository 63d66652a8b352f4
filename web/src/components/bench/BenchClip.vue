<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type ClipView, type PinView, type Recipe, type StepDescription } from '@/api/client'
import { useFresh } from '@/stores/fresh'
import { useFigures } from '@/stores/useFigures'
import { useNotices } from '@/stores/notices'
import { usePeeks } from '@/stores/usePeeks'
import { pinAround, usePins } from '@/stores/usePins'
import { usePlans } from '@/stores/usePlans'
import { USUAL, useTake } from '@/stores/useTake'
import { clamp, type Point, type Rect } from '@/view/glass'
import { glassKeys } from '@/view/glassKeys'
import { keepView, keptView } from '@/view/keptView'
import { firstSteps, withSteppedAside } from '@/view/recipe'
import { sidesOf } from '@/view/sides'
import { usePlacement } from '@/view/usePlacement'
import { useBenchKeys } from '@/view/useBenchKeys'
import { useBenchProofs } from '@/view/useBenchProofs'
import { useBenchTakes } from '@/view/useBenchTakes'
import { useCropping } from '@/view/useCropping'
import { useLookThrough } from '@/view/useLookThrough'
import { useOneStep } from '@/view/useOneStep'
import { useSwatchSpot } from '@/view/useSwatchSpot'
import { clock } from '@/view/words'
import DispatchDialog from '@/components/dispatch/DispatchDialog.vue'
import Glass from './Glass.vue'
import Ledger from './Ledger.vue'
import ProofLane from './ProofLane.vue'
import ProofLine from './ProofLine.vue'
import ProveButton from './ProveButton.vue'
import Run from './Run.vue'
import SideColumn, { type Panel, PANELS } from './SideColumn.vue'
import StartDialog from './StartDialog.vue'
import TakeBar from './TakeBar.vue'
import VaryDialog from '@/components/common/VaryDialog.vue'

/** One clip on the bench: its takes, its picture, its time. */
const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const { take, state, plan, planned, planning, problems, saved, load, open, change, note, save, undo, redo } =
  useTake(props.clip.id, notices.fail)
const pins = usePins(props.clip.id, notices.fail)
const peeks = usePeeks(
  () => props.clip.id,
  () => sides.value?.source ?? { width: 1, height: 1 },
  notices.fail,
)
const planOf = usePlans(props.clip.id)
const { figures, want: wantFigures } = useFigures(props.clip.id)

const steps = shallowRef<StepDescription[]>([])
const frame = ref(0)
const seconds = computed(() => frame.value / (props.clip.facts?.ratePerSecond ?? 25))
/** Output frames after the first one made of the frame, where a recipe makes more of them. */
const later = ref(0)
const dispatching = ref(false)
const adding = ref(false)
const starting = ref(false)
const searching = ref(false)
const kept = keptView(props.clip.id)
const panel = ref<Panel>(PANELS.find((one) => one === kept.panel) ?? 'pins')
const marksClipped = ref(false)
const seen = shallowRef<Rect>()
const hover = shallowRef<Point>()
const glass = ref<InstanceType<typeof Glass>>()

const facts = computed(() => props.clip.facts!)
const frames = computed(() => props.clip.frames ?? 1)
/** Width to height of a pixel of what is shown as the source; turned pictures have turned pixels. */
const pixelShape = computed(() => {
  const [across, down] = facts.value.sar.split('/').map(Number)
  const own = (across ?? 1) / (down ?? 1)
  const { width, height } = source.value
  const isTurned = facts.value.width > facts.value.height !== width > height && facts.value.width === height
  return own > 0 ? (isTurned ? 1 / own : own) : 1
})
/** The recipe whose plan is at hand: only that one is shown, so sizes and pixels agree. */
const atRest = computed(() => (plan.value && planned.value ? sidesOf(planned.value, plan.value) : undefined))
const oneStep = useOneStep(
  () => (plan.value && planned.value ? { ...planned.value } : undefined),
  (recipe) => api.plan(props.clip.id, { recipe, deliverable: USUAL }),
  notices.fail,
)
/** What one step makes, against what reaches it, in place of the whole recipe against the source. */
const alone = computed(() => {
  const one = oneStep.shown.value
  const name = (steps.value.find((kind) => kind.id === one?.step.step)?.name ?? '').toLowerCase()
  return one
    ? {
        sides: one.after,
        against: { sides: one.before, name: '', reference: false },
        named: { left: `before ${name}`, right: `after ${name}` },
      }
    : undefined
})
const shown = usePlacement(props.clip.id, atRest, frame, later, notices.fail)
const sides = computed(() => shown.value?.sides)
const source = computed(() => sides.value?.source ?? { width: facts.value.width, height: facts.value.height })
/** Output frames to a frame of the source. */
const perFrame = computed(() => Math.max(1, Math.round(plan.value?.framesToOne ?? 1)))
const place = computed(() => {
  const half = later.value > 0 ? ` + ${later.value}/${perFrame.value}` : ''
  const at = (frame.value + later.value / perFrame.value) * facts.value.seconds
  return `${clock(at / frames.value)} frame ${frame.value}${half}`
})
const pinsHere = computed(() => pins.pins.value.filter((pin) => pin.frame === frame.value))

// --- proofs ---

const { proofs, proof, proofFigures, chosenProof, proofSeconds, player, marked, besides, ...proving } =
  useBenchProofs({
    clip: props.clip,
    planOf,
    take,
    state,
    sides,
    save,
    seenPart: () => glass.value?.seenPart(),
    frame,
    goTo,
  })
const { moving, playing, loop, speed } = player
const presentRecipe = computed(() => JSON.stringify(state.value?.recipe ?? {}))
const isOld = computed(
  () => proof.value !== undefined && JSON.stringify(proof.value.recipe) !== presentRecipe.value,
)

function goTo(at: number) {
  const per = perFrame.value
  const n = clamp(Math.floor(at * per + 1e-6), 0, frames.value * per - 1)
  frame.value = Math.floor(n / per)
  later.value = n % per
}

// --- takes ---

const {
  takes,
  against,
  isVarying: varying,
  openTake,
  copyTake,
  vary,
  startTake,
  saveRecipe,
  stepTake,
  stepAgainst,
  judge,
} = useBenchTakes({
  clip: () => props.clip,
  take,
  state,
  sides,
  planOf,
  open,
  note,
  save,
  opened: () => (cropping.value = -1),
})

// --- pins ---

function dropPin() {
  const at = glass.value?.pointed()
  if (at) {
    addPin(pinAround(at, source.value))
  }
}

function addPin(box: Rect, name?: string) {
  void pins.drop({ ...box, frame: frame.value, ...(name ? { name } : {}) })
  panel.value = 'pins'
}

function goToPin(pin: PinView) {
  player.pause()
  chosenProof.value = undefined
  frame.value = pin.frame
  later.value = 0
  glass.value?.goTo(pin)
}

async function suggestPins() {
  if (state.value) {
    searching.value = true
    await pins.suggest(state.value.recipe, frame.value, source.value)
    searching.value = false
  }
}

const swatchSpot = useSwatchSpot(
  props.clip.id,
  frame,
  hover,
  pinsHere,
  source,
  () => sides.value && firstSteps(sides.value.recipe, sides.value.turning),
)
const swatchLook = computed(() =>
  sides.value && !moving.value
    ? { clip: props.clip.id, sides: sides.value, frame: frame.value, ...swatchSpot.value }
    : undefined,
)

// --- the crop ---

const { cropping, crop, cropStep, setCrop, toggleCrop } = useCropping(
  facts,
  source,
  plan,
  state,
  steps,
  change,
)

onMounted(async () => {
  useFresh().looked(props.clip.id)
  const wanted = route.query
  const first = wanted['frame'] ?? kept.frame ?? Math.floor(frames.value / 2)
  frame.value = clamp(Number(first) || 0, 0, frames.value - 1)
  await load(typeof wanted['take'] === 'string' ? wanted['take'] : undefined)
  void takes.load()
  void pins.load()
  void proofs.load()
  steps.value = await api.steps().catch((error: unknown) => {
    notices.fail(error)
    return []
  })
})
// a pin of the proof sheet that was clicked: gone to once there is a glass
const stopGoing = watch(
  () => [glass.value, pins.pins.value] as const,
  ([there, all]) => {
    const pin = all.find((one) => one.id === route.query['pin'])
    if (there && pin) {
      stopGoing()
      requestAnimationFrame(() => goToPin(pin))
    }
  },
)

watch(
  () => [state.value?.recipe, frame.value, later.value, seen.value, moving.value === undefined] as const,
  ([recipe, n, k, part, rests]) => {
    if (recipe && part && rests && part.width >= 16 && part.height >= 16) {
      wantFigures(recipe, n, k, part)
    }
  },
)

function seeAlone(index: number) {
  oneStep.index.value = index
  chosenProof.value = undefined
  moving.value = undefined
  glass.value?.setLook(index < 0 ? 'wipe' : 'difference')
}

const lookThrough = useLookThrough(props.clip.id, frames, plan, () => state.value?.recipe, notices.fail)

/** A step changes places with its neighbour, where the recipe still works then; else it is said why not. */
async function moveStep(index: number, by: -1 | 1, done: () => void) {
  const recipe = state.value?.recipe
  if (!recipe) {
    return
  }
  const moved = withSteppedAside(recipe, index, by)
  try {
    await planOf(moved)
    setRecipe(moved)
    done()
  } catch (error) {
    notices.fail(error)
  }
}

function setRecipe(recipe: Recipe) {
  change({ recipe })
}

function setSpan(inFrame: number | undefined, outFrame: number | undefined) {
  change({
    inFrame: inFrame === 0 ? undefined : inFrame,
    outFrame: outFrame === frames.value ? undefined : outFrame,
  })
}

function setFrame(next: number) {
  player.pause()
  moving.value = undefined
  frame.value = next
}

/** Dragging along the time axis shows small pictures until the exact ones are there. */
function seek(at: number | undefined) {
  if (at === undefined) {
    peeks.release()
  } else {
    peeks.seek(at)
  }
}

function go(by: number) {
  player.pause()
  moving.value = undefined
  const per = perFrame.value
  const at = clamp(frame.value * per + later.value + by, 0, frames.value * per - 1)
  frame.value = Math.floor(at / per)
  later.value = at % per
}

watch(perFrame, () => (later.value = 0))
watch([frame, panel], ([at, beside]) => keepView(props.clip.id, { frame: at, panel: beside }))
// paused, the exact frame is shown without loss, where the glass has the same to show
watch(playing, (is) => {
  if (!is && (!proof.value || (!isOld.value && !proof.value.against))) {
    moving.value = undefined
  }
})

async function openDispatch() {
  await save()
  dispatching.value = true
}

useBenchKeys(
  () => {
    const now = state.value
    return {
      undo,
      redo,
      up: { f: () => glass.value?.flip(false) },
      down: {
        ...glassKeys(() => glass.value ?? undefined),
        ',': () => go(-1),
        '.': () => go(1),
        '<': () => go(-10 * perFrame.value),
        '>': () => go(10 * perFrame.value),
        Home: () => go(-Infinity),
        End: () => go(Infinity),
        c: toggleCrop,
        Escape: () => {
          cropping.value = -1
          if (oneStep.index.value >= 0) {
            seeAlone(-1)
          }
          chosenProof.value = undefined
        },
        i: () =>
          setSpan(
            frame.value,
            now?.outFrame !== undefined && now.outFrame > frame.value ? now.outFrame : undefined,
          ),
        o: () =>
          setSpan(
            now?.inFrame !== undefined && now.inFrame <= frame.value ? now.inFrame : undefined,
            frame.value + 1,
          ),
        I: () => setSpan(undefined, now?.outFrame),
        O: () => setSpan(now?.inFrame, undefined),
        p: dropPin,
        P: () => void suggestPins(),
        v: () => (varying.value = true),
        l: () => (adding.value = true),
        x: () => (panel.value = panel.value === 'pixel' ? 'pins' : 'pixel'),
        m: () => (marksClipped.value = !marksClipped.value),
        h: () => (panel.value = panel.value === 'scopes' ? 'pins' : 'scopes'),
        Enter: () => void proving.prove(),
        ' ': proving.playOrPause,
        t: () => stepTake(1),
        T: () => stepTake(-1),
        n: () => void copyTake(),
        a: () => void stepAgainst(),
        j: proving.layNewestBeside,
        k: judge,
        g: () => void router.push(`/sheet/${props.clip.id}`),
      },
    }
  },
  () => take.value !== undefined && sides.value !== undefined,
)
</script>

<template>
  <div class="bench">
    <Ledger
      v-if="take && state"
      v-model:adding="adding"
      :clip="clip"
      :recipe="state.recipe"
      :steps="steps"
      :plan="plan"
      :problems="problems"
      :figures="figures"
      :cropping="cropping"
      :seconds="seconds"
      :alone="oneStep.index.value"
      :look="swatchLook"
      @alone="seeAlone"
      @move="moveStep"
      @crop="(index) => (cropping = index)"
      @change="setRecipe"
      @dispatch="openDispatch"
      @look="lookThrough"
      @stop-look="(id) => api.stopAnalysis(clip.id, id).catch(notices.fail)"
    >
      <TakeBar
        :take="take"
        :takes="takes.open.value"
        :discarded="takes.discarded.value"
        :saved="saved"
        @open="openTake"
        @copy="copyTake"
        @vary="varying = true"
        @start="starting = true"
        @save-recipe="saveRecipe"
        @undo="undo"
        @redo="redo"
        @label="(one, label) => takes.label(one.id, label)"
        @remove="(one) => takes.remove(one.id)"
      />
    </Ledger>
    <div v-else class="blank"></div>
    <Glass
      v-if="take && sides"
      ref="glass"
      :clip="clip.id"
      :title="clip.title"
      :frame="shown?.frame ?? frame"
      :later="shown?.later ?? later"
      :sides="alone?.sides ?? sides"
      :take-name="take.name"
      :against="alone?.against ?? against"
      :named="alone?.named"
      :moving="moving"
      :earlier="isOld"
      :peek="peeks.piece.value"
      :place="place"
      :pins="moving ? [] : pinsHere"
      :crop="crop"
      :crop-step="cropStep"
      :marked="marksClipped"
      :awaited="planning"
      :pixel-shape="pixelShape"
      @crop="setCrop"
      @pin="addPin"
      @hover="(at) => (hover = at)"
      @seen="(part) => (seen = part)"
      @failed="notices.fail"
    />
    <div v-else class="unplanned">
      <p v-if="take?.unreadable" class="fault" role="alert" data-test="unreadable">
        Take {{ take.name }} cannot be shown: {{ take.unreadable }}. Choose another take, or start a new one.
      </p>
      <p v-else-if="problems.length > 0" class="fault" role="alert">
        This take cannot be shown: {{ problems[0]?.sentence }}. Change that setting on the left.
      </p>
    </div>
    <SideColumn
      v-if="sides"
      v-model:panel="panel"
      v-model:marked="marksClipped"
      class="beside"
      :clip="clip.id"
      :recipe="sides.recipe"
      :sides="sides"
      :frame="frame"
      :later="later"
      :pins="pins.pins.value"
      :searching="searching"
      :seen="seen"
      :hover="hover"
      @go="goToPin"
      @rename="(pin, name) => pins.change(pin.id, { name })"
      @remove="(pin) => pins.remove(pin.id)"
      @drop="dropPin"
      @suggest="suggestPins"
      @failed="notices.fail"
    />
    <Run
      class="time"
      :frame="frame"
      :clip="clip"
      :frames="frames"
      :seconds="facts.seconds"
      :in-frame="state?.inFrame"
      :out-frame="state?.outFrame"
      :peek-of="peeks.src"
      @update:frame="setFrame"
      @seek="seek"
      @span="setSpan"
    >
      <template #prove>
        <ProveButton
          :seconds="proofSeconds"
          :marked="marked"
          @prove="proving.prove"
          @seconds="(n) => (proofSeconds = n)"
        />
      </template>
      <template #proof>
        <ProofLine
          :proof="proof"
          :figures="proofFigures"
          :playing="playing"
          :loop="loop"
          :speed="speed"
          :besides="besides"
          :old="isOld"
          @beside="proving.layBeside"
          @again="proving.proveAgain"
          @toggle="proving.playOrPause"
          @stop="(one) => proofs.stop(one.id)"
          @remove="proving.throwAway"
          @close="chosenProof = undefined"
          @loop="loop = !loop"
          @speed="proving.nextSpeed"
          @compare="proving.compareProof"
        />
      </template>
      <template #lane>
        <ProofLane
          :proofs="proofs.proofs.value"
          :frames="frames"
          :chosen="chosenProof"
          :present="presentRecipe"
          @choose="(one) => (chosenProof = one.id)"
        />
      </template>
    </Run>
    <DispatchDialog
      v-if="take && state"
      v-model="dispatching"
      :take="take"
      :recipe="state.recipe"
      :clip-title="clip.title"
    />
    <StartDialog v-model="starting" :clip="clip" :kinds="steps" @start="startTake" />
    <VaryDialog
      v-if="take && state"
      v-model="varying"
      :recipe="state.recipe"
      :kinds="steps"
      :take-name="take.name"
      @make="vary"
    />
  </div>
</template>

<style scoped>
.unplanned {
  display: grid;
  place-items: center;
  padding: 20px;
}

.bench {
  display: grid;
  grid-template: 'ledger glass beside' minmax(0, 1fr) 'ledger run beside' auto / 296px minmax(0, 1fr) clamp(
      160px,
      12.5vw,
      250px
    );
  height: calc(100vh - 44px);
  min-height: 480px;
}

.bench > :deep(.ledger),
.blank {
  grid-area: ledger;
}

.beside {
  grid-area: beside;
}

.time {
  grid-area: run;
}

.bench > :deep(.glass),
.unplanned {
  grid-area: glass;
}
</style>
