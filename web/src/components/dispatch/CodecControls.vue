<script setup lang="ts">
import { computed, ref } from 'vue'
import type { CodecDescription, ParamDescription } from '@/api/client'
import SegmentRow from '@/components/common/SegmentRow.vue'

/** What can be set of a codec, drawn from its description. What is not set is the codec's own choice. */
const props = defineProps<{ codec: CodecDescription; settings: Record<string, unknown> }>()
const emit = defineEmits<{ change: [settings: Record<string, unknown>] }>()

/** What a rate factor comes to in words (common practice). */
const QUALITIES: [number, string][] = [
  [14, 'near lossless'],
  [19, 'very fine'],
  [24, 'fine'],
  [Infinity, 'small'],
]
/** What looks alike has another number in each codec (common practice). */
const LIKE_H264: Record<string, number> = { h264: 0, h265: 3, vp9: 5, av1: 7 }

/** Of the three that decide how large a file becomes, the one that does is shown. */
const BY: Record<string, string> = { quality: 'quality', bitrate: 'bitrate', size: 'size' }
const rule = computed(() => {
  const by = props.codec.params.find((param) => param.key === 'by')
  return by && String(props.settings.by ?? by.fallback)
})
/** What few change. */
const SELDOM = new Set(['gop', 'effort', 'peak', 'first'])
const isAll = ref(false)
const wanted = computed(() =>
  props.codec.params.filter(
    (param) => rule.value === undefined || BY[param.key] === undefined || BY[param.key] === rule.value,
  ),
)
const shown = computed(() =>
  wanted.value.filter(
    (param) => isAll.value || !SELDOM.has(param.key) || props.settings[param.key] !== undefined,
  ),
)

function number(param: ParamDescription): number {
  return Number(props.settings[param.key] ?? param.fallback ?? param.min ?? 0)
}

function words(param: ParamDescription): string {
  const value = number(param)
  const said = `${value} ${param.unit}`
  const more = LIKE_H264[props.codec.id]
  const like = value - (more ?? 0)
  return param.key === 'quality' && more !== undefined
    ? `${said}, ${QUALITIES.find(([most]) => like <= most)?.[1]}`
    : said
}

/** Stands for the codec's own choice among options. */
const OWN = ''
function options(param: ParamDescription) {
  if (param.fallback !== undefined) {
    return param.options
  }
  const depth = param.key === 'depth'
  const own = {
    id: OWN,
    label: depth ? 'as it is' : 'usual',
    effect: depth ? 'as many as the picture has, as far as the codec holds them' : param.effect,
  }
  return [own, ...param.options]
}

function set(key: string, value: string | number | undefined) {
  const settings = { ...props.settings }
  if (value === undefined) {
    delete settings[key]
  } else {
    settings[key] = value
  }
  emit('change', settings)
}
</script>

<template>
  <div v-for="param in shown" :key="param.key" class="param" :title="param.effect">
    <span class="label">{{ param.label }}</span>
    <SegmentRow
      v-if="param.kind === 'choice'"
      :label="param.label"
      :options="options(param)"
      :chosen="String(settings[param.key] ?? param.fallback ?? OWN)"
      @choose="(id) => set(param.key, id === OWN ? undefined : id)"
    />
    <template v-else-if="param.kind === 'real' || (param.max ?? 0) > 1000">
      <v-text-field
        type="number"
        :model-value="settings[param.key] ?? param.fallback ?? ''"
        :min="param.min"
        :max="param.max"
        :suffix="param.unit"
        :placeholder="param.fallback === undefined ? 'as it comes' : ''"
        :aria-label="param.label"
        class="typed"
        hide-details
        @update:model-value="(value: string) => set(param.key, value === '' ? undefined : Number(value))"
      />
      <span class="effect">{{ param.effect }}</span>
    </template>
    <template v-else>
      <v-slider
        :model-value="number(param)"
        :min="param.min"
        :max="param.max"
        :step="1"
        :aria-label="param.label"
        hide-details
        @update:model-value="(value: number) => set(param.key, value)"
      />
      <span class="figure">{{ words(param) }}</span>
    </template>
  </div>
  <v-btn
    v-if="isAll || shown.length < wanted.length"
    class="link more"
    variant="plain"
    :aria-expanded="isAll"
    @click="isAll = !isAll"
  >
    {{ isAll ? 'Fewer settings' : 'More settings' }}
  </v-btn>
</template>

<style scoped>
.more {
  justify-self: start;
}

.param {
  display: grid;
  grid-template-columns: 72px 1fr 150px;
  gap: 12px;
  align-items: center;
}

.typed {
  max-width: 180px;
}

.effect {
  grid-column: 2 / -1;
  color: var(--quiet);
  margin-top: -6px;
}

.segments {
  grid-column: 2 / -1;
  justify-self: start;
}
</style>
