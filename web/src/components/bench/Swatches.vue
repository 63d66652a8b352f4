<script setup lang="ts">
import { computed } from 'vue'
import Loupe from '@/components/common/Loupe.vue'
import { clamp, inSource, type Point, type Size } from '@/view/glass'
import { withStep } from '@/view/recipe'
import type { Sides } from '@/view/sides'
import { shortSpeed, type Swatch, type SwatchRow } from '@/view/swatches'

/** The same spot under every treatment that can be chosen, pixel for pixel. */
const props = defineProps<{
  rows: SwatchRow[]
  model: string
  mode: string
  suggestion: { model: string; reason: string } | undefined
  /** What is shown; none while there is no plan yet. */
  look: { clip: string; sides: Sides; index: number; frame: number; spot: Point; named: string } | undefined
  /** What reaches the step. */
  picture: Size
}>()
const emit = defineEmits<{ choose: [swatch: Swatch] }>()

/** Of one swatch, CSS pixels. */
const SIZE = { width: 76, height: 56 }

/** The part of the source whose treated pixels fill a swatch one to one. */
const pin = computed(() => {
  const look = props.look
  if (!look) {
    return undefined
  }
  const { source, treated, placement } = look.sides
  // not where a crop or a frame of another shape left nothing
  const kept = inSource(source, treated, placement)
  const inside = (at: number, size: number, from: number, length: number, all: number) => {
    const low = Math.max(0, from)
    const high = Math.min(all, from + length)
    return clamp(at - size / 2, low, Math.max(low, high - size))
  }
  const width = Math.min(source.width, (SIZE.width * devicePixelRatio * source.width) / placement.width)
  const height = Math.min(source.height, (SIZE.height * devicePixelRatio * source.height) / placement.height)
  return {
    id: 'spot',
    clipId: look.clip,
    frame: look.frame,
    name: look.named,
    x: inside(look.spot.x, width, kept.x, kept.width, source.width),
    y: inside(look.spot.y, height, kept.y, kept.height, source.height),
    width,
    height,
  }
})

/** The suggested kind first: what is seen at once; each swatch with what it shows. */
const ordered = computed(() => {
  const { look } = props
  const sidesOf = (swatch: Swatch): Sides | undefined =>
    look && { ...look.sides, held: look.index, recipe: withStep(look.sides.recipe, look.index, swatch.step) }
  const first = props.rows.filter((row) => row.model === props.suggestion?.model)
  return [...first, ...props.rows.filter((row) => !first.includes(row))].map((row) => ({
    ...row,
    swatches: row.swatches.map((swatch) => ({ swatch, sides: sidesOf(swatch) })),
  }))
})

const isChosen = (swatch: Swatch) =>
  swatch.model === props.model && (swatch.model === 'none' || swatch.mode === props.mode)
const title = (row: Pick<SwatchRow, 'purpose'>, swatch: Swatch) =>
  [`${row.purpose}; ${swatch.effect}`, swatch.gain].filter((one) => one !== '').join('. ')
</script>

<template>
  <div role="radiogroup" aria-label="Treatment" class="rows">
    <div v-for="row in ordered" :key="row.model" class="row" :data-test="`row-${row.model}`">
      <div class="head label">
        {{ row.label }}
        <span v-if="suggestion?.model === row.model" class="treated">suggested: {{ suggestion.reason }}</span>
      </div>
      <div class="swatches">
        <v-btn
          v-for="{ swatch, sides } in row.swatches"
          :key="swatch.mode"
          variant="plain"
          role="radio"
          class="bare swatch"
          :class="{ on: isChosen(swatch) }"
          :aria-checked="isChosen(swatch)"
          :aria-label="`${row.label}, ${swatch.label}`"
          :title="title(row, swatch)"
          :data-test="`swatch-${swatch.model}-${swatch.mode}`"
          @click="emit('choose', swatch)"
        >
          <span class="look">
            <Loupe
              v-if="pin && sides"
              :pin="pin"
              :sides="sides"
              side="treated"
              :viewer="`swatch-${swatch.model}-${swatch.mode}`"
              :label="`${row.label}, ${swatch.label}`"
              quiet
            />
            <span v-if="swatch.speed" class="figure speed">{{ shortSpeed(swatch.speed, picture) }}</span>
          </span>
          <span class="told">{{ swatch.label }}</span>
        </v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  gap: 6px;
}

.head {
  line-height: 1.3;
}

.swatches {
  display: grid;
  grid-template-columns: repeat(3, 76px);
  gap: 4px;
  margin-top: 2px;
}

.swatch {
  display: grid;
  min-width: 0;
  padding: 0;
  border: 0;
  background: none;
  color: var(--quiet);
  text-align: left;
  cursor: pointer;
}

.look {
  position: relative;
  height: 56px;
  background: var(--ground);
  outline: 1px solid transparent;
}

.look > :deep(.loupe) {
  height: 100%;
  border: 0;
}

.swatch:hover .look {
  outline-color: var(--faint);
}

.swatch.on .look {
  outline: 2px solid var(--treated);
}

.swatch.on .told {
  color: var(--ink);
}

.told {
  overflow: hidden;
  font: 11px/1.5 var(--label);
  text-overflow: ellipsis;
  white-space: nowrap;
}

.speed {
  position: absolute;
  left: 0;
  bottom: 0;
  padding: 0 3px;
  background: rgb(16 16 16 / 80%);
  color: var(--ink);
  font-size: 10px;
}
</style>
