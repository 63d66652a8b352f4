<script setup lang="ts">
import { computed } from 'vue'
import type { PinView } from '@/api/client'
import { type Glass, type Rect, type Size, toScreen } from '@/view/glass'

/** Pins, and a box that is being drawn, over the picture. */
const props = defineProps<{
  glass: Glass
  /** That one side has for itself. */
  screen: Size
  pins: PinView[]
  drawn: Rect | undefined
  /** Only the left half of the glass shows them. */
  half: boolean
}>()

const marks = computed(() => {
  const boxes = props.pins.map((pin) => ({ key: pin.id, name: pin.name, rect: pin as Rect }))
  if (props.drawn) {
    boxes.push({ key: 'drawn', name: '', rect: props.drawn })
  }
  return boxes.map((box) => {
    const at = toScreen(props.glass, props.screen, box.rect)
    const css = (v: number) => `${v / devicePixelRatio}px`
    return {
      ...box,
      style: { left: css(at.x), top: css(at.y), width: css(at.width), height: css(at.height) },
    }
  })
})
</script>

<template>
  <div class="marks" :class="{ half }" aria-hidden="true">
    <div v-for="mark in marks" :key="mark.key" class="pin" :style="mark.style">
      <span>{{ mark.name }}</span>
    </div>
  </div>
</template>

<style scoped>
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
</style>
