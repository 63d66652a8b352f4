<script setup lang="ts">
import { computed, ref } from 'vue'
import { clamp, type Size } from '@/view/glass'
import { drawingScale, type Fit, framesAround, placed, roundFactor, type Standard } from '@/view/sizes'

/**
 * Sizes as frames drawn to scale around the picture's own: the usual ones are clicked, the corner of the chosen one is dragged. What is
 * cut off or stays black is seen at once.
 */
const props = defineProps<{
  /** What reaches the step. */
  picture: Size
  /** What it makes of it. */
  chosen: Size
  /** The usual frame that is chosen, if one is. */
  target: string | undefined
  fit: Fit
  offset: number
  least: number
  most: number
}>()
const emit = defineEmits<{ target: [id: string]; factor: [factor: number] }>()

const ROOM = { width: 234, height: 124 }
const MARGIN = 8

const dragged = ref<number>()
const size = computed<Size>(() =>
  dragged.value === undefined
    ? props.chosen
    : {
        width: Math.round(props.picture.width * dragged.value),
        height: Math.round(props.picture.height * dragged.value),
      },
)
// while it is dragged the frames stay where they are
const frames = computed(() => framesAround(props.picture, props.chosen))
const scale = computed(() => drawingScale([...frames.value, props.chosen, props.picture], ROOM))

const box = (one: Size) => ({
  x: 1,
  y: ROOM.height - one.height * scale.value + MARGIN,
  width: one.width * scale.value,
  height: one.height * scale.value,
})
const own = computed(() => box(props.picture))
const made = computed(() => box(size.value))
/** The picture in a frame of another shape. */
const inside = computed(() => {
  if (props.fit === 'shape' || dragged.value !== undefined) {
    return undefined
  }
  const place = placed(props.picture, props.chosen, props.fit, props.offset)
  return {
    x: made.value.x + place.x * scale.value,
    y: made.value.y + place.y * scale.value,
    width: place.width * scale.value,
    height: place.height * scale.value,
  }
})
/** Names of frames, where two would lie upon each other only the larger's. */
const named = computed(() => {
  const all = frames.value.map((frame) => ({ frame, box: box(frame) }))
  return all.map((one, i) => ({
    ...one,
    isNamed: all
      .slice(i + 1)
      .every((other) => Math.abs(other.box.y - one.box.y) > 13 || other.box.width - one.box.width > 40),
  }))
})
const words = (frame: Standard) => `${frame.width}×${frame.height}`
const factor = computed(() => size.value.height / props.picture.height)

function drag(event: PointerEvent) {
  if (event.button !== 0) {
    return
  }
  event.preventDefault()
  const handle = event.currentTarget as SVGElement
  const drawing = handle.ownerSVGElement!.getBoundingClientRect()
  handle.setPointerCapture(event.pointerId)
  const done = new AbortController()
  const follow = (move: PointerEvent) => {
    const x = (move.clientX - drawing.left - 1) / scale.value
    const y = (drawing.top + ROOM.height + MARGIN - move.clientY) / scale.value
    const next = Math.max(x / props.picture.width, y / props.picture.height)
    dragged.value = clamp(roundFactor(next, props.picture, frames.value), props.least, props.most)
  }
  handle.addEventListener('pointermove', follow, { signal: done.signal })
  handle.addEventListener(
    'pointerup',
    () => {
      done.abort()
      if (dragged.value !== undefined) {
        emit('factor', dragged.value)
      }
      dragged.value = undefined
    },
    { signal: done.signal },
  )
  handle.addEventListener(
    'pointercancel',
    () => {
      done.abort()
      dragged.value = undefined
    },
    { signal: done.signal },
  )
}

function onKey(event: KeyboardEvent) {
  const by = { ArrowRight: 0.25, ArrowUp: 0.25, ArrowLeft: -0.25, ArrowDown: -0.25 }[event.key]
  if (by !== undefined) {
    event.preventDefault()
    event.stopPropagation()
    const next = Math.round((factor.value + by) * 4) / 4
    emit('factor', clamp(next, Math.max(0.25, props.least), props.most))
  }
}
</script>

<template>
  <svg
    class="frames"
    :width="ROOM.width + 2"
    :height="ROOM.height + MARGIN + 2"
    role="group"
    aria-label="Size, drawn to scale"
    data-test="frames"
  >
    <g
      v-for="one in [...named].reverse()"
      :key="one.frame.id"
      class="frame"
      :class="{ on: target === one.frame.id }"
      role="button"
      tabindex="0"
      :aria-pressed="target === one.frame.id"
      :aria-label="`within ${words(one.frame)}`"
      :data-test="`frame-${one.frame.id}`"
      @click="emit('target', one.frame.id)"
      @keydown.enter.stop="emit('target', one.frame.id)"
      @keydown.space.prevent.stop="emit('target', one.frame.id)"
    >
      <title>as large as it goes within {{ words(one.frame) }}</title>
      <rect v-bind="one.box" />
      <text v-if="one.isNamed" :x="one.box.x + one.box.width - 4" :y="one.box.y + 11">
        {{ one.frame.label }}
      </text>
    </g>
    <rect class="own" v-bind="own" />
    <rect v-if="inside" class="inside" v-bind="inside" />
    <rect class="made" v-bind="made" />
    <rect
      class="corner"
      :x="made.x + made.width - 5"
      :y="made.y - 5"
      width="10"
      height="10"
      role="slider"
      tabindex="0"
      aria-label="Size by its corner"
      :aria-valuenow="factor"
      :aria-valuemin="least"
      :aria-valuemax="most"
      :aria-valuetext="`${size.width}×${size.height}`"
      data-test="corner"
      @pointerdown="drag"
      @keydown="onKey"
    />
    <text v-if="dragged !== undefined" class="told" :x="ROOM.width" y="10">
      {{ dragged }}× · {{ size.width }}×{{ size.height }}
    </text>
  </svg>
</template>

<style scoped>
.frames {
  display: block;
  overflow: visible;
  font: 10px var(--mono);
  touch-action: none;
}

.frame rect {
  fill: transparent;
  stroke: #4d4d4d;
}

.frame {
  cursor: pointer;
}

.frame:hover rect,
.frame:focus-visible rect {
  stroke: var(--ink);
}

.frame:focus-visible {
  outline: none;
}

.frame text {
  fill: var(--faint);
  text-anchor: end;
}

.frame:hover text,
.frame.on text {
  fill: var(--ink);
}

.own {
  fill: var(--source);
  opacity: 0.55;
  pointer-events: none;
}

.made {
  fill: none;
  stroke: var(--treated);
  stroke-width: 2;
  pointer-events: none;
}

.inside {
  fill: rgb(217 154 43 / 20%);
  stroke: var(--treated);
  stroke-dasharray: 3 3;
  pointer-events: none;
}

.corner {
  fill: var(--treated);
  cursor: nesw-resize;
}

.told {
  fill: var(--treated);
  text-anchor: end;
  font-size: 11px;
  paint-order: stroke;
  stroke: #1f1f1f;
  stroke-width: 4px;
}
</style>
