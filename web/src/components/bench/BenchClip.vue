<script setup lang="ts">
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type ClipView, type Recipe } from '@/api/client'
import { useFresh } from '@/stores/fresh'
import { useFigures } from '@/stores/useFigures'
import { useNotices } from '@/stores/notices'
import { usePeeks } from '@/stores/usePeeks'
import { usePlans } from '@/stores/usePlans'
import { useStepKinds } from '@/stores/useStepKinds'
import { useTake } from '@/stores/useTake'
import { cutsByHand } from '@/view/cutsByHand'
import { clamp, type Point, type Rect } from '@/view/glass'
import { glassKeys } from '@/view/glassKeys'
import { keepView, keptView } from '@/view/keptView'
import { useBenchKeys } from '@/view/useBenchKeys'
import { useBenchPins } from '@/view/useBenchPins'
import { useBenchProofs } from '@/view/useBenchProofs'
import { useBenchSides } from '@/view/useBenchSides'
import { useBenchTakes } from '@/view/useBenchTakes'
import { useBenchTime } from '@/view/useBenchTime'
import { useCropping } from '@/view/useCropping'
import { useLookThrough } from '@/view/useLookThrough'
import type { Target } from '@/view/sending'
import { useSpan } from '@/view/useSpan'
import { useStepMoves } from '@/view/useStepMoves'
import { useSwatchLook } from '@/view/useSwatchSpot'
import DispatchDialog from '@/components/dispatch/DispatchDialog.vue'
import BenchRun from './BenchRun.vue'
import Glass from './Glass.vue'
import Ledger from './Ledger.vue'
import SideColumn, { type Panel, PANELS } from './SideColumn.vue'
import StartDialog from './StartDialog.vue'
import TakeBar from './TakeBar.vue'
import Unplanned from './Unplanned.vue'
import VaryDialog from '@/components/common/VaryDialog.vue'

/** One clip on the bench: its takes, its picture, its time. */
const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()
const route = useRoute()
const router = useRouter()
const { take, state, plan, planned, planning, problems, saved, load, open, change, note, save, undo, redo } =
  useTake(props.clip.id, notices.fail)
const peeks = usePeeks(
  () => props.clip.id,
  () => sides.value?.source ?? { width: 1, height: 1 },
  notices.fail,
)
const planOf = usePlans(props.clip.id)
const { figures, want: wantFigures } = useFigures(props.clip.id)

const steps = useStepKinds(notices.fail)
const { frames, frame, later, perFrame, seconds, place, goTo, goBy } = useBenchTime(
  props.clip,
  () => plan.value?.framesToOne,
)
const dispatching = ref(false)
const sending = computed<Target[]>(() =>
  take.value && state.value
    ? [{ take: take.value, recipe: state.value.recipe, title: props.clip.title }]
    : [],
)
const adding = ref(false)
const starting = ref(false)
const kept = keptView(props.clip.id)
const panel = ref<Panel>(PANELS.find((one) => one === kept.panel) ?? 'pins')
const marksClipped = ref(false)
const seen = shallowRef<Rect>()
const hover = shallowRef<Point>()
const glass = ref<InstanceType<typeof Glass>>()

const facts = computed(() => props.clip.facts!)
const byHand = computed(() =>
  cutsByHand(state.value?.recipe, plan.value, frames / Math.max(0.001, facts.value.seconds)),
)
const { opened, shown, sides, source, pixelShape, aloneAt, alone } = useBenchSides({
  clip: props.clip.id,
  facts,
  plan,
  planned,
  kinds: steps,
  frame,
  later,
  failed: notices.fail,
})

const proving = useBenchProofs({
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
const { proofs, chosenProof, isOld, player } = proving
const { moving } = player

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

const { pinsHere, searching, ...pins } = useBenchPins({
  clip: props.clip.id,
  frame,
  source,
  recipe: () => state.value?.recipe,
  glass: () => glass.value ?? undefined,
  dropped: () => (panel.value = 'pins'),
  leaving: () => {
    player.pause()
    chosenProof.value = undefined
  },
  goTo,
  failed: notices.fail,
})

const swatchLook = useSwatchLook({
  clip: props.clip.id,
  frame,
  hover,
  pins: pinsHere,
  source,
  sides,
  plays: () => moving.value !== undefined,
})

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
  const first = wanted['frame'] ?? kept.frame ?? Math.floor(frames / 2)
  frame.value = clamp(Number(first) || 0, 0, frames - 1)
  await load(typeof wanted['take'] === 'string' ? wanted['take'] : undefined)
  void takes.load()
  void pins.load()
  void proofs.load()
})
watch(
  () => [state.value?.recipe, frame.value, later.value, seen.value, moving.value === undefined] as const,
  ([recipe, n, k, part, rests]) => {
    if (recipe && part && rests && part.width >= 16 && part.height >= 16) {
      wantFigures(recipe, n, k, part)
    }
  },
)

function seeAlone(index: number) {
  aloneAt.value = index
  chosenProof.value = undefined
  moving.value = undefined
  glass.value?.setLook(index < 0 ? 'wipe' : 'difference')
}

const lookThrough = useLookThrough(props.clip.id, frames, plan, () => state.value?.recipe, notices.fail)

function setRecipe(recipe: Recipe) {
  change({ recipe })
}
const moveStep = useStepMoves(() => state.value?.recipe, planOf, setRecipe, notices.fail)
const { setSpan, spanKeys } = useSpan(frames, frame, state, change)

function setFrame(next: number) {
  proving.rest()
  frame.value = next
}

function go(by: number) {
  proving.rest()
  goBy(by)
}

watch([frame, panel], ([at, beside]) => keepView(props.clip.id, { frame: at, panel: beside }))

async function openDispatch() {
  await save()
  dispatching.value = true
}

useBenchKeys(
  () => ({
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
        if (aloneAt.value >= 0) {
          seeAlone(-1)
        }
        chosenProof.value = undefined
      },
      ...spanKeys,
      p: pins.dropPin,
      P: () => void pins.suggestPins(),
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
  }),
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
      :alone="aloneAt"
      :look="swatchLook"
      @alone="seeAlone"
      @opened="(index) => (opened = index)"
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
      @pin="pins.addPin"
      @hover="(at) => (hover = at)"
      @seen="(part) => (seen = part)"
      @failed="notices.fail"
    />
    <Unplanned v-else class="unplanned" :take="take" :problems="problems" />
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
      @go="pins.goToPin"
      @rename="(pin, name) => pins.change(pin.id, { name })"
      @remove="(pin) => pins.remove(pin.id)"
      @drop="pins.dropPin"
      @suggest="pins.suggestPins"
      @failed="notices.fail"
    />
    <BenchRun
      class="time"
      :clip="clip"
      :frames="frames"
      :frame="frame"
      :in-frame="state?.inFrame"
      :out-frame="state?.outFrame"
      :peek-of="peeks.src"
      :recipe="state?.recipe"
      :by-hand="byHand"
      :proving="proving"
      @frame="setFrame"
      @seek="peeks.follow"
      @span="setSpan"
    />
    <DispatchDialog v-if="take && state" v-model="dispatching" :targets="sending" />
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
