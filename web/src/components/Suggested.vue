<script setup lang="ts">
import { computed } from 'vue'
import type { ConditionFacts, StepDescription } from '@/api/client'

/** What the clip's condition speaks for, each step with its reason; taken with one click, plainly no more than advice. */
const props = defineProps<{ condition: ConditionFacts; steps: StepDescription[]; taken: boolean }>()
const emit = defineEmits<{ take: [] }>()

const parts = computed(() =>
  props.condition.suggestion.steps.map((one) => ({
    name: props.steps.find((step) => step.id === one.step)?.name ?? one.step,
    reason: one.reason,
  })),
)
</script>

<template>
  <div class="suggested" data-test="suggested">
    <div class="line">
      <span class="label">Suggested by its condition</span>
      <span v-if="taken" class="label taken">taken</span>
      <button v-else class="link treated" type="button" @click="emit('take')">Take it</button>
    </div>
    <ul>
      <li v-for="part in parts" :key="part.name">
        <b>{{ part.name }}</b> {{ part.reason }}
      </li>
    </ul>
    <template v-if="condition.suggestion.notes.length">
      <p class="label">Found, without a step against it here</p>
      <ul class="notes">
        <li v-for="note in condition.suggestion.notes" :key="note">{{ note }}</li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.suggested {
  margin: 2px 16px 8px 44px;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  font: 13px/1.4 var(--label);
}

.line {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}

.taken {
  color: var(--treated);
}

ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 3px;
}

b {
  font-weight: 600;
}

li {
  color: var(--quiet);
}

li b {
  color: var(--ink);
}

p {
  margin: 8px 0 0;
}
</style>
