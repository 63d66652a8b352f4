<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue'
import type { PinView } from '@/api/client'
import type { Size } from '@/view/glass'
import { fitted, toScreen } from '@/view/glass'
import { drawPiece } from '@/view/paint'
import { behindTheGlass } from '@/view/queue'
import { isInTreated, type Sides, sourceWish, treatedWish } from '@/view/sides'
import { useDrawLoop } from '@/view/useDrawLoop'
import { useStill } from '@/view/useStill'
import { ratio } from '@/view/words'

/** One side of a pin, always at the recipe's present settings. */
const props = defineProps<{
  pin: PinView
  sides: Sides
  side: 'source' | 'treated'
  /** Tells this loupe's requests from others'. */
  viewer: string
  label: string
  /** Says nothing of its own: what it stands in does. */
  quiet?: boolean
}>()
const emit = defineEmits<{ failed: [error: unknown] }>()

const canvas = ref<HTMLCanvasElement>()
const screen = shallowRef<Size>({ width: 1, height: 1 })
const still = reactive(
  useStill(`${props.viewer}-${props.side}`, (error) => emit('failed', error), behindTheGlass),
)

const glass = computed(() => fitted(props.pin, screen.value))
const gone = computed(() => !isInTreated(props.sides, props.pin))
const scale = computed(() => (glass.value.scale * props.sides.source.width) / props.sides.placement.width)

const { invalidate } = useDrawLoop(() => {
  const ctx = canvas.value?.getContext('2d', { alpha: false })
  if (!ctx) {
    return
  }
  ctx.fillStyle = '#161616'
  ctx.fillRect(0, 0, screen.value.width, screen.value.height)
  if (still.piece && !(gone.value && props.side === 'treated')) {
    drawPiece(ctx, still.piece, toScreen(glass.value, screen.value, still.piece.covers))
  }
})

/** Long sheets ask only for what is in sight. */
const inSight = ref(false)
const sight = new IntersectionObserver((entries) => {
  inSight.value = entries.some((entry) => entry.isIntersecting)
})

watch(
  () => [props.pin, props.sides, props.side, screen.value, inSight.value],
  () => {
    if (!inSight.value || screen.value.width < 2 || (gone.value && props.side === 'treated')) {
      invalidate()
      return
    }
    const spot = {
      clip: props.pin.clipId,
      frame: props.pin.frame,
      later: 0,
      glass: glass.value,
      screen: screen.value,
      margin: 0,
    }
    still.wish(
      props.side === 'treated' ? treatedWish(spot, props.sides) : sourceWish(spot, props.sides, false),
    )
    invalidate()
  },
)
watch(() => still.piece, invalidate)

const sizes = new ResizeObserver(([entry]) => {
  const box = entry?.contentRect
  if (!box || !canvas.value || box.width < 1 || box.height < 1) {
    return
  }
  const width = Math.round(box.width * devicePixelRatio)
  const height = Math.round(box.height * devicePixelRatio)
  canvas.value.width = width
  canvas.value.height = height
  screen.value = { width, height }
})
onMounted(() => {
  if (canvas.value) {
    sizes.observe(canvas.value)
    sight.observe(canvas.value)
  }
})
onBeforeUnmount(() => {
  sizes.disconnect()
  sight.disconnect()
})

defineExpose({ canvas, scale })
</script>

<template>
  <div class="loupe" :class="side">
    <canvas
      ref="canvas"
      :role="quiet ? 'presentation' : 'img'"
      :aria-label="quiet ? undefined : `${label}, ${ratio(scale)}`"
      :title="quiet ? undefined : `${ratio(scale)} of the treated picture`"
      :data-pending="still.pending"
      :data-side="side"
    ></canvas>
    <span v-if="still.pending && !still.piece" class="making label" data-test="making">being made…</span>
    <v-progress-linear
      v-else-if="still.pending && !quiet"
      class="anew"
      indeterminate
      color="primary"
      height="2"
      :aria-label="`making ${label}`"
    />
    <span v-if="gone && side === 'treated'" class="gone label">outside of this take’s picture</span>
  </div>
</template>

<style scoped>
.loupe {
  position: relative;
  min-height: 0;
  border-left: 3px solid var(--treated);
  background: var(--ground);
}

.source {
  border-color: var(--source);
}

canvas {
  display: block;
  width: 100%;
  height: 100%;
}

.making {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  color: var(--faint);
  font-size: 11px;
}

.anew {
  position: absolute;
  inset: 0 0 auto;
}

.gone {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  padding: 4px;
  text-align: center;
}
</style>
