<script setup lang="ts">
import { computed } from 'vue'
import { type Glass, type Point, type Rect, type Size, toPicture, toScreen } from '@/view/glass'
import { cropDrawn, cropMoved, cropSized, type Grip, snapped } from '@/view/crop'

/**
 * The rectangle that will be kept: drawn anew by a drag that begins outside of it or while it is the whole picture; its middle moves it, its
 * edges and corners size it.
 */
const props = defineProps<{
  glass: Glass
  /** Of the canvas in device pixels. */
  screen: Size
  picture: Size
  crop: Rect
  /** Samples that must be cut together, across and down. */
  step: Size
  /** Width to height that is kept while sizing; 0 for any. */
  shape: number
}>()
const emit = defineEmits<{ change: [crop: Rect] }>()

const place = computed(() => toScreen(props.glass, props.screen, props.crop))
const css = (pixels: number) => `${pixels / devicePixelRatio}px`
const box = computed(() => ({
  left: css(place.value.x),
  top: css(place.value.y),
  width: css(place.value.width),
  height: css(place.value.height),
}))
/** Nothing is left outside of it where a new one could begin. */
const isWhole = computed(
  () => props.crop.width >= props.picture.width - 1 && props.crop.height >= props.picture.height - 1,
)
/** The label below what stands at the glass's upper edge. */
const labelTop = computed(() => `${Math.max(6, 44 - place.value.y / devicePixelRatio)}px`)
const grips: Grip[] = ['nw', 'n', 'ne', 'e', 'se', 's', 'sw', 'w']

function under(event: PointerEvent, surface: HTMLElement): Point {
  const frame = surface.parentElement!.getBoundingClientRect()
  return toPicture(props.glass, props.screen, {
    x: (event.clientX - frame.left) * devicePixelRatio,
    y: (event.clientY - frame.top) * devicePixelRatio,
  })
}

/** A new rectangle, from where the drag began. */
function draw(event: PointerEvent) {
  if (event.button !== 0) {
    return
  }
  event.preventDefault()
  event.stopPropagation()
  const field = (event.currentTarget as HTMLElement).parentElement!.querySelector<HTMLElement>('.field')!
  field.setPointerCapture(event.pointerId)
  const from = under(event, field)
  const done = new AbortController()
  field.addEventListener(
    'pointermove',
    (move) => {
      const next = cropDrawn(from, under(move, field), props.picture, props.shape)
      if (next) {
        emit('change', snapped(next, props.picture, props.step))
      }
    },
    { signal: done.signal },
  )
  for (const name of ['pointerup', 'pointercancel'] as const) {
    field.addEventListener(name, () => done.abort(), { signal: done.signal })
  }
}

function drag(event: PointerEvent, grip: Grip | 'move') {
  if (grip === 'move' && isWhole.value) {
    draw(event)
    return
  }
  if (event.button !== 0) {
    return
  }
  event.preventDefault()
  event.stopPropagation()
  const handle = event.currentTarget as HTMLElement
  const surface = handle.closest<HTMLElement>('.crop')!
  handle.setPointerCapture(event.pointerId)
  const begun = props.crop
  const from = under(event, surface)
  const done = new AbortController()
  handle.addEventListener(
    'pointermove',
    (move) => {
      const to = under(move, surface)
      const by = { x: to.x - from.x, y: to.y - from.y }
      const next =
        grip === 'move'
          ? cropMoved(begun, by, props.picture)
          : cropSized(begun, grip, by, props.picture, props.shape)
      emit('change', snapped(next, props.picture, props.step))
    },
    { signal: done.signal },
  )
  for (const name of ['pointerup', 'pointercancel'] as const) {
    handle.addEventListener(name, () => done.abort(), { signal: done.signal })
  }
}

function onKey(event: KeyboardEvent) {
  const moves: Record<string, Point> = {
    ArrowLeft: { x: -1, y: 0 },
    ArrowRight: { x: 1, y: 0 },
    ArrowUp: { x: 0, y: -1 },
    ArrowDown: { x: 0, y: 1 },
  }
  const way = moves[event.key]
  if (!way) {
    return
  }
  event.preventDefault()
  event.stopPropagation()
  const by = { x: way.x * props.step.width, y: way.y * props.step.height }
  const next = event.shiftKey
    ? cropSized(props.crop, 'se', by, props.picture, props.shape)
    : cropMoved(props.crop, by, props.picture)
  emit('change', snapped(next, props.picture, props.step))
}
</script>

<template>
  <div class="field" data-test="crop-field" @pointerdown="draw"></div>
  <div
    class="crop"
    :class="{ whole: isWhole }"
    :style="box"
    tabindex="0"
    role="group"
    :aria-label="`Crop ${crop.width} by ${crop.height} at ${crop.x}, ${crop.y}; arrows move it, with Shift they size it`"
    data-test="crop"
    @pointerdown="drag($event, 'move')"
    @keydown="onKey"
  >
    <span class="figure told" :style="{ top: labelTop }"
      >{{ crop.width }}×{{ crop.height }} at {{ crop.x }},{{ crop.y }}</span
    >
    <i
      v-for="grip in grips"
      :key="grip"
      :class="['grip', grip]"
      :data-test="`grip-${grip}`"
      @pointerdown="drag($event, grip)"
    ></i>
  </div>
</template>

<style scoped>
.field {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
}

.crop.whole {
  cursor: crosshair;
}

.crop {
  position: absolute;
  border: 1px solid var(--treated);
  box-shadow: 0 0 0 9999px rgb(16 16 16 / 62%);
  cursor: move;
  touch-action: none;
}

.told {
  position: absolute;
  left: 6px;
  padding: 1px 6px;
  background: rgb(16 16 16 / 82%);
  color: var(--treated);
  pointer-events: none;
  white-space: nowrap;
}

.grip {
  position: absolute;
  width: 14px;
  height: 14px;
  margin: -7px;
}

.grip::after {
  content: '';
  position: absolute;
  inset: 4px;
  background: var(--treated);
}

.nw {
  left: 0;
  top: 0;
  cursor: nwse-resize;
}
.n {
  left: 50%;
  top: 0;
  cursor: ns-resize;
}
.ne {
  left: 100%;
  top: 0;
  cursor: nesw-resize;
}
.e {
  left: 100%;
  top: 50%;
  cursor: ew-resize;
}
.se {
  left: 100%;
  top: 100%;
  cursor: nwse-resize;
}
.s {
  left: 50%;
  top: 100%;
  cursor: ns-resize;
}
.sw {
  left: 0;
  top: 100%;
  cursor: nesw-resize;
}
.w {
  left: 0;
  top: 50%;
  cursor: ew-resize;
}
</style>
