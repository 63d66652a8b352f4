<script setup lang="ts">
import { computed } from 'vue'
import type { StepView } from '@/api/client'

/** What a step does over the clip: as it was in the source's colour, as it becomes in the treated one's, all of a curve in one scale. */
const props = defineProps<{ curves: StepView['curves'] }>()

const HEIGHT = 36
const LEAST = 0.01

const drawn = computed(() =>
  props.curves.map((curve) => {
    const all = [...curve.before, ...curve.after]
    const low = Math.min(...all)
    const range = Math.max(LEAST, Math.max(...all) - low)
    const line = (values: number[]) =>
      values
        .map((value, i) => {
          const x = (1000 * (i + 0.5)) / values.length
          return `${x.toFixed(1)},${(HEIGHT - 2 - ((value - low) / range) * (HEIGHT - 4)).toFixed(2)}`
        })
        .join(' ')
    return {
      name: curve.name,
      range: `${range.toPrecision(2)}${curve.unit === '°' ? '' : ' '}${curve.unit}`,
      before: line(curve.before),
      after: line(curve.after),
    }
  }),
)
</script>

<template>
  <div class="step-curves" data-test="step-curves">
    <div v-for="curve in drawn" :key="curve.name">
      <div class="head label">
        <span>{{ curve.name }}</span>
        <span class="figure faint" title="from its lowest to its highest">{{ curve.range }}</span>
      </div>
      <svg
        :viewBox="`0 0 1000 ${HEIGHT}`"
        preserveAspectRatio="none"
        role="img"
        :aria-label="`${curve.name} over the clip, before and behind this step`"
      >
        <polyline :points="curve.before" class="before" />
        <polyline :points="curve.after" class="after" />
      </svg>
    </div>
    <p class="label faint key"><i class="before" /> the camera's way <i class="after" /> as it is shown</p>
  </div>
</template>

<style scoped>
.step-curves {
  margin-top: 10px;
}

.head {
  display: flex;
  justify-content: space-between;
}

svg {
  display: block;
  width: 100%;
  height: 36px;
  margin-bottom: 4px;
}

polyline {
  fill: none;
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

polyline.before {
  stroke: var(--source);
}

polyline.after {
  stroke: var(--treated);
}

.key {
  margin: 2px 0 0;
}

.key i {
  display: inline-block;
  width: 14px;
  height: 2px;
  margin: 0 4px 3px 0;
}

.key i.before {
  background: var(--source);
}

.key i.after {
  margin-left: 10px;
  background: var(--treated);
}

.faint {
  color: var(--faint);
}
</style>
