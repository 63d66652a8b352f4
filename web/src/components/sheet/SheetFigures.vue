<script setup lang="ts">
import { computed } from 'vue'
import type { FiguresView } from '@/api/client'
import type { SheetRow } from '@/stores/useSheet'
import { takeLines } from '@/view/sheetWords'

/** What was measured of one take, or of the source. */
const props = defineProps<{
  row: SheetRow | undefined
  source?: FiguresView | undefined
  isSource: boolean
}>()
const lines = computed(() => takeLines(props.row, props.source, props.isSource))
</script>

<template>
  <div class="figure">
    <p v-if="row?.problem" class="fault label">{{ row.problem }}</p>
    <p v-for="line in lines" :key="line">{{ line }}</p>
    <p v-if="!isSource && !row?.figures && !row?.problem" class="faint" role="status">measuring…</p>
  </div>
</template>

<style scoped>
p {
  margin: 0;
  line-height: 16px;
  font-size: 12px;
}
</style>
