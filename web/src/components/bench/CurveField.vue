<script setup lang="ts">
import { computed, ref } from 'vue'
import { pointsOf, smooth, textOf, type Point } from '@/view/points'

/**
 * A curve to be bent: light in goes across, light out goes up. A press on the line makes a point, points are dragged or moved by the
 * arrow keys, Delete takes one out.
 */
const props = defineProps<{ label: string; value: string | undefined; problem: string }>()
const emit = defineEmits<{ change: [value: string | undefined] }>()

const SIDE = 216
/** A point nearer than this to its neighbour would be one with it. */
const APART = 0.01
const PLAIN = '0:0,1:1'

const board = ref<SVGSVGElement>()
const dragged = ref<Point[]>()
const held = ref(-1)

const points = computed(() => dragged.value ?? pointsOf(props.value ?? PLAIN))
const line = computed(() =>
  Array.from({ length: 109 }, (_, i) => {
    const x = i / 108
    return `${i ? 'L' : 'M'}${x * SIDE} ${SIDE * (1 - smooth(points.value, x))}`
  }).join(''),
)

function place(event: PointerEvent): Point {
  const box = board.value!.getBoundingClientRect()
  return {
    x: Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)),
    y: Math.min(1, Math.max(0, 1 - (event.clientY - box.top) / box.height)),
  }
}

/** Point i at another place, between its neighbours. */
function moved(i: number, to: Point): Point[] {
  const low = i === 0 ? 0 : (points.value[i - 1] as Point).x + APART
  const high = i === points.value.length - 1 ? 1 : (points.value[i + 1] as Point).x - APART
  const x = Math.min(high, Math.max(low, to.x))
  return points.value.map((point, n) => (n === i ? { x, y: Math.min(1, Math.max(0, to.y)) } : point))
}

function press(event: PointerEvent) {
  const at = place(event)
  const near = points.value.findIndex((point) => Math.hypot(point.x - at.x, point.y - at.y) < 0.06)
  board.value!.setPointerCapture(event.pointerId)
  if (near >= 0) {
    held.value = near
    dragged.value = points.value
    return
  }
  const behind = points.value.findIndex((point) => point.x > at.x)
  held.value = behind < 0 ? points.value.length : behind
  const with_ = [...points.value]
  with_.splice(held.value, 0, at)
  dragged.value = with_
  dragged.value = moved(held.value, at)
}

function drag(event: PointerEvent) {
  if (held.value >= 0 && dragged.value) {
    dragged.value = moved(held.value, place(event))
  }
}

function drop() {
  if (dragged.value) {
    set(dragged.value)
  }
  held.value = -1
  dragged.value = undefined
}

function set(next: Point[]) {
  const text = textOf(next)
  if (text !== (props.value ?? PLAIN)) {
    emit('change', text === PLAIN ? undefined : text)
  }
}

function key(event: KeyboardEvent, i: number) {
  const step = event.shiftKey ? 0.05 : 0.01
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
  }
  const move = by[event.key]
  const point = points.value[i] as Point
  if (move) {
    event.preventDefault()
    event.stopPropagation()
    set(moved(i, { x: point.x + move[0], y: point.y + move[1] }))
  } else if ((event.key === 'Delete' || event.key === 'Backspace') && points.value.length > 2) {
    event.preventDefault()
    event.stopPropagation()
    set(points.value.filter((_, n) => n !== i))
  }
}
const said = (point: Point) => `${Math.round(point.x * 100)} % in, ${Math.round(point.y * 100)} % out`
</script>

<template>
  <div class="curve">
    <div class="head">
      <span class="label">{{ label }}</span>
      <v-btn v-if="value" class="link" variant="plain" @click="emit('change', undefined)">straight</v-btn>
    </div>
    <svg
      ref="board"
      :viewBox="`0 0 ${SIDE} ${SIDE}`"
      :aria-label="`${label}: press on it to make a point`"
      role="group"
      @pointerdown.prevent="press"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="drop"
    >
      <path
        v-for="n in 3"
        :key="n"
        class="grid"
        :d="`M${(n * SIDE) / 4} 0V${SIDE}M0 ${(n * SIDE) / 4}H${SIDE}`"
      />
      <path class="plain" :d="`M0 ${SIDE}L${SIDE} 0`" />
      <path class="line" :d="line" />
      <circle
        v-for="(point, i) in points"
        :key="i"
        :cx="point.x * SIDE"
        :cy="(1 - point.y) * SIDE"
        r="5"
        tabindex="0"
        role="slider"
        :aria-label="`Point ${i + 1}`"
        :aria-valuenow="Math.round(point.y * 100)"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuetext="said(point)"
        :class="{ held: held === i }"
        @keydown="(event) => key(event, i)"
      >
        <title>{{ said(point) }}; Delete takes it out</title>
      </circle>
    </svg>
    <p v-if="problem" class="fault">{{ problem }}</p>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  justify-content: space-between;
}

svg {
  display: block;
  width: 100%;
  margin-top: 4px;
  background: var(--ground);
  border: 1px solid var(--rule);
  touch-action: none;
  cursor: crosshair;
  overflow: visible;
}

.grid,
.plain {
  fill: none;
  stroke: var(--rule);
}

.plain {
  stroke-dasharray: 3 4;
}

.line {
  fill: none;
  stroke: var(--treated);
  stroke-width: 1.5;
}

circle {
  fill: var(--ground);
  stroke: var(--treated);
  stroke-width: 2;
  cursor: grab;
}

circle.held,
circle:focus-visible {
  fill: var(--treated);
}
</style>
