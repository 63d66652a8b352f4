<script setup lang="ts">
import type { Size } from '@/view/glass'
import type { Look } from '@/view/paint'

/** What stands on which side of the glass, told at its upper edge. */
defineProps<{
  shown: Look
  left: string
  /** None while only a small picture stands in. */
  right: string | undefined
  rightSize: Size
  /** Another take stands in the source's place. */
  isOtherTake: boolean
  /** What is played was made with settings that are no longer those at hand. */
  earlier: boolean
  /** The left side is a clean reference, so that what differs is error. */
  isError: boolean
  amplify: number
}>()
</script>

<template>
  <span
    v-if="shown !== 'treated' || right === undefined"
    class="tag at-left"
    data-test="left-name"
    :class="isOtherTake ? 'treated' : 'source'"
  >
    {{ left }}
  </span>
  <span v-if="shown !== 'source' && right !== undefined" class="tag treated at-right">
    {{ right }}
    <span class="quiet">{{ rightSize.width }}×{{ rightSize.height }}</span>
    <span v-if="earlier" class="quiet">with earlier settings</span>
  </span>
  <span v-if="shown === 'difference' && right !== undefined" class="tag middle">
    {{ isError ? 'error' : 'difference' }} ×{{ amplify }}: white is {{ Math.round(255 / amplify) }} of 255
  </span>
</template>

<style scoped src="./tag.css"></style>

<style scoped>
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
</style>
