<script setup lang="ts">
import { computed } from 'vue'
import type { ParamDescription } from '@/api/client'
import { pointsOf, straight, textOf, withPoint } from '@/view/points'
import ParamControl from './ParamControl.vue'

/** A number that may change over time: the field holds its value at the frame that is seen. */
const props = defineProps<{
  param: ParamDescription
  value: number | string | undefined
  problem: string
  /** Seconds of the frame that is seen, as it reaches the step. */
  seconds: number
}>()
const emit = defineEmits<{ change: [value: number | string | undefined] }>()

/** Times nearer than this are one frame's. */
const NEAR = 0.008

const keys = computed(() => (typeof props.value === 'string' ? pointsOf(props.value) : []))
const isKeyed = computed(() => keys.value.length > 0)
const here = computed(() =>
  isKeyed.value
    ? Math.round(straight(keys.value, props.seconds) * 1000) / 1000
    : (props.value as number | undefined),
)
const isOnKey = computed(() => keys.value.some((key) => Math.abs(key.x - props.seconds) < NEAR))

function set(value: number | string | undefined) {
  if (!isKeyed.value || value === undefined) {
    emit('change', value)
    return
  }
  emit('change', textOf(withPoint(keys.value, { x: props.seconds, y: Number(value) }, NEAR)))
}

/** The value at this frame is held here, and may be another elsewhere. */
function hold() {
  emit('change', textOf(withPoint(keys.value, { x: props.seconds, y: here.value as number }, NEAR)))
}

function drop(x: number) {
  const left = keys.value.filter((key) => key.x !== x)
  emit('change', left.length > 1 ? textOf(left) : left[0]?.y)
}

/** One value alone would be the same as a number: the other is held at the clip's start, or a second on. */
function start() {
  const now = Number(here.value ?? props.param.fallback ?? 0)
  const other = props.seconds < NEAR ? 1 : 0
  emit('change', textOf(withPoint([{ x: other, y: now }], { x: props.seconds, y: now }, NEAR)))
}

const shown = (seconds: number) => `${seconds.toFixed(2)} s`
</script>

<template>
  <div>
    <ParamControl :param="param" :value="here" :problem="problem" @change="set" />
    <div v-if="isKeyed" class="keys">
      <span
        v-for="key in keys"
        :key="key.x"
        class="key figure"
        :class="{ here: Math.abs(key.x - seconds) < NEAR }"
      >
        {{ shown(key.x) }} <b>{{ key.y }}</b>
        <v-btn
          class="bare"
          variant="plain"
          :aria-label="`Take out the value at ${shown(key.x)}`"
          @click="drop(key.x)"
        >
          ×
        </v-btn>
      </span>
      <v-btn v-if="!isOnKey" class="link" variant="plain" @click="hold">
        + hold {{ here }} at {{ shown(seconds) }}
      </v-btn>
      <v-btn class="link" variant="plain" @click="emit('change', here)">same throughout</v-btn>
    </div>
    <v-btn v-else class="link" variant="plain" @click="start">changes over time</v-btn>
  </div>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  margin-top: 4px;
}

.key {
  display: inline-flex;
  gap: 6px;
  padding: 1px 2px 1px 6px;
  border: 1px solid var(--rule);
}

.key.here {
  border-color: var(--treated);
}

.key button {
  border: 0;
  padding: 0 4px;
  background: none;
  color: var(--quiet);
  cursor: pointer;
}
</style>
