<script setup lang="ts">
import type { RecipeProblem, TakeView } from '@/api/client'

/** Stands in the glass's place while a take cannot be shown, and says why. */
defineProps<{ take: TakeView | undefined; problems: RecipeProblem[] }>()
</script>

<template>
  <div class="unplanned">
    <p v-if="take?.unreadable" class="fault" role="alert" data-test="unreadable">
      Take {{ take.name }} cannot be shown: {{ take.unreadable }}. Choose another take, or start a new one.
    </p>
    <p v-else-if="problems.length > 0" class="fault" role="alert">
      This take cannot be shown: {{ problems[0]?.sentence }}. Change that setting on the left.
    </p>
  </div>
</template>

<style scoped>
.unplanned {
  display: grid;
  place-items: center;
  padding: 20px;
}
</style>
