<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import type { ScopesView } from '@/api/client'
import { drawHistogram, drawVectors, drawWaveform } from '@/view/scopes'
import KeyHint from '@/components/common/KeyHint.vue'

/** How light and colour of the visible part are spread: the source in its colour, the treated picture in its own. */
const props = defineProps<{ scopes: ScopesView[] | undefined }>()
const marked = defineModel<boolean>('marked', { required: true })
const histogram = ref<HTMLCanvasElement>()
const waves = ref<HTMLCanvasElement[]>([])
const vectors = ref<HTMLCanvasElement>()

const share = (part: number, all: number) => `${((100 * part) / Math.max(1, all)).toFixed(2)} %`

function draw() {
  const [source, treated] = props.scopes ?? []
  if (!source || !treated) {
    return
  }
  const both = { source, treated }
  if (histogram.value) {
    drawHistogram(histogram.value, both)
  }
  waves.value.forEach((canvas, i) => drawWaveform(canvas, i === 0 ? source : treated, i === 0))
  if (vectors.value) {
    drawVectors(vectors.value, both)
  }
}
watch(
  () => props.scopes,
  () => void nextTick(draw),
)
onMounted(draw)
</script>

<template>
  <div class="scopes">
    <p v-if="!scopes" class="label faint">measuring…</p>
    <template v-else>
      <h3>Histogram of luma</h3>
      <canvas ref="histogram" width="272" height="120" role="img" aria-label="Histogram of luma"></canvas>
      <template v-for="side in ['source', 'treated']" :key="side">
        <h3>Waveform, {{ side }}</h3>
        <canvas ref="waves" width="272" height="160" role="img" :aria-label="`Waveform, ${side}`"></canvas>
      </template>
      <h3>Vectorscope</h3>
      <canvas ref="vectors" width="272" height="272" role="img" aria-label="Vectorscope"></canvas>
      <dl class="figure">
        <dt>below black</dt>
        <dd class="source">{{ share(scopes[0]!.below, scopes[0]!.samples) }}</dd>
        <dd class="treated">{{ share(scopes[1]!.below, scopes[1]!.samples) }}</dd>
        <dt>above white</dt>
        <dd class="source">{{ share(scopes[0]!.above, scopes[0]!.samples) }}</dd>
        <dd class="treated">{{ share(scopes[1]!.above, scopes[1]!.samples) }}</dd>
      </dl>
      <v-checkbox v-model="marked">
        <template #label>mark them <KeyHint of="m" /></template>
      </v-checkbox>
      <p class="label faint">8-bit video levels: black 16, white 235. Visible part only.</p>
    </template>
  </div>
</template>

<style scoped>
.scopes {
  flex: 1;
  overflow: hidden auto;
  padding: 0 12px 12px;
  min-height: 0;
}

h3 {
  margin: 8px 0 2px;
  font: 12px var(--label);
  color: var(--quiet);
}

canvas {
  display: block;
  width: 136px;
  background: #101010;
}

dl {
  display: grid;
  grid-template-columns: auto auto;
  gap: 1px 8px;
  margin: 8px 0;
  font-size: 11px;
}

dt {
  grid-column: 1 / 3;
  color: var(--quiet);
}

dd {
  margin: 0;
}
</style>
