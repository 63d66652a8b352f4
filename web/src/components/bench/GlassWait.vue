<script setup lang="ts">
import { computed } from 'vue'
import type { Size } from '@/view/glass'
import { useKeys } from '@/stores/keys'

/** That a picture is being made; where it takes long, why, and what to do. */
const props = defineProps<{
  /** The line is slow, so that a picture with loss came first. */
  rough: boolean
  /** It has taken so long that it wants an explanation. */
  long: boolean
  /** Of the whole treated picture, and its pixels to one of the screen's. */
  treated: Size
  scale: number
}>()

const own = useKeys()
const why = computed(() => {
  if (props.rough) {
    return 'the line is slow: a first look with loss, exact pixels follow'
  }
  if (!props.long) {
    return ''
  }
  const { width, height } = props.treated
  return props.scale < 0.5
    ? `still at it: ${width}×${height} is much; ${own.withKey('zoom in', '1')} to see a part sooner`
    : 'still at it: the machine is busy, or the line is slow'
})
</script>

<template>
  <div class="late" role="status">
    <v-progress-linear indeterminate color="primary" height="2" aria-label="treating" />
    <span v-if="why" class="tag waits">{{ why }}</span>
  </div>
</template>

<style scoped src="./tag.css"></style>

<style scoped>
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
