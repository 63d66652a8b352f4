<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import type { PinView } from '@/api/client'
import { SHAPES } from '@/view/crop'
import { fromCentre } from '@/view/gestures'
import { clamp, type Point, type Rect, type Size } from '@/view/glass'
import { isOtherTake, leftName, rightName } from '@/view/glassNames'
import { type Look, paint, type Piece, type Scene } from '@/view/paint'
import { isSameSize, referenceWish, type Sides, sourceWish, type Spot, treatedWish } from '@/view/sides'
import { useDrawLoop } from '@/view/useDrawLoop'
import { useGlassSaves } from '@/view/useGlassSaves'
import { useGlassStills } from '@/view/useGlassStills'
import { useGlassView } from '@/view/useGlassView'
import { useSurface } from '@/view/useSurface'
import type { Moving } from '@/view/useProofPlayer'
import { ratio } from '@/view/words'
import CropFrame from './CropFrame.vue'
import GlassBar from './GlassBar.vue'
import GlassMarks from './GlassMarks.vue'
import GlassTags from './GlassTags.vue'
import GlassWait from './GlassWait.vue'

const props = defineProps<{
  clip: string
  title: string
  frame: number
  /** Output frames after the first one made of that frame. */
  later: number
  sides: Sides
  takeName: string
  /** Another take, or the clean reference, that stands in the source's place. */
  against: { sides: Sides; name: string; reference: boolean } | undefined
  /** Names of both sides where one step is seen alone. */
  named?: { left: string; right: string } | undefined
  /** A proof's frame, while one is played. */
  moving: Moving | undefined
  /** Whether it was made with settings that are no longer those at hand. */
  earlier: boolean
  /** A small picture of the frame, while one is dragged along the time axis. */
  peek: Piece | undefined
  /** Where and when one is, told under the picture. */
  place: string
  /** Pins of this frame, drawn on the picture. */
  pins: PinView[]
  /** The rectangle to keep while it is being dragged; then only the source is seen. */
  crop: Rect | undefined
  cropStep: Size
  /** Paints what lies beyond black and white in colours of its own. */
  marked: boolean
  /** Whether what is to be shown is still being planned. */
  awaited: boolean
  /** How many times wider than high the source's pixels are meant to be seen. */
  pixelShape: number
}>()
const emit = defineEmits<{
  failed: [error: unknown]
  crop: [crop: Rect]
  /** A box drawn on the source picture. */
  pin: [box: Rect]
  /** The source pixel under the pointer, or none. */
  hover: [at: Point | undefined]
  /** What is seen of the source, once it rests. */
  seen: [part: Rect]
}>()

const MARGIN = 0.12
const REST_MS = 40
const MOST_AMPLIFY = 32
const MOST_GAIN = 8

const canvas = ref<HTMLCanvasElement>()
const {
  screen,
  glass,
  isFitted,
  edge,
  look,
  flipped,
  trueShape,
  drawn,
  source,
  frame,
  treatedScale,
  shown,
  sideScreen,
  verbs,
  fitOrAll,
  setScale,
  goTo,
  resize,
  pictureAt,
  seenPart,
} = useGlassView({
  clip: props.clip,
  sides: () => props.sides,
  crop: () => props.crop,
  pixelShape: () => props.pixelShape,
  boxed: (box) => emit('pin', box),
})
/** Times lighter than it is, for looking only. */
const gain = ref(1)
const amplify = ref(8)
const ownPixels = ref(false)
const pointer = shallowRef<Point>()

const sameSize = computed(() => isSameSize(props.sides))
const own = computed(
  () => (ownPixels.value && shown.value !== 'difference') || sameSize.value || props.crop !== undefined,
)
const shape = ref(0)
const { left, right, focus, pending, rough, due, late, long, fetchSoon } = useGlassStills({
  spot,
  left: leftWish,
  right: (at) => (props.crop ? undefined : treatedWish(at, props.sides)),
  whole: () => look.value === 'difference',
  asked: () => emit('seen', seenPart()),
  failed: (error) => emit('failed', error),
})
/** The small picture stands in until the exact one is there. */
const standIn = computed(() => (!props.moving && (due.value || left.pending) ? props.peek : undefined))

const standing = computed(() => ({
  moving: props.moving,
  takeName: props.takeName,
  against: props.against,
  named: props.named,
  own: own.value,
}))
const names = computed(() => ({
  left: standIn.value ? 'source, small while you look along' : leftName(standing.value),
  right: rightName(standing.value),
}))
/** Of what is seen treated: a proof may be of other settings. */
const rightSize = computed(() => props.moving?.size ?? props.sides.treated)

function scene(): Scene {
  return {
    glass: glass.value,
    screen: screen.value,
    picture: source.value,
    // while a rectangle is dragged it is what dims the rest
    frame: props.crop ? { x: 0, y: 0, ...source.value } : frame.value,
    source: props.moving?.source ?? standIn.value ?? left.piece,
    treated: props.moving?.treated ?? right.piece,
    focus: props.moving || shown.value === 'difference' ? undefined : focus.value,
    look: standIn.value ? 'source' : shown.value,
    edge: edge.value,
    amplify: amplify.value,
  }
}

const { invalidate } = useDrawLoop(() => {
  const ctx = canvas.value?.getContext('2d', { alpha: false })
  if (ctx) {
    paint(ctx, scene())
  }
})

function setLook(next: Look) {
  look.value = next
}

function leftWish(spot: Spot) {
  if (props.against && !props.crop) {
    return props.against.reference ? referenceWish(spot, props.sides) : treatedWish(spot, props.against.sides)
  }
  return sourceWish(spot, props.sides, own.value)
}

function spot(): Spot | undefined {
  if (screen.value.width < 2 || props.moving) {
    return undefined
  }
  return {
    clip: props.clip,
    frame: props.frame,
    later: props.later,
    glass: glass.value,
    screen: sideScreen.value,
    margin: MARGIN,
    marked: props.marked,
  }
}

watch([glass, screen], () => {
  invalidate()
  fetchSoon(REST_MS)
})
watch(
  () => [
    props.clip,
    props.frame,
    props.later,
    props.sides,
    props.against,
    own.value,
    props.marked,
    props.moving === undefined,
  ],
  () => fetchSoon(0),
)
watch(sideScreen, () => fetchSoon(0))
watch(
  [() => left.piece, () => right.piece, focus, () => props.moving, edge, shown, amplify, standIn],
  invalidate,
)
const { onKey } = useSurface(canvas, verbs, resize)

function onMove(event: PointerEvent) {
  if (canvas.value) {
    pointer.value = pictureAt(fromCentre(canvas.value, event))
    emit('hover', pointer.value)
  }
}

const { isCropping, saveView, saveCrops } = useGlassSaves({
  clip: props.clip,
  title: () => props.title,
  canvas: () => canvas.value,
  shown: () => shown.value,
  names: () => ({
    left: names.value.left,
    right: `${names.value.right}, ${rightSize.value.width}×${rightSize.value.height}`,
  }),
  place: () => props.place,
  scale: () => treatedScale.value,
  moment: () => ({ frame: props.frame, later: props.later, marked: props.marked }),
  sides: () => props.sides,
  against: () => props.against,
  crop: () => props.crop,
  pin: () => props.pins[0],
  seenPart,
  failed: (error) => emit('failed', error),
})

function brighter() {
  gain.value = gain.value >= MOST_GAIN ? 1 : gain.value * 2
}

function amplifyMore() {
  amplify.value = amplify.value >= MOST_AMPLIFY ? 1 : amplify.value * 2
}

defineExpose({
  fit: fitOrAll,
  brighter,
  setScale,
  setLook,
  amplifyMore,
  flip: (on: boolean) => (flipped.value = on),
  nudgeEdge: (by: number) => verbs.moveEdge(by * screen.value.width, 0),
  turnEdge: (by: number) => (edge.value = { ...edge.value, turn: clamp(edge.value.turn + by, -85, 85) }),
  saveView,
  /** The source pixel under the pointer, or in the middle of what is seen. */
  pointed: (): Point => pointer.value ?? { x: glass.value.x, y: glass.value.y },
  seenPart,
  goTo,
  look,
  treatedScale,
  canvas,
})
</script>

<template>
  <div class="glass">
    <canvas
      ref="canvas"
      :style="gain > 1 && shown !== 'difference' ? { filter: `brightness(${gain})` } : undefined"
      tabindex="0"
      role="img"
      :aria-label="`Source and treated picture, ${place}, ${ratio(treatedScale)} of the treated picture`"
      data-test="glass"
      :data-scale="glass.scale"
      :data-x="glass.x"
      :data-y="glass.y"
      :data-pending="pending || awaited || due"
      @keydown="onKey"
      @pointermove="onMove"
      @pointerleave="emit('hover', undefined)"
    ></canvas>
    <div
      v-if="shown === 'wipe'"
      class="grip"
      :style="{ left: `${100 * edge.at}%`, transform: `rotate(${edge.turn}deg)` }"
      aria-hidden="true"
    >
      <i class="to-source" :class="{ other: isOtherTake(standing) }"></i><i class="to-treated"></i>
    </div>
    <CropFrame
      v-if="crop"
      :glass="glass"
      :screen="screen"
      :picture="source"
      :crop="crop"
      :step="cropStep"
      :shape="shape"
      @change="(next) => emit('crop', next)"
    />
    <GlassMarks
      v-if="!crop && !flipped"
      :glass="glass"
      :screen="sideScreen"
      :pins="pins"
      :drawn="drawn"
      :half="shown === 'pair'"
    />
    <GlassTags
      :shown="shown"
      :left="names.left"
      :right="standIn ? undefined : names.right"
      :right-size="rightSize"
      :is-other-take="isOtherTake(standing)"
      :earlier="moving !== undefined && earlier"
      :is-error="against?.reference === true"
      :amplify="amplify"
    />
    <GlassWait v-if="late" :rough="rough" :long="long" :treated="sides.treated" :scale="treatedScale" />
    <GlassBar
      :place="place"
      :scale="treatedScale"
      :fitted="isFitted"
      :look="look"
      :flipped="flipped"
      :own-pixels="ownPixels"
      :same-size="sameSize"
      :amplify="amplify"
      :shapes="crop ? SHAPES : []"
      :shape="shape"
      :gain="gain"
      :oblong="pixelShape !== 1"
      :true-shape="trueShape"
      :cropping="isCropping"
      @look="setLook"
      @flip="(on) => (flipped = on)"
      @own="ownPixels = !ownPixels"
      @amplify="amplifyMore"
      @shape="(next) => (shape = next)"
      @gain="brighter"
      @true-shape="trueShape = !trueShape"
      @fit="fitOrAll"
      @scale="setScale"
      @save="saveView"
      @crops="saveCrops"
    />
  </div>
</template>

<style scoped>
.glass {
  position: relative;
  overflow: hidden;
  background: var(--ground);
  min-height: 0;
  min-width: 0;
}

canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  cursor: grab;
  touch-action: none;
  outline-offset: -2px;
}

canvas:active {
  cursor: grabbing;
}

.grip {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 17px;
  margin-left: -8px;
  cursor: ew-resize;
  pointer-events: none;
}

.grip i {
  position: absolute;
  top: 50%;
  border: 6px solid transparent;
}

.to-source {
  right: 11px;
  border-right-color: var(--source) !important;
}

.to-source.other {
  border-right-color: var(--treated) !important;
}

.to-treated {
  left: 12px;
  border-left-color: var(--treated) !important;
}
</style>
