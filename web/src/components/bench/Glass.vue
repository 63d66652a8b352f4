<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { PinView } from '@/api/client'
import { dragMoves, fromCentre, type ViewVerbs, wheelZooms } from '@/view/gestures'
import {
  around,
  clamp,
  fitted,
  type Glass,
  held,
  inSource,
  panBy,
  type Point,
  type Rect,
  type Size,
  toPicture,
  toScreen,
  zoomAt,
} from '@/view/glass'
import { cropsSpot, drawCrops } from '@/view/cropsPicture'
import { keepView, keptView } from '@/view/keptView'
import { type Edge, fromEdge, halfScreen, type Look, paint, type Piece, type Scene } from '@/view/paint'
import { isSameSize, referenceWish, type Sides, sourceWish, type Spot, treatedWish } from '@/view/sides'
import { captioned, saveAs } from '@/view/sheetPicture'
import { useDrawLoop } from '@/view/useDrawLoop'
import type { Moving } from '@/view/useProofPlayer'
import { useGlassStills } from '@/view/useGlassStills'
import { ratio } from '@/view/words'
import CropFrame from './CropFrame.vue'
import GlassBar from './GlassBar.vue'

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
const KEEP_MS = 200
const EDGE_REACH = 8
/** Share of the screen's height at either end of the edge that turns it. */
const TURNING = 0.14
const MOST_AMPLIFY = 32
const MOST_GAIN = 8

const canvas = ref<HTMLCanvasElement>()
const screen = shallowRef<Size>({ width: 1, height: 1 })
const glass = shallowRef<Glass>({ x: 0, y: 0, scale: 1 })
const kept = keptView(props.clip)
/** To the treated frame, to both pictures, or as somebody set it. */
const fitting = ref<'frame' | 'all' | 'none'>(kept.glass && kept.fitted === false ? 'none' : 'frame')
const isFitted = computed(() => fitting.value !== 'none')
const edge = shallowRef<Edge>(kept.edge ?? { at: 0.5, turn: 0 })
const look = ref<Look>(kept.look ?? 'wipe')
/** Times lighter than it is, for looking only. */
const gain = ref(1)
/** Pixels in the shape they are meant to be seen in; else each as a square. */
const trueShape = ref(true)
const aspect = computed(() => (trueShape.value ? props.pixelShape : 1))
const amplify = ref(8)
const flipped = ref(false)
const ownPixels = ref(false)
const drawn = shallowRef<Rect>()
const pointer = shallowRef<Point>()
const quit = new AbortController()

const source = computed(() => props.sides.source)
/** The treated picture's pixels to one of the screen's. */
const treatedScale = computed(() => (glass.value.scale * source.value.height) / props.sides.placement.height)
/** The treated frame, and both pictures together, in the source's pixels. */
const frame = computed(() => inSource(source.value, props.sides.treated, props.sides.placement))
const all = computed(() => around(source.value, frame.value))
const sameSize = computed(() => isSameSize(props.sides))
const shown = computed<Look>(() => (flipped.value || props.crop ? 'source' : look.value))
const own = computed(
  () => (ownPixels.value && shown.value !== 'difference') || sameSize.value || props.crop !== undefined,
)
/** The screen that one side has for itself. */
const sideScreen = computed(() => (shown.value === 'pair' ? halfScreen(screen.value) : screen.value))
const shapes = [
  { label: 'any shape', ratio: 0 },
  { label: '4:3', ratio: 4 / 3 },
  { label: '16:9', ratio: 16 / 9 },
  { label: '1:1', ratio: 1 },
]
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

/** Why it takes long, and what to do. */
const waits = computed(() => {
  if (rough.value) {
    return 'the line is slow: a first look with loss, exact pixels follow'
  }
  if (!long.value) {
    return ''
  }
  const { width, height } = props.sides.treated
  return treatedScale.value < 0.5
    ? `still at it: ${width}×${height} is much; zoom in (1) to see a part sooner`
    : 'still at it: the machine is busy, or the line is slow'
})
const rightName = computed(() => props.moving?.takeName ?? props.takeName)
/** Of what is seen treated: a proof may be of other settings. */
const rightSize = computed(() => props.moving?.size ?? props.sides.treated)
/** Another take stands in the source's place. */
const isOtherTake = computed(() =>
  props.moving ? props.moving.against !== undefined : props.against !== undefined && !props.against.reference,
)
const leftName = computed(() => {
  if (standIn.value) {
    return 'source, small while you look along'
  }
  if (props.moving) {
    return props.moving.against === undefined ? 'source, enlarged plainly' : `take ${props.moving.against}`
  }
  if (props.named) {
    return props.named.left
  }
  if (props.against) {
    return props.against.reference ? 'reference' : `take ${props.against.name}`
  }
  return own.value ? 'source, own pixels' : 'source, enlarged plainly'
})
const isError = computed(() => props.against?.reference === true)
/** Pins and the box being drawn, on the screen. */
const marks = computed(() => {
  const boxes = props.pins.map((pin) => ({ key: pin.id, name: pin.name, rect: pin as Rect }))
  if (drawn.value) {
    boxes.push({ key: 'drawn', name: '', rect: drawn.value })
  }
  return boxes.map((box) => {
    const at = toScreen(glass.value, sideScreen.value, box.rect)
    const css = (v: number) => `${v / devicePixelRatio}px`
    return {
      ...box,
      style: { left: css(at.x), top: css(at.y), width: css(at.width), height: css(at.height) },
    }
  })
})

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

function lookAt(next: Glass, fit: 'frame' | 'all' | 'none' = 'none') {
  glass.value = held({ ...next, aspect: aspect.value }, all.value)
  fitting.value = fit
}

/** What of both pictures is worth the whole screen: the box that is kept, or the treated frame where it leaves much out. */
function kernel(): Rect {
  const crop = props.crop
  if (crop && crop.width >= source.value.width - 1 && crop.height >= source.value.height - 1) {
    return all.value
  }
  return crop ?? frame.value
}

function fit() {
  lookAt(
    fitted(fitting.value === 'all' ? all.value : kernel(), sideScreen.value, aspect.value),
    fitting.value === 'all' ? 'all' : 'frame',
  )
}

/** To the treated frame; there already, to all there is. */
function fitOrAll() {
  fitting.value = fitting.value === 'frame' ? 'all' : 'frame'
  fit()
}

/** Sets the scale in treated pixels, the middle of the screen staying where it is. */
function setScale(scale: number) {
  const next = (scale * props.sides.placement.height) / source.value.height
  lookAt(zoomAt(glass.value, next, { x: 0, y: 0 }))
}

function setLook(next: Look) {
  look.value = next
}

/** From the middle of the screen to the middle of the side that lies there. */
function onSide(at: Point): Point {
  if (shown.value !== 'pair') {
    return at
  }
  const quarter = screen.value.width / 4
  return { x: at.x < 0 ? at.x + quarter : at.x - quarter, y: at.y }
}

function pictureAt(at: Point): Point {
  const { width, height } = sideScreen.value
  const mine = onSide(at)
  return toPicture(glass.value, sideScreen.value, { x: mine.x + width / 2, y: mine.y + height / 2 })
}

const verbs: ViewVerbs = {
  zoom(factor, at) {
    const scale = held({ ...glass.value, scale: glass.value.scale * factor }, all.value).scale
    lookAt(zoomAt(glass.value, scale, onSide(at)))
  },
  pan(dx, dy) {
    lookAt(panBy(glass.value, dx, dy))
  },
  moveEdge(dx, dy) {
    const turn = (edge.value.turn * Math.PI) / 180
    // only what goes across the edge moves it
    const across = (dx * Math.cos(turn) + dy * Math.sin(turn)) / Math.max(0.2, Math.cos(turn))
    edge.value = { ...edge.value, at: clamp(edge.value.at + across / screen.value.width, 0, 1) }
  },
  turnEdge(at) {
    const middle = (edge.value.at - 0.5) * screen.value.width
    const away = at.y < 0 ? { x: at.x - middle, y: at.y } : { x: middle - at.x, y: -at.y }
    const turn = (Math.atan2(away.x, -away.y) * 180) / Math.PI
    // upright holds a little, so that it can be found again
    edge.value = { ...edge.value, turn: Math.abs(turn) < 2 ? 0 : clamp(Math.round(turn), -85, 85) }
  },
  nearEdge(at) {
    const { width, height } = screen.value
    const far = fromEdge(screen.value, edge.value, { x: at.x + width / 2, y: at.y + height / 2 })
    if (shown.value !== 'wipe' || Math.abs(far) > EDGE_REACH * devicePixelRatio) {
      return undefined
    }
    return Math.abs(at.y) > (0.5 - TURNING) * height ? 'end' : 'line'
  },
  box(from, to, done) {
    const a = pictureAt(from)
    const b = pictureAt(to)
    const rect = {
      x: Math.min(a.x, b.x),
      y: Math.min(a.y, b.y),
      width: Math.abs(a.x - b.x),
      height: Math.abs(a.y - b.y),
    }
    drawn.value = done ? undefined : rect
    if (done && rect.width >= 4 && rect.height >= 4) {
      emit('pin', rect)
    }
  },
}

function seenPart(): Rect {
  const { width, height } = sideScreen.value
  const a = toPicture(glass.value, sideScreen.value, { x: 0, y: 0 })
  const b = toPicture(glass.value, sideScreen.value, { x: width, y: height })
  const x = clamp(a.x, 0, source.value.width)
  const y = clamp(a.y, 0, source.value.height)
  return {
    x,
    y,
    width: clamp(b.x, x, source.value.width) - x,
    height: clamp(b.y, y, source.value.height) - y,
  }
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
watch(sideScreen, () => (isFitted.value ? fit() : fetchSoon(0)))
watch(
  [() => left.piece, () => right.piece, focus, () => props.moving, edge, shown, amplify, standIn],
  invalidate,
)
watch(aspect, () => (isFitted.value ? fit() : lookAt(glass.value)))
let keeping: ReturnType<typeof setTimeout> | undefined
watch([glass, fitting, look, edge], () => {
  clearTimeout(keeping)
  keeping = setTimeout(keep, KEEP_MS)
})
function keep() {
  clearTimeout(keeping)
  keepView(props.clip, { glass: glass.value, fitted: isFitted.value, look: look.value, edge: edge.value })
}
watch(
  // by value: another recipe for a picture of the same size leaves the view where it is
  () => `${source.value.width}x${source.value.height}`,
  () => fit(),
)
watch(all, () => {
  // a box that is being drawn must not run away
  if (isFitted.value && !props.crop) {
    fit()
  }
})
watch(
  () => props.crop !== undefined,
  () => isFitted.value && fit(),
)

const sizes = new ResizeObserver(([entry]) => {
  const box = entry?.contentRect
  if (!box || !canvas.value || box.width < 1) {
    return
  }
  const width = Math.round(box.width * devicePixelRatio)
  const height = Math.round(box.height * devicePixelRatio)
  canvas.value.width = width
  canvas.value.height = height
  const isFirst = screen.value.width < 2
  screen.value = { width, height }
  if (isFirst && kept.glass && !isFitted.value) {
    lookAt(kept.glass)
  } else if (isFitted.value) {
    fit()
  }
})

function onMove(event: PointerEvent) {
  if (canvas.value) {
    pointer.value = pictureAt(fromCentre(canvas.value, event))
    emit('hover', pointer.value)
  }
}

onMounted(() => {
  const surface = canvas.value
  if (surface) {
    sizes.observe(surface)
    wheelZooms(surface, verbs, quit.signal)
    dragMoves(surface, verbs, quit.signal)
  }
})
onBeforeUnmount(() => {
  keep()
  quit.abort()
  sizes.disconnect()
})

function onKey(event: KeyboardEvent) {
  const step = 48 * devicePixelRatio
  const moves: Record<string, () => void> = {
    ArrowLeft: () => verbs.pan(step, 0),
    ArrowRight: () => verbs.pan(-step, 0),
    ArrowUp: () => verbs.pan(0, step),
    ArrowDown: () => verbs.pan(0, -step),
  }
  const move = moves[event.key]
  if (move) {
    event.preventDefault()
    move()
  }
}

function names() {
  return {
    left: leftName.value,
    right: `${props.named?.right ?? `take ${rightName.value}`}, ${props.sides.treated.width}×${props.sides.treated.height}`,
  }
}

/** The view as it is seen, with what stands on which side above it. */
function saveView() {
  if (canvas.value) {
    const both = names()
    const seen = {
      left: shown.value === 'treated' ? '' : both.left,
      right: shown.value === 'source' ? '' : both.right,
      middle: `${props.place} · ${ratio(treatedScale.value)}`,
    }
    void saveAs(captioned(canvas.value, seen), `${props.title} ${shown.value}.png`)
  }
}

const isCropping = ref(false)
async function saveCrops() {
  const { source: size, placement } = props.sides
  const box = inSource(size, props.sides.treated, placement)
  const shownPart = {
    x: Math.max(0, box.x),
    y: Math.max(0, box.y),
    width: Math.min(size.width, box.x + box.width) - Math.max(0, box.x),
    height: Math.min(size.height, box.y + box.height) - Math.max(0, box.y),
  }
  isCropping.value = true
  try {
    const spot = { clip: props.clip, frame: props.frame, later: props.later, marked: props.marked }
    const picture = await drawCrops(
      {
        spot,
        at: cropsSpot(props.crop, props.pins[0], seenPart(), shownPart),
        sides: props.sides,
        against: props.against,
        frame: frame.value,
        captions: { ...names(), middle: props.place },
      },
      quit.signal,
    )
    await saveAs(picture, `${props.title} crops.png`)
  } catch (error) {
    emit('failed', error)
  } finally {
    isCropping.value = false
  }
}

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
  /** The source pixel under the pointer, or in the middle of what is seen. */
  saveView,
  pointed: (): Point => pointer.value ?? { x: glass.value.x, y: glass.value.y },
  seenPart,
  /** Goes to a place of the source; a rectangle is made as large as it goes. */
  goTo: (rect: Rect) =>
    lookAt({
      x: rect.x + rect.width / 2,
      y: rect.y + rect.height / 2,
      scale: Math.max(glass.value.scale, (4 * props.sides.placement.height) / source.value.height),
    }),
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
      <i class="to-source" :class="{ other: isOtherTake }"></i><i class="to-treated"></i>
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
    <div v-if="!crop && !flipped" class="marks" :class="{ half: shown === 'pair' }" aria-hidden="true">
      <div v-for="mark in marks" :key="mark.key" class="pin" :style="mark.style">
        <span>{{ mark.name }}</span>
      </div>
    </div>
    <span
      v-if="shown !== 'treated' || standIn"
      class="tag at-left"
      data-test="left-name"
      :class="isOtherTake ? 'treated' : 'source'"
    >
      {{ leftName }}
    </span>
    <span v-if="shown !== 'source' && !standIn" class="tag treated at-right">
      {{ named?.right ?? `take ${rightName}` }}
      <span class="quiet">{{ rightSize.width }}×{{ rightSize.height }}</span>
      <span v-if="moving && earlier" class="quiet">with earlier settings</span>
    </span>
    <span v-if="shown === 'difference' && !standIn" class="tag middle">
      {{ isError ? 'error' : 'difference' }} ×{{ amplify }}: white is {{ Math.round(255 / amplify) }} of 255
    </span>
    <div v-if="late" class="late" role="status">
      <v-progress-linear indeterminate color="primary" height="2" aria-label="treating" />
      <span v-if="waits" class="tag waits">{{ waits }}</span>
    </div>
    <GlassBar
      :place="place"
      :scale="treatedScale"
      :fitted="isFitted"
      :look="look"
      :flipped="flipped"
      :own-pixels="ownPixels"
      :same-size="sameSize"
      :amplify="amplify"
      :shapes="crop ? shapes : []"
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

.marks {
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
}

.marks.half {
  right: 50%;
}

.pin {
  position: absolute;
  border: 1px solid rgb(232 230 225 / 75%);
  box-shadow: 0 0 0 1px rgb(0 0 0 / 45%);
  pointer-events: none;
}

.pin span {
  position: absolute;
  left: 0;
  bottom: 100%;
  white-space: nowrap;
  font: 11px var(--label);
  text-shadow: 0 0 3px #000;
}

.tag {
  position: absolute;
  top: 12px;
  padding: 2px 8px;
  background: rgb(16 16 16 / 82%);
  border-radius: 2px;
  font: 500 12px var(--label);
  pointer-events: none;
}

.at-left {
  left: 12px;
}

.at-right {
  right: 12px;
}

.middle {
  left: 50%;
  transform: translateX(-50%);
}

.late {
  position: absolute;
  inset: 0 0 auto;
}

.waits {
  top: 44px;
  left: 50%;
  transform: translateX(-50%);
  white-space: nowrap;
}
</style>
