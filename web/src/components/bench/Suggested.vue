<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ConditionFacts, Recipe, StepDescription } from '@/api/client'
import { holdsSteps, suggested } from '@/view/condition'

/** What the clip's condition speaks for, folded into one line that stays where it is; plainly no more than advice. */
const props = defineProps<{ condition: ConditionFacts; steps: StepDescription[]; recipe: Recipe }>()
const emit = defineEmits<{ take: [] }>()

const open = ref(false)
const parts = computed(() =>
  props.condition.suggestion.steps.map((one) => ({
    name: props.steps.find((step) => step.id === one.step)?.name ?? one.step,
    reason: one.reason,
  })),
)
const isTaken = computed(() => holdsSteps(props.recipe, suggested(props.condition)))
const notes = computed(() => props.condition.suggestion.notes)
const line = computed(() => {
  const count = parts.value.length === 1 ? '1 step suggested' : `${parts.value.length} steps suggested`
  return notes.value.length > 0 ? `${count}, ${notes.value.length} found without` : count
})
</script>

<template>
  <div class="suggested" data-test="suggested">
    <div class="line">
      <v-btn
        variant="plain"
        class="bare fold label"
        :aria-expanded="open"
        title="What its condition speaks for, and what was found without a step against it"
        @click="open = !open"
      >
        <span aria-hidden="true">{{ open ? '▾' : '▸' }}</span> {{ line }}
      </v-btn>
      <span v-if="isTaken" class="label treated">taken</span>
      <v-btn v-else class="link treated" variant="plain" @click="emit('take')">Take it</v-btn>
    </div>
    <template v-if="open">
      <ul>
        <li v-for="part in parts" :key="part.name">
          <b>{{ part.name }}</b> {{ part.reason }}
        </li>
      </ul>
      <template v-if="notes.length">
        <p class="label">Found, without a step against it here</p>
        <ul>
          <li v-for="note in notes" :key="note">{{ note }}</li>
        </ul>
      </template>
    </template>
  </div>
</template>

<style scoped>
.suggested {
  margin: 2px 16px 6px 44px;
  padding: 4px 0;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
  font: 13px/1.4 var(--label);
}

.line {
  display: flex;
  /* as high with its button as without */
  height: 22px;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
}

.fold {
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
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
