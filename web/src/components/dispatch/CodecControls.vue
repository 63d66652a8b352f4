<script setup lang="ts">
import type { CodecDescription, ParamDescription } from '@/api/client'

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

function number(param: ParamDescription): number {
  return Number(props.settings[param.key] ?? param.fallback ?? param.min ?? 0)
}

function words(param: ParamDescription): string {
  const value = number(param)
  const said = `${value} ${param.unit}`
  // H.265 looks at three more as H.264 does (common practice)
  const like = props.codec.id === 'h265' ? value - 3 : value
  return param.key === 'quality' ? `${said}, ${QUALITIES.find(([most]) => like <= most)?.[1]}` : said
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
  <div v-for="param in codec.params" :key="param.key" class="param" :title="param.effect">
    <span class="label">{{ param.label }}</span>
    <span v-if="param.kind === 'choice'" class="segments" role="group" :aria-label="param.label">
      <v-btn
        v-if="param.fallback === undefined"
        class="bare"
        variant="plain"
        :aria-pressed="settings[param.key] === undefined"
        :title="
          param.key === 'depth' ? 'as many as the picture has, as far as the codec holds them' : param.effect
        "
        @click="set(param.key, undefined)"
      >
        {{ param.key === 'depth' ? 'as it is' : 'usual' }}
      </v-btn>
      <v-btn
        v-for="option in param.options"
        :key="option.id"
        class="bare"
        variant="plain"
        :aria-pressed="String(settings[param.key] ?? param.fallback) === option.id"
        :title="option.effect"
        @click="set(param.key, option.id)"
      >
        {{ option.label }}
      </v-btn>
    </span>
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
</template>

<style scoped>
.param {
  display: grid;
  grid-template-columns: 60px 1fr 150px;
  gap: 12px;
  align-items: center;
}

.segments {
  grid-column: 2 / -1;
  justify-self: start;
}
</style>
