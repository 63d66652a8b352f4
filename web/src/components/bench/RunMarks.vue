<script setup lang="ts">
import type { ClipView } from '@/api/client'

/** Where a clip is damaged, and which of its frames were made in place of lost ones. */
defineProps<{
  clip: ClipView
  /** Where the middle of a frame lies along the strip, as CSS has it. */
  at: (frame: number) => string
}>()
</script>

<template>
  <i
    v-for="place in clip.facts?.damaged ?? []"
    :key="place"
    class="damage"
    data-test="damage"
    :title="`damaged near frame ${place}`"
    :style="{ left: at(place) }"
  ></i>
  <i
    v-for="place in clip.facts?.rescue?.made ?? []"
    :key="`m${place}`"
    class="damage made"
    data-test="made"
    :title="`frame ${place} was made of its neighbours`"
    :style="{ left: at(place) }"
  ></i>
</template>

<style scoped>
.damage {
  position: absolute;
  top: -2px;
  width: 7px;
  height: 7px;
  margin-left: -3px;
  background: var(--fault);
  clip-path: polygon(0 0, 100% 0, 50% 100%);
}

.damage.made {
  background: var(--treated);
}
</style>
