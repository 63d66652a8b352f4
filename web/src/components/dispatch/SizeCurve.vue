<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import {
  api,
  type CodecDescription,
  type CurvePoint,
  type DeliverableChoice,
  Problem,
  type Recipe,
} from '@/api/client'
import { byQuality } from '@/view/sending'
import { likeness, ordered, places, qualityFor, share } from '@/view/sizeCurve'
import { bytes } from '@/view/words'

/** Size against quality, measured on a little of what will be made, and seen where most is lost. */
const props = defineProps<{
  clip: string
  request: { recipe: Recipe; deliverable: DeliverableChoice; inFrame?: number; outFrame?: number }
  codec: CodecDescription
}>()
const emit = defineEmits<{ choose: [quality: number] }>()

const WIDTH = 330
const HEIGHT = 150
const points = ref(new Map<number, CurvePoint>())
const trying = ref<number>()
const problem = ref('')
const shares = ref('')

const quality = computed(() => {
  const param = props.codec.params.find((one) => one.key === 'quality')
  return Number(props.request.deliverable.settings.quality ?? param?.fallback)
})
const isByQuality = computed(() => (props.request.deliverable.settings.by ?? 'quality') === 'quality')
const drawn = computed(() => places(ordered(points.value.values())))
const path = computed(() => drawn.value.map((at) => `${spot(at.x, WIDTH)},${spot(at.y, HEIGHT)}`).join(' '))
const now = computed(() => points.value.get(quality.value))
const first = computed(() => [...points.value.values()][0])

/** All that a point hangs on but its quality: what else is set of the codec, the recipe and the span. */
const base = computed(() =>
  JSON.stringify([props.clip, { ...props.request, deliverable: byQuality(props.request.deliverable) }]),
)

function spot(share: number, length: number): number {
  return 14 + share * (length - 28)
}

let asked: AbortController | undefined
async function measure(wanted: number[]) {
  asked?.abort()
  const mine = new AbortController()
  asked = mine
  problem.value = ''
  try {
    for (const one of wanted) {
      if (points.value.has(one)) {
        continue
      }
      trying.value = one
      const point = await api.curve(props.clip, { ...props.request, quality: one }, mine.signal)
      points.value.set(one, point)
    }
  } catch (error) {
    if (!mine.signal.aborted) {
      problem.value = error instanceof Problem ? error.message : String(error)
    }
  } finally {
    if (asked === mine) {
      trying.value = undefined
    }
  }
}

const all = computed(() => [...new Set([...props.codec.qualities, quality.value])])
watch(
  base,
  () => {
    points.value = new Map()
    void measure(all.value)
  },
  { immediate: true },
)
watch(quality, () => void measure(all.value))
onBeforeUnmount(() => {
  if (trying.value !== undefined) {
    asked?.abort()
    // what is under way there is no use to anybody any more
    void api.enoughOfCurve().catch(() => undefined)
  }
})

function toShare() {
  const source = first.value?.sourceBytes
  const percent = Number(shares.value)
  if (!source || !(percent > 0)) {
    return
  }
  const found = qualityFor(points.value.values(), (source * percent) / 100)
  if (found === undefined) {
    problem.value = `${percent} % of the source lies beyond what was tried; choose a point, or a size under Goes by`
    return
  }
  problem.value = ''
  emit('choose', found)
}
</script>

<template>
  <section class="curve" aria-label="Size against quality">
    <div class="drawing">
      <svg :width="WIDTH" :height="HEIGHT" role="group" aria-label="Qualities that were tried">
        <polyline :points="path" />
        <g
          v-for="at in drawn"
          :key="at.point.quality"
          :class="{ chosen: at.point.quality === quality }"
          role="button"
          tabindex="0"
          :data-test="`point-${at.point.quality}`"
          :aria-label="`CRF ${at.point.quality}, ${bytes(at.point.fileBytes)}`"
          @click="emit('choose', at.point.quality)"
          @keydown.enter="emit('choose', at.point.quality)"
        >
          <circle :cx="spot(at.x, WIDTH)" :cy="spot(at.y, HEIGHT)" r="5" />
          <circle class="reach" :cx="spot(at.x, WIDTH)" :cy="spot(at.y, HEIGHT)" r="14" />
        </g>
      </svg>
      <div class="axis figure">
        <span>↑ more alike</span>
        <span>larger →</span>
      </div>
    </div>
    <div class="told">
      <p v-if="now" class="figure" data-test="curve-now">
        CRF {{ now.quality }} · about {{ bytes(now.fileBytes) }}, {{ share(now) }}
      </p>
      <p v-if="now" class="figure">
        <template v-if="now.ssim !== undefined"
          >SSIM {{ now.ssim.toFixed(4) }}, worst {{ now.worst?.toFixed(4) }}</template
        >
        <template v-if="now.psnr !== undefined"> · PSNR {{ now.psnr.toFixed(1) }} dB</template>
      </p>
      <p v-if="now">
        <b>{{ likeness(now) }}</b>
        <span class="quiet">
          by luma, {{ now.frames }} frames at {{ now.frames > 60 ? 'several places' : 'one place' }}, held
          against what was treated</span
        >
      </p>
      <p v-if="trying !== undefined" class="quiet" role="status">
        trying CRF {{ trying }}, {{ Math.min(all.length, points.size + 1) }} of {{ all.length }}…
      </p>
      <p v-if="!isByQuality" class="treated">A point chosen here lets it go by quality.</p>
      <form v-if="points.size > 1" class="share" @submit.prevent="toShare">
        <v-text-field
          v-model="shares"
          type="number"
          min="1"
          suffix="%"
          label="Of the source's size"
          hide-details
        />
        <v-btn type="submit" :disabled="!(Number(shares) > 0)">Find the quality</v-btn>
      </form>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
    </div>
    <figure v-if="now">
      <img :src="api.curvePicture(now.curve)" alt="As treated, where most is lost, at 200 %" />
      <figcaption>as treated, where most is lost, 200 %</figcaption>
    </figure>
    <figure v-if="now">
      <img :src="api.curvePicture(now.curve, now.quality)" :alt="`The same place at CRF ${now.quality}`" />
      <figcaption class="treated">at CRF {{ now.quality }}</figcaption>
    </figure>
  </section>
</template>

<style scoped>
.curve {
  display: grid;
  grid-template-columns: 352px 1fr;
  gap: 8px 8px;
  align-items: start;
}

.told p {
  margin: 0 0 6px;
}

.quiet,
.axis {
  color: var(--quiet);
}

.axis {
  display: flex;
  justify-content: space-between;
  width: 330px;
}

svg {
  background: var(--ground);
  border: 1px solid var(--rule);
}

polyline {
  fill: none;
  stroke: var(--rule);
}

circle {
  fill: var(--source);
  cursor: pointer;
}

.chosen circle {
  fill: var(--treated);
}

circle.reach {
  fill: transparent;
}

.share {
  display: grid;
  grid-template-columns: 150px auto;
  gap: 8px;
  align-items: center;
  justify-content: start;
}

figure {
  margin: 0;
}

img {
  width: 352px;
  max-width: 100%;
  image-rendering: pixelated;
  display: block;
}

figcaption {
  color: var(--quiet);
}

figcaption.treated {
  color: var(--treated);
}
</style>
