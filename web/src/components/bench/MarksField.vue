<script setup lang="ts">
import { computed } from 'vue'
import type { ParamDescription } from '@/api/client'
import { pointsOf, textOf, withPoint } from '@/view/points'

/** Moments at which something is said to be so, or not to be: the frame that is seen can be marked, and marks be taken out. */
const props = defineProps<{
  param: ParamDescription
  value: string | undefined
  problem: string
  /** Seconds of the frame that is seen, as it reaches the step. */
  seconds: number
}>()
const emit = defineEmits<{ change: [value: string | undefined] }>()

/** Times nearer than this are one frame's. */
const NEAR = 0.003

const marks = computed(() => (props.value ? pointsOf(props.value) : []))
const here = computed(() => marks.value.find((mark) => Math.abs(mark.x - props.seconds) < NEAR))
const offered = computed(() => props.param.options.filter((option) => Number(option.id) !== here.value?.y))

function words(y: number): string {
  return props.param.options.find((option) => Number(option.id) === y)?.label ?? ''
}

function set(id: string) {
  emit('change', textOf(withPoint(marks.value, { x: props.seconds, y: Number(id) }, NEAR)))
}

function drop(x: number) {
  const left = marks.value.filter((mark) => mark.x !== x)
  emit('change', left.length > 0 ? textOf(left) : undefined)
}

const shown = (seconds: number) => `${seconds.toFixed(3)} s`
</script>

<template>
  <div>
    <span class="label">{{ param.label }}</span>
    <p v-if="problem" class="fault">{{ problem }}</p>
    <ul v-if="marks.length > 0" class="marks">
      <li v-for="mark in marks" :key="mark.x" :class="{ here: mark === here }">
        <span class="figure">{{ shown(mark.x) }}</span> {{ words(mark.y) }}
        <v-btn
          class="bare"
          variant="plain"
          :aria-label="`Take out the mark at ${shown(mark.x)}`"
          @click="drop(mark.x)"
        >
          ×
        </v-btn>
      </li>
    </ul>
    <v-btn
      v-for="option in offered"
      :key="option.id"
      class="link"
      variant="plain"
      :data-test="`mark-${option.id}`"
      @click="set(option.id)"
    >
      + {{ option.label }} here
    </v-btn>
  </div>
</template>

<style scoped>
.marks {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}

.marks .here .figure {
  color: var(--treated);
}
</style>
