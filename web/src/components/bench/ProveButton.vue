<script setup lang="ts">
import KeyHint from '@/components/common/KeyHint.vue'
/** Proves what is seen in motion: a marked span, or some seconds from here. */
defineProps<{
  /** Of a proof where no span is marked. */
  seconds: number
  /** Whether a marked span is what a proof would show. */
  marked: boolean
}>()
const emit = defineEmits<{ prove: []; seconds: [seconds: number] }>()

const lengths = [1, 2, 3, 5]
</script>

<template>
  <span class="prove">
    <v-btn-toggle
      v-if="!marked"
      class="lengths"
      mandatory
      density="compact"
      :model-value="seconds"
      aria-label="Length of a proof"
      @update:model-value="(next: number) => emit('seconds', next)"
    >
      <v-btn v-for="one in lengths" :key="one" :value="one">{{ one }} s</v-btn>
    </v-btn-toggle>
    <v-btn
      data-test="prove"
      title="Renders this moment in motion, source and treated in step"
      @click="emit('prove')"
    >
      {{ marked ? 'Prove the span' : 'Prove' }} <KeyHint of="Enter" />
    </v-btn>
  </span>
</template>

<style scoped>
.prove {
  display: flex;
  flex: none;
  gap: 8px;
  align-items: center;
}

.lengths {
  height: 26px;
}
</style>
