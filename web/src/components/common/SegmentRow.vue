<script setup lang="ts" generic="T extends string | number">
/** One of a few, as buttons in a row; each may say of itself what it does, and be found by tests. */
defineProps<{
  label: string
  options: readonly { id: T; label: string; effect?: string; test?: string }[]
  chosen: T | undefined
}>()
const emit = defineEmits<{ choose: [id: T] }>()
</script>

<template>
  <span class="segments" role="group" :aria-label="label">
    <v-btn
      v-for="one in options"
      :key="one.id"
      class="bare"
      variant="plain"
      :aria-pressed="one.id === chosen"
      :title="one.effect"
      :data-test="one.test"
      @click="emit('choose', one.id)"
    >
      {{ one.label }}
    </v-btn>
  </span>
</template>
