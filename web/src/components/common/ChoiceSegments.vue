<script setup lang="ts">
import type { ParamDescription } from '@/api/client'
import SegmentRow from './SegmentRow.vue'

/** A choice of few options as buttons in a row. */
defineProps<{
  param: ParamDescription
  /** The options offered; not every one of the parameter's need be. */
  options: ParamDescription['options']
  chosen: string
  problem: string
  /** The label stands above: for more options than a row has room for beside it. */
  isTall?: boolean
}>()
const emit = defineEmits<{ change: [id: string] }>()
</script>

<template>
  <div>
    <div class="way" :class="{ tall: isTall }">
      <span class="label">{{ param.label }}</span>
      <SegmentRow
        :label="param.label"
        :options="options"
        :chosen="chosen"
        @choose="(id) => emit('change', id)"
      />
    </div>
    <p v-if="problem" class="fault">{{ problem }}</p>
  </div>
</template>

<style scoped>
.way {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

.tall {
  display: grid;
  gap: 4px;
  justify-items: start;
}

/* more than a line has room for go on in the next */
.tall .segments {
  flex-wrap: wrap;
}

.tall :deep(button) {
  padding-inline: 7px;
  white-space: nowrap;
}
</style>
