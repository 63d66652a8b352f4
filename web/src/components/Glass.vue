<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import type { Recipe } from '@/api/client'
import { dragMoves, wheelZooms } from '@/view/gestures'
import {
  around,
  clamp,
  fitted,
  type Glass,
  held,
  inSource,
  panBy,
  type Rect,
  type Size,
  wanted,
  zoomAt,
} from '@/view/glass'
import { type Look, paint } from '@/view/paint'
import { sourceRecipe } from '@/view/recipe'
import { useDrawLoop } from '@/view/useDrawLoop'
import { useStill } from '@/view/useStill'
import { ratio } from '@/view/words'
import CropFrame from './CropFrame.vue'

const props = defineProps<{
  clip: string
  frame: number
  /** Output frames after the first one made of that frame. */
  later: number
  recipe: Recipe
  /** How many of the recipe's first steps turn the picture; what they make is shown as the source. */
  turning: number
  /** Size of the source's picture and of the treated one. */
  source: Size
  treated: Size
  /** Where the clip's own picture lies in the treated one. */
  placement: Rect
  /** Where and when one is, told under the picture. */
  place: string
  takeName: string
  /** The rectangle to keep while it is being dragged; then only the source is seen. */
  crop: Rect | undefined
  cropStep: Size
}>()
const emit = defineEmits<{ failed: [error: unknown]; idle: []; crop: [crop: Rect] }>()

const MARGIN = 0.12
const REST_MS = 40
const TELL_AFTER_MS = 180
const EDGE_REACH = 8

const canvas = ref<HTMLCanvasElement>()
const screen = shallowRef<Size>({ width: 1, height: 1 })
const glass = shallowRef<Glass>({ x: 0, y: 0, scale: 1 })
const isFitted = ref(true)
const edge = ref(0.5)
const look = ref<Look>('wipe')
const flipped = ref(false)
const ownPixels = ref(false)
const late = ref(false)
const quit = new AbortController()

const left = reactive(useStill('source', (error) => emit('failed', error)))
const right = reactive(useStill('treated', (error) => emit('failed', error)))

/** The treated picture's pixels to one of the screen's. */
const treatedScale = computed(() => (glass.value.scale * props.source.width) / props.placement.width)
/** The treated frame, and both pictures together, in the source's pixels. */
const frame = computed(() => inSource(props.source, props.treated, props.placement))
const all = computed(() => around(props.source, frame.value))
const sameSize = computed(
  () => props.source.width === props.placement.width && props.source.height === props.placement.height,
)
const shown = computed<Look>(() => (flipped.value || props.crop ? 'source' : look.value))
const shapes = [
  { label: 'any shape', ratio: 0 },
  { label: '4:3', ratio: 4 / 3 },
  { label: '16:9', ratio: 16 / 9 },
  { label: '1:1', ratio: 1 },
]
const shape = ref(0)
const pending = computed(() => left.pending || right.pending)

const { invalidate } = useDrawLoop(() => {
  const ctx = canvas.value?.getContext('2d', { alpha: false })
  if (ctx) {
    paint(ctx, {
      glass: glass.value,
      screen: screen.value,
      picture: props.source,
      // while a rectangle is dragged it is what dims the rest
      frame: props.crop ? { x: 0, y: 0, ...props.source } : frame.value,
      source: left.piece,
      treated: right.piece,
      look: shown.value,
      edge: edge.value,
    })
  }
})

function lookAt(next: Glass, fit = false) {
  glass.value = held(next, all.value)
  isFitted.value = fit
}

function fit() {
  lookAt(fitted(all.value, screen.value), true)
}

/** Sets the scale in treated pixels, the middle of the screen staying where it is. */
function setScale(scale: number) {
  const next = (scale * props.placement.width) / props.source.width
  lookAt(zoomAt(glass.value, next, { x: 0, y: 0 }))
}

const verbs = {
  zoom(factor: number, at: { x: number; y: number }) {
    const scale = held({ ...glass.value, scale: glass.value.scale * factor }, all.value).scale
    lookAt(zoomAt(glass.value, scale, at))
  },
  pan(dx: number, dy: number) {
    lookAt(panBy(glass.value, dx, dy))
  },
  moveEdge(share: number) {
    edge.value = clamp(share, 0, 1)
  },
  nearEdge(x: number) {
    const at = (edge.value * screen.value.width) / devicePixelRatio
    return shown.value === 'wipe' && Math.abs(x - at) <= EDGE_REACH
  },
}

let resting: ReturnType<typeof setTimeout> | undefined
let telling: ReturnType<typeof setTimeout> | undefined

function fetchSoon(delay: number) {
  clearTimeout(resting)
  resting = setTimeout(fetchNow, delay)
}

function fetchNow() {
  if (screen.value.width < 2) {
    return
  }
  const whole = (size: Size, place: Rect) => ({
    need: wanted(glass.value, screen.value, props.source, size, place, 0),
    fetch: wanted(glass.value, screen.value, props.source, size, place, MARGIN),
    source: props.source,
    size,
    place,
    clip: props.clip,
    frame: props.frame,
    later: props.later,
  })
  if (!props.crop) {
    right.wish({ ...whole(props.treated, props.placement), recipe: props.recipe })
  }
  const own = ownPixels.value || sameSize.value || props.crop !== undefined
  // as large as in the treated picture, without what its frame adds or cuts off
  const width = Math.round(props.placement.width)
  const height = Math.round(props.placement.height)
  const size = own ? props.source : { width, height }
  left.wish({
    ...whole(size, { x: 0, y: 0, ...size }),
    recipe: own
      ? props.turning > 0
        ? sourceRecipe(props.recipe, props.turning)
        : undefined
      : sourceRecipe(props.recipe, props.turning, { width, height }),
  })
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
    props.recipe,
    props.treated,
    props.placement,
    ownPixels.value,
    props.crop === undefined,
  ],
  () => fetchSoon(0),
)
watch([() => left.piece, () => right.piece, edge, shown], invalidate)
watch(pending, (is) => {
  clearTimeout(telling)
  if (is) {
    telling = setTimeout(() => (late.value = true), TELL_AFTER_MS)
  } else {
    late.value = false
    emit('idle')
  }
})
watch(
  () => [props.source.width, props.source.height],
  () => fit(),
)
watch(all, () => {
  if (isFitted.value) {
    fit()
  }
})

const sizes = new ResizeObserver(([entry]) => {
  const box = entry?.contentRect
  if (!box || !canvas.value || box.width < 1) {
    return
  }
  const width = Math.round(box.width * devicePixelRatio)
  const height = Math.round(box.height * devicePixelRatio)
  canvas.value.width = width
  canvas.value.height = height
  screen.value = { width, height }
  if (isFitted.value) {
    fit()
  }
})

onMounted(() => {
  const surface = canvas.value
  if (surface) {
    sizes.observe(surface)
    wheelZooms(surface, verbs, quit.signal)
    dragMoves(surface, verbs, quit.signal)
  }
})
onBeforeUnmount(() => {
  quit.abort()
  sizes.disconnect()
  clearTimeout(resting)
  clearTimeout(telling)
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

const stops = [
  { key: '1', scale: 1 },
  { key: '2', scale: 2 },
  { key: '4', scale: 4 },
  { key: '8', scale: 8 },
]

defineExpose({
  fit,
  setScale,
  flip: (on: boolean) => (flipped.value = on),
  nudgeEdge: (by: number) => verbs.moveEdge(edge.value + by),
})
</script>

<template>
  <div class="glass">
    <canvas
      ref="canvas"
      tabindex="0"
      role="img"
      :aria-label="`Source and treated picture, ${place}, ${ratio(treatedScale)} of the treated picture`"
      data-test="glass"
      :data-scale="glass.scale"
      :data-x="glass.x"
      :data-y="glass.y"
      :data-pending="pending"
      @keydown="onKey"
    ></canvas>
    <div v-if="shown === 'wipe'" class="grip" :style="{ left: `${100 * edge}%` }" aria-hidden="true">
      <i class="to-source"></i><i class="to-treated"></i>
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
    <span v-if="shown !== 'treated'" class="tag source at-left">
      {{ ownPixels || sameSize || crop ? 'source, own pixels' : 'source, enlarged plainly' }}
    </span>
    <span v-if="shown !== 'source'" class="tag treated at-right">
      take {{ takeName }} <span class="quiet">{{ treated.width }}×{{ treated.height }}</span>
    </span>
    <div v-if="late" class="late" role="status">
      <v-progress-linear indeterminate color="primary" height="2" aria-label="treating" />
    </div>
    <div class="bar">
      <span class="chip figure">{{ place }}</span>
      <div v-if="crop" class="chip looks" role="group" aria-label="Shape kept">
        <button
          v-for="one in shapes"
          :key="one.label"
          type="button"
          :aria-pressed="shape === one.ratio"
          @click="shape = one.ratio"
        >
          {{ one.label }}
        </button>
      </div>
      <div v-else class="chip looks" role="group" aria-label="Ways to look">
        <button type="button" :aria-pressed="look === 'wipe'" @click="look = 'wipe'">wipe</button>
        <button type="button" :aria-pressed="look === 'source'" @click="look = 'source'">source</button>
        <button type="button" :aria-pressed="look === 'treated'" @click="look = 'treated'">treated</button>
        <button
          type="button"
          :aria-pressed="flipped"
          @pointerdown="flipped = true"
          @pointerup="flipped = false"
          @pointerleave="flipped = false"
        >
          flip <kbd>F</kbd>
        </button>
        <button
          type="button"
          :aria-pressed="ownPixels"
          :disabled="sameSize"
          title="Show the source's own pixels instead of enlarging them plainly"
          @click="ownPixels = !ownPixels"
        >
          own pixels
        </button>
      </div>
      <div class="chip figure scales" role="group" aria-label="Scale">
        <span class="now" data-test="scale">{{ ratio(treatedScale) }}</span>
        <button type="button" :aria-pressed="isFitted" @click="fit">fit</button>
        <button
          v-for="stop in stops"
          :key="stop.key"
          type="button"
          :aria-pressed="!isFitted && Math.abs(treatedScale / stop.scale - 1) < 0.002"
          @click="setScale(stop.scale)"
        >
          {{ stop.key }}:1
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.glass {
  position: relative;
  overflow: hidden;
  background: var(--ground);
  min-height: 0;
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

.to-treated {
  left: 12px;
  border-left-color: var(--treated) !important;
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

.late {
  position: absolute;
  inset: 0 0 auto;
}

.bar {
  position: absolute;
  inset: auto 12px 12px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  justify-content: space-between;
  align-items: end;
  pointer-events: none;
}

.chip {
  background: rgb(16 16 16 / 86%);
  border-radius: 3px;
  padding: 5px 9px;
  pointer-events: auto;
}

.looks,
.scales {
  display: flex;
  gap: 2px;
  padding: 3px;
  align-items: center;
}

.chip button {
  border: 0;
  background: none;
  padding: 3px 7px;
  border-radius: 2px;
  color: var(--quiet);
  font: 13px var(--sans);
  cursor: pointer;
}

.scales button {
  font: 12px var(--mono);
  padding: 3px 5px;
}

.scales .now {
  color: var(--treated);
  padding: 0 8px 0 6px;
  min-width: 64px;
  text-align: right;
}

.chip button[aria-pressed='true'] {
  background: #3a3a3a;
  color: var(--ink);
}

.chip button:disabled {
  color: var(--faint);
  cursor: default;
}
</style>
