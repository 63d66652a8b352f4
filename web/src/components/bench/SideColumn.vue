<script lang="ts">
export const PANELS = ['pins', 'scopes', 'pixel'] as const
export type Panel = (typeof PANELS)[number]
</script>

<script setup lang="ts">
import { onScopeDispose, shallowRef, watch } from 'vue'
import { api, type PinView, type PixelView, type Rect, type Recipe, type ScopesView } from '@/api/client'
import type { Point } from '@/view/glass'
import { behindTheGlass } from '@/view/queue'
import type { Sides } from '@/view/sides'
import PinColumn from './PinColumn.vue'
import PixelPanel from './PixelPanel.vue'
import ScopesPanel from './ScopesPanel.vue'

/** Beside the glass: pins, scopes of what is seen, or the pixel under the pointer. */
const props = defineProps<{
  clip: string
  recipe: Recipe
  sides: Sides
  frame: number
  later: number
  pins: PinView[]
  searching: boolean
  seen: Rect | undefined
  hover: Point | undefined
}>()
const emit = defineEmits<{
  go: [pin: PinView]
  rename: [pin: PinView, name: string]
  remove: [pin: PinView]
  drop: []
  suggest: []
  failed: [error: unknown]
}>()
const panel = defineModel<Panel>('panel', { required: true })
const marked = defineModel<boolean>('marked', { required: true })

const scopes = shallowRef<ScopesView[]>()
const pixels = shallowRef<PixelView[]>()
const REST_MS = { scopes: 250, pixel: 50 }
let timer: ReturnType<typeof setTimeout> | undefined
let asked: AbortController | undefined

/** Asks once what is pointed at rests; a newer wish ends an older one. */
function ask<T>(wait: number, run: (signal: AbortSignal) => Promise<T>, took: (answer: T) => void) {
  clearTimeout(timer)
  timer = setTimeout(() => {
    asked?.abort()
    const { signal } = (asked = new AbortController())
    behindTheGlass
      .add(() => run(signal), signal)
      .then(took)
      .catch((error: unknown) => {
        if (!signal.aborted) {
          emit('failed', error)
        }
      })
  }, wait)
}

watch(
  () => [panel.value, props.recipe, props.frame, props.later, props.seen] as const,
  ([which, recipe, frame, later, seen]) => {
    if (which === 'scopes' && seen && seen.width >= 1 && seen.height >= 1) {
      ask(
        REST_MS.scopes,
        (signal) => api.scopes(props.clip, { recipe, frame, later, ...seen }, signal),
        (answer) => (scopes.value = answer),
      )
    }
  },
  { immediate: true },
)
watch(
  () => [panel.value, props.recipe, props.frame, props.later, props.hover] as const,
  ([which, recipe, frame, later, at]) => {
    if (which === 'pixel' && at) {
      ask(
        REST_MS.pixel,
        (signal) => api.pixel(props.clip, { recipe, frame, later, ...at, width: 1, height: 1 }, signal),
        (answer) => (pixels.value = answer),
      )
    }
  },
)
onScopeDispose(() => {
  clearTimeout(timer)
  asked?.abort()
})
</script>

<template>
  <aside class="side" aria-label="Pins, scopes and pixel values">
    <div class="tabs" role="group" aria-label="Beside the picture">
      <v-btn
        v-for="one in PANELS"
        :key="one"
        class="bare"
        variant="plain"
        :aria-pressed="panel === one"
        @click="panel = one"
      >
        {{ one }}
      </v-btn>
    </div>
    <PinColumn
      v-if="panel === 'pins'"
      :pins="pins"
      :sides="sides"
      :frame="frame"
      :searching="searching"
      @go="(pin) => emit('go', pin)"
      @rename="(pin, name) => emit('rename', pin, name)"
      @remove="(pin) => emit('remove', pin)"
      @drop="emit('drop')"
      @suggest="emit('suggest')"
      @failed="(error) => emit('failed', error)"
    />
    <ScopesPanel v-else-if="panel === 'scopes'" v-model:marked="marked" :scopes="scopes" />
    <PixelPanel v-else :pixels="pixels" />
  </aside>
</template>

<style scoped>
.side {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--table);
  border-left: 1px solid var(--rule);
}

.tabs {
  display: flex;
  gap: 10px;
  padding: 12px 12px 8px;
}

.tabs button {
  padding: 0 0 2px;
  border: 0;
  border-bottom: 1px solid transparent;
  background: none;
  color: var(--faint);
  font: 13px var(--label);
  cursor: pointer;
}

.tabs button[aria-pressed='true'] {
  color: var(--ink);
  border-color: var(--ink);
}
</style>
