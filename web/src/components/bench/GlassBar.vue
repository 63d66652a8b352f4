<script setup lang="ts">
import type { Look } from '@/view/paint'
import { ratio } from '@/view/words'
import { useKeys } from '@/stores/keys'

/** What stands under the picture: where one is, how one looks, how large. */
defineProps<{
  place: string
  scale: number
  fitted: boolean
  look: Look
  flipped: boolean
  ownPixels: boolean
  sameSize: boolean
  amplify: number
  /** Times lighter than it is, for looking only. */
  gain: number
  /** Whether the source's pixels are no squares, and whether they are shown in their own shape. */
  oblong: boolean
  trueShape: boolean
  /** Whether crops are being made. */
  cropping: boolean
  /** Shapes to keep while cropping; none while not. */
  shapes: { label: string; ratio: number }[]
  shape: number
}>()
const emit = defineEmits<{
  look: [look: Look]
  flip: [on: boolean]
  own: []
  amplify: []
  gain: []
  'true-shape': []
  shape: [ratio: number]
  fit: []
  scale: [scale: number]
  save: []
  crops: []
}>()

const own = useKeys()
const looks: { look: Look; key: string; title: string }[] = [
  {
    look: 'wipe',
    key: 'w',
    title: 'Source left of an edge, treated right of it; drag the edge, drag its ends to turn it',
  },
  { look: 'pair', key: 'e', title: 'Both beside each other, on the same spot' },
  { look: 'difference', key: 'd', title: 'What differs, made larger' },
  { look: 'source', key: 's', title: 'The source alone' },
  { look: 'treated', key: 'r', title: 'The treated picture alone' },
]
const stops = [1, 2, 4, 8]
</script>

<template>
  <div class="bar">
    <span class="chip figure">
      {{ place }}
      <v-btn
        variant="plain"
        class="bare save"
        title="Save this view as a picture with captions"
        @click="emit('save')"
      >
        save
      </v-btn>
      <v-btn
        variant="plain"
        class="bare save"
        title="Save the box that is kept, or else the first pin or the middle of this view, at 2:1, 4:1 and 8:1, source and treated beside each other"
        :disabled="cropping"
        @click="emit('crops')"
      >
        {{ cropping ? 'making…' : 'crops' }}
      </v-btn>
    </span>
    <div v-if="shapes.length > 0" class="chip looks" role="group" aria-label="Shape kept">
      <v-btn
        v-for="one in shapes"
        :key="one.label"
        class="bare"
        variant="plain"
        :aria-pressed="shape === one.ratio"
        @click="emit('shape', one.ratio)"
      >
        {{ one.label }}
      </v-btn>
    </div>
    <div v-else class="chip looks" role="group" aria-label="Ways to look">
      <v-btn
        v-for="one in looks"
        :key="one.look"
        class="bare"
        variant="plain"
        :aria-pressed="look === one.look"
        :title="own.withKey(one.title, one.key)"
        @click="emit('look', one.look)"
      >
        {{ one.look }}
      </v-btn>
      <v-btn
        v-if="look === 'difference'"
        variant="plain"
        class="bare figure"
        data-test="amplify"
        title="How many times larger the difference is shown"
        @click="emit('amplify')"
      >
        ×{{ amplify }}
      </v-btn>
      <v-btn
        class="bare"
        variant="plain"
        :aria-pressed="flipped"
        :title="own.withKey('Hold to see the source in place of the treated picture', 'f')"
        @pointerdown="emit('flip', true)"
        @pointerup="emit('flip', false)"
        @pointerleave="emit('flip', false)"
      >
        flip
      </v-btn>
      <v-btn
        class="bare"
        variant="plain"
        :aria-pressed="ownPixels"
        :disabled="sameSize || look === 'difference'"
        title="Show the source's own pixels instead of enlarging them plainly"
        @click="emit('own')"
      >
        own pixels
      </v-btn>
      <v-btn
        v-if="oblong"
        class="bare"
        variant="plain"
        :aria-pressed="trueShape"
        title="Show its pixels in the shape they are meant to be seen in; else each as a square"
        @click="emit('true-shape')"
      >
        true shape
      </v-btn>
      <v-btn
        class="bare"
        variant="plain"
        :class="{ lit: gain > 1 }"
        :aria-pressed="gain > 1"
        :title="own.withKey('Show it lighter, for looking only; nothing that is made changes', 'b')"
        data-test="gain"
        @click="emit('gain')"
      >
        light{{ gain > 1 ? ` ×${gain}` : '' }}
      </v-btn>
    </div>
    <div class="chip figure scales" role="group" aria-label="Scale">
      <span class="now" data-test="scale">{{ ratio(scale) }}</span>
      <v-btn
        class="bare"
        variant="plain"
        :aria-pressed="fitted"
        :title="
          own.withKey(
            'The treated frame, or the box that is kept, as large as it goes; again: all there is',
            '0',
          )
        "
        @click="emit('fit')"
      >
        fit
      </v-btn>
      <v-btn
        v-for="stop in stops"
        :key="stop"
        class="bare"
        variant="plain"
        :aria-pressed="!fitted && Math.abs(scale / stop - 1) < 0.002"
        @click="emit('scale', stop)"
      >
        {{ stop }}:1
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.bar {
  position: absolute;
  inset: auto 12px 12px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  justify-content: space-between;
  align-items: end;
  pointer-events: none;
}

.chip {
  background: rgb(16 16 16 / 86%);
  border-radius: 3px;
  padding: 5px 7px;
  pointer-events: auto;
  white-space: nowrap;
}

.looks,
.scales {
  display: flex;
  gap: 2px;
  padding: 3px;
  align-items: center;
}

.chip button {
  border: 0;
  background: none;
  padding: 3px 4px;
  border-radius: 2px;
  color: var(--quiet);
  font: 13px var(--sans);
  cursor: pointer;
}

.chip button.figure,
.scales button {
  font: 12px var(--mono);
  padding: 3px 3px;
}

.scales .now {
  color: var(--treated);
  padding: 0 6px 0 5px;
  min-width: 58px;
  text-align: right;
}

.chip button[aria-pressed='true'] {
  background: #3a3a3a;
  color: var(--ink);
}

.chip button.save {
  padding: 0 0 0 6px;
}

.chip button.lit {
  color: var(--treated);
}

.chip button:disabled {
  color: var(--faint);
  cursor: default;
}
</style>
