<script setup lang="ts">
import { computed } from 'vue'
import type { ConditionFacts } from '@/api/client'
import { BARS } from '@/view/condition'

/** The fixed row of defect bars; the heights are severities. */
const props = defineProps<{ condition: ConditionFacts }>()

const bars = computed(() =>
  BARS.flatMap((id) => props.condition.findings.filter((finding) => finding.id === id)),
)
const words = computed(() => bars.value.map((bar) => `${bar.label}: ${bar.words}`).join('; '))
</script>

<template>
  <div class="bars" role="img" :aria-label="words">
    <i v-for="bar in bars" :key="bar.id" :title="`${bar.label}: ${bar.words}`" :data-test="`bar-${bar.id}`">
      <b
        :class="{ noticed: bar.noticed }"
        :style="{ height: `${Math.max(1, Math.round(30 * bar.severity))}px` }"
      ></b>
    </i>
  </div>
</template>

<style scoped>
.bars {
  display: flex;
  gap: 6px;
  height: 32px;
  align-items: flex-end;
}

i {
  width: 13px;
  height: 100%;
  display: flex;
  align-items: flex-end;
  border-bottom: 1px solid var(--faint);
}

b {
  width: 100%;
  background: var(--faint);
}

b.noticed {
  background: var(--ink);
}
</style>
