<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type ClipView, type CurvesView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import type { CutByHand } from '@/view/cutsByHand'

/** What was measured along time: one curve of four, cuts and missing frames as upright lines, repeated frames and flashes as ticks, fades as wedges. */
const props = defineProps<{
  clip: ClipView
  frames: number
  /** Cuts that the recipe tells; where it says that there is none, the line is broken. */
  byHand: CutByHand[]
}>()
const notices = useNotices()

const POINTS = 1200
const HEIGHT = 40
/** Values at the top of the picture: what is as bad as it gets, or all there is. */
const kinds = [
  { id: 'noise', label: 'noise', top: 14, unit: 'of 255' },
  { id: 'shake', label: 'shake', top: 2, unit: '% of the width' },
  { id: 'change', label: 'motion', top: 30, unit: 'of 255 a frame' },
  { id: 'light', label: 'light', top: 1, unit: 'of white' },
] as const
type Kind = (typeof kinds)[number]['id']

const kind = defineModel<Kind>('kind', { default: 'noise' })
const curves = ref<CurvesView>()

watch(
  () => [props.clip.id, props.clip.examination?.state] as const,
  async ([id, state]) => {
    if (state === 'DONE') {
      curves.value = await api.curves(id, POINTS).catch((error: unknown) => {
        notices.fail(error)
        return undefined
      })
    }
  },
  { immediate: true },
)

const chosen = computed(() => kinds.find((one) => one.id === kind.value)!)
const values = computed(() => curves.value?.[kind.value] ?? [])
const top = computed(() => Math.max(chosen.value.top, ...values.value))
const line = computed(() => {
  const count = values.value.length
  return values.value
    .map((value, i) => `${((i + 0.5) / count) * 1000},${HEIGHT - 2 - (value / top.value) * (HEIGHT - 4)}`)
    .join(' ')
})
const most = computed(() => Math.max(0, ...values.value))
const at = (frame: number) => (1000 * frame) / props.frames
</script>

<template>
  <div v-if="curves" class="curves" data-test="curves">
    <svg :viewBox="`0 0 1000 ${HEIGHT}`" preserveAspectRatio="none" aria-hidden="true">
      <line
        v-for="cut in curves.cuts"
        :key="`c${cut}`"
        :x1="at(cut)"
        :x2="at(cut)"
        y1="0"
        :y2="HEIGHT"
        class="cut"
      />
      <line
        v-for="cut in byHand"
        :key="`h${cut.frame}`"
        :x1="at(cut.frame)"
        :x2="at(cut.frame)"
        y1="0"
        :y2="HEIGHT"
        class="by-hand"
        :class="{ none: !cut.begins }"
        data-test="by-hand"
      />
      <line
        v-for="frame in curves.repeats"
        :key="`r${frame}`"
        :x1="at(frame + 0.5)"
        :x2="at(frame + 0.5)"
        :y1="HEIGHT - 5"
        :y2="HEIGHT"
        class="repeat"
      />
      <line
        v-for="frame in curves.flashes"
        :key="`f${frame}`"
        :x1="at(frame + 0.5)"
        :x2="at(frame + 0.5)"
        y1="0"
        y2="6"
        class="flash"
      />
      <polygon
        v-for="fade in curves.fades"
        :key="`d${fade.from}`"
        :points="`${at(fade.from)},${fade.in ? 6 : 0} ${at(fade.end)},${fade.in ? 0 : 6} ${at(fade.end)},6 ${at(fade.from)},6`"
        class="fade"
      />
      <line
        v-for="one in curves.dropped"
        :key="`l${one.frame}`"
        :x1="at(one.frame)"
        :x2="at(one.frame)"
        y1="0"
        :y2="HEIGHT"
        class="dropped"
      />
      <polyline :points="line" />
    </svg>
    <div class="choice">
      <span class="figure faint" data-test="curve-most">to {{ most.toPrecision(2) }} {{ chosen.unit }}</span>
      <v-btn
        v-for="one in kinds"
        :key="one.id"
        class="link"
        variant="plain"
        :aria-pressed="kind === one.id"
        @click="kind = one.id"
      >
        {{ one.label }}
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.curves {
  position: relative;
}

svg {
  display: block;
  width: 100%;
  height: 30px;
}

polyline {
  fill: none;
  stroke: var(--source);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

line {
  stroke: var(--faint);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.by-hand {
  stroke: var(--treated);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}

.by-hand.none {
  stroke-dasharray: 3 3;
}

.cut {
  stroke-dasharray: 2 3;
}

.fade {
  fill: var(--faint, #6c6c6c);
}

.dropped {
  stroke: var(--fault);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.flash {
  stroke: var(--ink);
}

.choice {
  position: absolute;
  right: 0;
  top: -2px;
  display: flex;
  gap: 10px;
  padding-left: 8px;
  background: rgb(31 31 31 / 80%);
}

.choice .link {
  color: var(--faint);
}

.choice [aria-pressed='true'] {
  color: var(--ink);
}
</style>
