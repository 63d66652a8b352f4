<script setup lang="ts">
import { computed, onMounted, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { api, type ClipView, type Recipe, type StepDescription } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { useTake } from '@/stores/useTake'
import { clamp, type Rect } from '@/view/glass'
import { withNewStep, withStep } from '@/view/recipe'
import { clock } from '@/view/words'
import DispatchDialog from './DispatchDialog.vue'
import Glass from './Glass.vue'
import Ledger from './Ledger.vue'
import Run from './Run.vue'

/** One clip on the bench: its recipe, its picture, its time. */
const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()
const { take, state, plan, problems, saved, load, change, save, undo, redo } = useTake(
  props.clip.id,
  notices.fail,
)

const steps = shallowRef<StepDescription[]>([])
const frame = ref(0)
/** Output frames after the first one made of the frame, where a recipe makes more of them. */
const later = ref(0)
/** The crop step whose rectangle is being dragged, or -1. */
const cropping = ref(-1)
const dispatching = ref(false)
const glass = ref<InstanceType<typeof Glass>>()
/** The recipe that the plan at hand belongs to: only that one is shown, so sizes and pixels agree. */
const facts = computed(() => props.clip.facts!)
const frames = computed(() => props.clip.frames ?? 1)
const source = computed(() =>
  plan.value
    ? { width: plan.value.base.width, height: plan.value.base.height }
    : { width: facts.value.width, height: facts.value.height },
)
/** Output frames to a frame of the source. */
const perFrame = computed(() =>
  Math.max(1, Math.round((plan.value?.ratePerSecond ?? 0) / facts.value.ratePerSecond)),
)
const treated = computed(() => {
  const last = plan.value?.steps.at(-1)
  return last ? { width: last.width, height: last.height } : source.value
})
const placement = computed(() => plan.value?.placement ?? { x: 0, y: 0, ...source.value })
const place = computed(() => {
  const half = later.value > 0 ? ` + ${later.value}/${perFrame.value}` : ''
  const at = (frame.value + later.value / perFrame.value) * facts.value.seconds
  return `${clock(at / frames.value)} frame ${frame.value}${half}`
})

/** What the step being dragged gets: the picture before it is the source's, as crops come before anything that enlarges. */
const crop = computed<Rect | undefined>(() => {
  const step = state.value?.recipe.steps[cropping.value]
  if (step?.step !== 'crop' || !plan.value) {
    return undefined
  }
  const { settings } = step
  const x = Number(settings['left'] ?? 0)
  const y = Number(settings['top'] ?? 0)
  return {
    x,
    y,
    width: Number(settings['width'] ?? source.value.width - x),
    height: Number(settings['height'] ?? source.value.height - y),
  }
})
const cropStep = computed(() => {
  const across = ['4:2:0', '4:2:2'].includes(facts.value.layout) ? 2 : 1
  const down = facts.value.layout === '4:2:0' ? 2 : 1
  const before = plan.value?.steps[cropping.value]
  return { width: across, height: down * (before?.scan === 'i' ? 2 : 1) }
})

function setCrop(next: Rect) {
  const now = state.value
  const step = now?.recipe.steps[cropping.value]
  if (now && step) {
    const settings = { left: next.x, top: next.y, width: next.width, height: next.height }
    change({ recipe: withStep(now.recipe, cropping.value, { ...step, settings }) }, `crop ${cropping.value}`)
  }
}

/** The crop step there is, a new one, or an end of dragging. */
function toggleCrop() {
  const now = state.value
  if (!now || cropping.value >= 0) {
    cropping.value = -1
    return
  }
  const there = now.recipe.steps.findIndex((step) => step.step === 'crop')
  if (there >= 0) {
    cropping.value = there
    return
  }
  const order = steps.value.map((step) => step.id)
  const added = withNewStep(now.recipe, 'crop', order)
  change({ recipe: added.recipe })
  cropping.value = added.index
}

onMounted(async () => {
  frame.value = Math.floor(frames.value / 2)
  await load()
  steps.value = await api.steps().catch((error: unknown) => {
    notices.fail(error)
    return []
  })
})

function setRecipe(recipe: Recipe) {
  change({ recipe })
}

function setSpan(inFrame: number | undefined, outFrame: number | undefined) {
  change({
    inFrame: inFrame === 0 ? undefined : inFrame,
    outFrame: outFrame === frames.value ? undefined : outFrame,
  })
}

function go(by: number) {
  const per = perFrame.value
  const at = clamp(frame.value * per + later.value + by, 0, frames.value * per - 1)
  frame.value = Math.floor(at / per)
  later.value = at % per
}

watch(perFrame, () => (later.value = 0))

async function openDispatch() {
  await save()
  dispatching.value = true
}

const scales: Record<string, number> = { '1': 1, '2': 2, '4': 4, '8': 8 }

function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  if (target.closest('input, textarea, [role="listbox"], [role="dialog"]')) {
    return
  }
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    event.preventDefault()
    return event.shiftKey ? redo() : undo()
  }
  if (event.ctrlKey || event.metaKey || event.altKey) {
    return
  }
  const now = state.value
  const scale = scales[event.key]
  if (scale !== undefined) {
    return glass.value?.setScale(scale)
  }
  const keys: Record<string, () => void> = {
    ',': () => go(-1),
    '.': () => go(1),
    '<': () => go(-10 * perFrame.value),
    '>': () => go(10 * perFrame.value),
    Home: () => go(-Infinity),
    End: () => go(Infinity),
    c: toggleCrop,
    Escape: () => (cropping.value = -1),
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
    f: () => glass.value?.flip(true),
    '0': () => glass.value?.fit(),
    '[': () => glass.value?.nudgeEdge(-0.02),
    ']': () => glass.value?.nudgeEdge(0.02),
  }
  const act = keys[event.key]
  if (act) {
    event.preventDefault()
    act()
  }
}

function onKeyUp(event: KeyboardEvent) {
  if (event.key === 'f') {
    glass.value?.flip(false)
  }
}

const stop = new AbortController()
window.addEventListener('keydown', onKey, { signal: stop.signal })
window.addEventListener('keyup', onKeyUp, { signal: stop.signal })
onScopeDispose(() => stop.abort())
</script>

<template>
  <div class="bench">
    <Ledger
      v-if="take && state"
      :clip="clip"
      :take="take"
      :recipe="state.recipe"
      :steps="steps"
      :plan="plan"
      :problems="problems"
      :saved="saved"
      :cropping="cropping"
      @crop="(index) => (cropping = index)"
      @change="setRecipe"
      @dispatch="openDispatch"
    />
    <div v-else class="blank"></div>
    <Glass
      v-if="take && state && plan"
      ref="glass"
      :clip="clip.id"
      :frame="frame"
      :later="later"
      :recipe="state.recipe"
      :turning="plan.base.steps"
      :source="source"
      :treated="treated"
      :placement="placement"
      :place="place"
      :take-name="take.name"
      :crop="crop"
      :crop-step="cropStep"
      @crop="setCrop"
      @failed="notices.fail"
    />
    <div v-else class="unplanned">
      <p v-if="problems.length > 0" class="fault" role="alert">
        This take cannot be shown: {{ problems[0]?.sentence }}. Change that setting on the left.
      </p>
    </div>
    <Run
      v-model:frame="frame"
      :clip="clip"
      :frames="frames"
      :seconds="facts.seconds"
      :in-frame="state?.inFrame"
      :out-frame="state?.outFrame"
      @span="setSpan"
    />
    <DispatchDialog
      v-if="take && state"
      v-model="dispatching"
      :take="take"
      :recipe="state.recipe"
      :clip-title="clip.title"
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
  grid-template: 'ledger glass' 1fr 'ledger run' auto / 296px 1fr;
  height: calc(100vh - 44px);
  min-height: 480px;
}

.bench > :deep(.ledger),
.blank {
  grid-area: ledger;
}
</style>
