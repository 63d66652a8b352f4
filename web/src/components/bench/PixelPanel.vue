<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import type { PixelView } from '@/api/client'

/** The pixel under the pointer on both sides, in numbers, with its neighbours. */
const props = defineProps<{ pixels: PixelView[] | undefined }>()
const patches = ref<HTMLCanvasElement[]>([])

function draw() {
  props.pixels?.forEach((pixel, i) => {
    const canvas = patches.value[i]
    const ctx = canvas?.getContext('2d')
    if (!canvas || !ctx) {
      return
    }
    const { side, patch } = pixel
    const rows = patch.length / 3 / side
    const cell = canvas.width / side
    for (let n = 0; n < side * rows; n++) {
      ctx.fillStyle = `rgb(${patch[3 * n]} ${patch[3 * n + 1]} ${patch[3 * n + 2]})`
      ctx.fillRect((n % side) * cell, Math.floor(n / side) * cell, cell, cell)
    }
    const at = { x: pixel.at % side, y: Math.floor(pixel.at / side) }
    ctx.strokeStyle = '#fff'
    ctx.strokeRect(at.x * cell + 0.5, at.y * cell + 0.5, cell - 1, cell - 1)
  })
}

watch(
  () => props.pixels,
  () => void nextTick(draw),
)
onMounted(draw)

const signed = (v: number) => (v < 0 ? '−' : ' ') + Math.abs(v).toFixed(4)
</script>

<template>
  <div class="pixel">
    <p v-if="!pixels" class="label faint">Point at the picture.</p>
    <section v-for="(pixel, i) in pixels ?? []" :key="i" :aria-label="i === 0 ? 'Source' : 'Treated'">
      <h3 :class="i === 0 ? 'source' : 'treated'">
        {{ i === 0 ? 'source' : 'treated' }} <span class="figure quiet">{{ pixel.x }}, {{ pixel.y }}</span>
      </h3>
      <canvas ref="patches" width="270" height="270" role="img" aria-label="The pixels around"></canvas>
      <table class="figure">
        <tbody>
          <tr v-for="(name, n) in pixel.names" :key="name">
            <th>{{ name }}</th>
            <td>{{ pixel.codes[n] }}</td>
            <td class="quiet">{{ signed(pixel.values[n] ?? 0) }}</td>
          </tr>
          <tr>
            <th>RGB</th>
            <td colspan="2">{{ pixel.rgb.join(' ') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="pixel.excursion" class="label fault">beyond the nominal range</p>
    </section>
    <p v-if="pixels?.length === 1" class="label faint">Here the treated picture shows nothing.</p>
  </div>
</template>

<style scoped>
.pixel {
  flex: 1;
  overflow: hidden auto;
  padding: 0 12px 12px;
  min-height: 0;
}

h3 {
  margin: 10px 0 4px;
  font: 600 12px var(--label);
}

h3 .figure {
  font-weight: 400;
  font-size: 11px;
}

canvas {
  display: block;
  width: 135px;
  height: 135px;
}

table {
  width: 100%;
  margin-top: 4px;
  font-size: 11px;
  border-spacing: 0;
}

th {
  text-align: left;
  font-weight: 400;
  color: var(--quiet);
}

td {
  text-align: right;
  white-space: pre;
}
</style>
