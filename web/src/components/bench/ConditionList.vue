<script setup lang="ts">
import { computed } from 'vue'
import type { ClipView } from '@/api/client'
import { api } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { isExamining } from '@/view/condition'

/** Everything measured of a clip, the worst first, and the way to measure it again. */
const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()

const examination = computed(() => props.clip.examination)
const findings = computed(() =>
  [...(examination.value?.condition?.findings ?? [])].sort(
    (a, b) => Number(b.noticed) - Number(a.noticed) || b.severity - a.severity,
  ),
)
</script>

<template>
  <div class="condition" data-test="condition">
    <div
      v-for="one in findings"
      :key="one.id"
      class="row"
      :class="{ noticed: one.noticed }"
      :title="one.method"
    >
      <span class="name">{{ one.label }}</span>
      <span v-if="one.noticed" class="bar"><i :style="{ width: `${100 * one.severity}%` }"></i></span>
      <span class="words">{{ one.words }}</span>
    </div>
    <div class="foot">
      <template v-if="isExamining(clip)">
        <span class="figure quiet" role="status"
          >examining, {{ Math.round(100 * (examination?.progress ?? 0)) }} %</span
        >
        <v-btn class="link" variant="plain" @click="api.stopExamining(clip.id).catch(notices.fail)">
          Stop
        </v-btn>
      </template>
      <template v-else>
        <span v-if="examination?.problem" class="fault">{{ examination.problem }}</span>
        <v-btn class="link" variant="plain" @click="api.examine(clip.id).catch(notices.fail)">
          {{ findings.length ? 'Examine again' : 'Examine' }}
        </v-btn>
      </template>
    </div>
  </div>
</template>

<style scoped>
.condition {
  padding: 2px 16px 8px 44px;
  display: grid;
  gap: 4px;
}

.row {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 0 8px;
  align-items: center;
  font: 13px/1.3 var(--label);
  color: var(--faint);
}

.row.noticed {
  color: var(--ink);
}

.bar {
  height: 5px;
  background: var(--raised);
}

.bar i {
  display: block;
  height: 100%;
  background: var(--faint);
}

.noticed .bar i {
  background: var(--source);
}

.words {
  grid-column: 2;
  color: var(--quiet);
}

.row:not(.noticed) .words {
  color: var(--faint);
}

.foot {
  display: flex;
  gap: 10px;
  margin-top: 4px;
}
</style>
