<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { ClipView, PinView, Recipe, TakeView } from '@/api/client'
import { useClipTakes } from '@/stores/useClipTakes'
import { useNotices } from '@/stores/notices'
import { usePins } from '@/stores/usePins'
import { usePlans } from '@/stores/usePlans'
import { useStepKinds } from '@/stores/useStepKinds'
import { useSheet } from '@/stores/useSheet'
import { shuffled } from '@/view/blind'
import { drawSheet, saveAs } from '@/view/sheetPicture'
import { takeLines } from '@/view/sheetWords'
import { useBenchKeys } from '@/view/useBenchKeys'
import Loupe from '@/components/common/Loupe.vue'
import SheetFigures from './SheetFigures.vue'
import SheetReference from './SheetReference.vue'
import SheetSide from './SheetSide.vue'
import DispatchDialog from '@/components/dispatch/DispatchDialog.vue'
import VaryDialog from '@/components/common/VaryDialog.vue'
import KeyHint from '@/components/common/KeyHint.vue'

/** Takes down, pins across: the same pixels of each, the source first. */
const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()
const router = useRouter()
const takes = useClipTakes(props.clip.id, notices.fail)
const pins = usePins(props.clip.id, notices.fail)
const planOf = usePlans(props.clip.id)
const middle = Math.floor((props.clip.frames ?? 1) / 2)
const { rows, again, see } = useSheet(props.clip.id, takes.open, pins.pins, middle, planOf)

const kinds = useStepKinds(notices.fail)
const loaded = ref(false)
/** Takes in an order nobody chose, while names and figures are hidden. */
const blind = ref<string[]>()
const chosen = ref(0)
const varying = ref(false)
const searching = ref(false)
const table = ref<HTMLElement>()

const all = computed(() => pins.pins.value)
const shown = computed(() => {
  const order = blind.value
  return order ? order.flatMap((id) => takes.open.value.filter((one) => one.id === id)) : takes.open.value
})
const first = computed(() => shown.value.map((one) => rows.get(one.id)).find((row) => row?.sides))
const sourceFigures = computed(() =>
  shown.value.map((one) => rows.get(one.id)?.figures?.source).find((one) => one !== undefined),
)
const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`
const title = computed(() => `${count(takes.open.value.length, 'take')} at ${count(all.value.length, 'pin')}`)
const current = computed(() => shown.value[Math.max(0, Math.min(chosen.value, shown.value.length - 1))])

/** Long sheets measure only what is in sight. */
const sight = new IntersectionObserver((entries) => {
  for (const entry of entries) {
    if (entry.isIntersecting) {
      see((entry.target as HTMLElement).dataset['take'] ?? '')
    }
  }
})
onBeforeUnmount(() => sight.disconnect())
watch(shown, () => table.value?.querySelectorAll('[data-take]').forEach((row) => sight.observe(row)), {
  flush: 'post',
})

onMounted(async () => {
  await Promise.all([takes.load(), pins.load()])
  loaded.value = true
})

function name(take: TakeView, index: number): string {
  return blind.value ? `Take ?${index + 1}` : `Take ${take.name}`
}

function toggleBlind() {
  blind.value = blind.value ? undefined : shuffled(takes.open.value.map((one) => one.id))
}

async function keep(take: TakeView) {
  // the names may be hidden while the answer is on its way
  const unseen = blind.value !== undefined
  const kept = take.verdict === 'KEPT' && !unseen
  await takes.label(take.id, { verdict: kept ? 'OPEN' : 'KEPT' })
  if (unseen) {
    blind.value = undefined
    chosen.value = takes.open.value.findIndex((one) => one.id === take.id)
    notices.say(`You chose take ${take.name}.`)
  }
}

function discard(take: TakeView) {
  if (takes.open.value.length > 1) {
    void takes.label(take.id, { verdict: 'DISCARDED' })
  } else {
    notices.say('This is the last take; a clip keeps at least one.')
  }
}

const sending = shallowRef<TakeView>()
const isSending = ref(false)
function send(take: TakeView) {
  sending.value = take
  isSending.value = true
}

function toBench(take: TakeView, pin?: PinView) {
  const query = { take: take.id, ...(pin ? { pin: pin.id, frame: String(pin.frame) } : {}) }
  void router.push({ path: `/bench/${props.clip.id}`, query })
}

async function suggest() {
  const take = takes.open.value[0]
  const source = first.value?.sides?.source
  if (take && source) {
    searching.value = true
    await pins.suggest(take.recipe as unknown as Recipe, middle, source)
    searching.value = false
  }
}

async function vary(made: { name: string; recipe: Recipe }[]) {
  await takes.add(made, current.value?.id)
}

async function save() {
  const cells = (row: string) =>
    all.value.map(
      (pin) =>
        table.value?.querySelector<HTMLCanvasElement>(`[data-cell="${row}/${pin.id}"] canvas`) ?? undefined,
    )
  const picture = drawSheet({
    title: `${props.clip.title}: ${title.value}`,
    columns: all.value.map((pin, i) => `${i + 1} ${pin.name}`),
    rows: [
      {
        name: 'Source',
        lines: takeLines(undefined, sourceFigures.value, true),
        source: true,
        cells: cells('source'),
      },
      ...shown.value.map((take, i) => ({
        name: name(take, i),
        lines: blind.value ? [] : takeLines(rows.get(take.id), undefined, false),
        source: false,
        cells: cells(take.id),
      })),
    ],
  })
  await saveAs(picture, `${props.clip.title} sheet.png`)
}

useBenchKeys(
  () => ({
    undo: () => {},
    redo: () => {},
    up: {},
    down: {
      ArrowDown: () => (chosen.value = Math.max(0, Math.min(shown.value.length - 1, chosen.value + 1))),
      ArrowUp: () => (chosen.value = Math.max(0, chosen.value - 1)),
      k: () => current.value && void keep(current.value),
      d: () => current.value && !blind.value && discard(current.value),
      b: toggleBlind,
      P: () => void suggest(),
      v: () => (varying.value = true),
      Enter: () => current.value && toBench(current.value),
      g: () => current.value && toBench(current.value),
    },
  }),
  () => loaded.value,
)
</script>

<template>
  <div class="sheet">
    <div class="head">
      <h1>{{ loaded ? title : 'Proof sheet' }}</h1>
      <span class="label">each cell the same pixels, source first</span>
      <span class="end">
        <SheetReference :clip="clip" @changed="again" />
        <v-btn :aria-pressed="blind !== undefined" @click="toggleBlind">
          {{ blind ? 'Show names' : 'Hide names and shuffle' }} <KeyHint of="b" />
        </v-btn>
        <v-btn :disabled="!current" @click="varying = true"> Vary a setting… <KeyHint of="v" /> </v-btn>
        <v-btn :disabled="all.length === 0" @click="save"> Save as picture </v-btn>
      </span>
    </div>
    <p v-if="loaded && all.length === 0" class="none">
      There are no pins yet. Pin the places that matter on the bench (P, or Shift and drag), or
      <v-btn :disabled="searching" @click="suggest">
        {{ searching ? 'Looking…' : 'let telling places be suggested' }}
      </v-btn>
    </p>
    <div ref="table" class="table" :style="{ '--pins': Math.max(1, all.length), '--rows': shown.length + 1 }">
      <div class="row names">
        <span></span>
        <span v-for="(pin, i) in all" :key="pin.id" class="label">
          {{ i + 1 }} {{ pin.name }} <span class="faint">frame {{ pin.frame }}</span>
        </span>
      </div>
      <div v-if="first?.sides" class="row">
        <div class="side is-source">
          <b>Source</b>
          <span class="label">enlarged plainly</span>
          <SheetFigures :row="undefined" :source="sourceFigures" is-source />
        </div>
        <div v-for="pin in all" :key="pin.id" class="cell" :data-cell="`source/${pin.id}`">
          <Loupe
            :pin="pin"
            :sides="first.sides"
            side="source"
            :viewer="`sheet-source-${pin.id}`"
            :label="`${pin.name}, source`"
            @failed="notices.fail"
          />
        </div>
      </div>
      <div
        v-for="(take, i) in shown"
        :key="take.id"
        class="row"
        :class="{ on: i === chosen, kept: take.verdict === 'KEPT' && !blind }"
        data-test="take"
        :data-take="take.id"
        @click="chosen = i"
      >
        <SheetSide
          class="side"
          :take="take"
          :name="name(take, i)"
          :blind="blind !== undefined"
          :current="i === chosen"
          :row="rows.get(take.id)"
          :kinds="kinds"
          :pins="all"
          @keep="keep(take)"
          @bench="toBench(take)"
          @send="send(take)"
          @discard="discard(take)"
          @rename="(next) => takes.label(take.id, { name: next })"
        />
        <v-btn
          v-for="pin in all"
          :key="pin.id"
          variant="plain"
          class="bare cell"
          :data-cell="`${take.id}/${pin.id}`"
          :aria-label="`${name(take, i)} at ${pin.name}, on the bench`"
          @click.stop="toBench(take, pin)"
        >
          <Loupe
            v-if="rows.get(take.id)?.sides"
            :pin="pin"
            :sides="rows.get(take.id)!.sides!"
            side="treated"
            :viewer="`sheet-${take.id}-${pin.id}`"
            :label="`${pin.name}, ${name(take, i)}`"
            @failed="notices.fail"
          />
        </v-btn>
      </div>
    </div>
    <p v-if="takes.discarded.value.length > 0" class="label gone">
      Discarded:
      <v-btn
        v-for="take in takes.discarded.value"
        :key="take.id"
        class="link"
        variant="plain"
        title="Take it back"
        @click="takes.label(take.id, { verdict: 'OPEN' })"
      >
        {{ take.name }}
      </v-btn>
    </p>
    <DispatchDialog
      v-if="sending"
      v-model="isSending"
      :targets="[{ take: sending, recipe: sending.recipe as unknown as Recipe, title: clip.title }]"
    />
    <VaryDialog
      v-if="current"
      v-model="varying"
      :recipe="current.recipe as unknown as Recipe"
      :kinds="kinds"
      :take-name="current.name"
      @make="vary"
    />
  </div>
</template>

<style scoped>
.sheet {
  display: flex;
  flex-direction: column;
  height: calc(100vh - 44px);
  padding: 12px 20px;
  min-height: 0;
}

.head {
  display: flex;
  align-items: center;
  gap: 14px;
}

h1 {
  font: 600 20px var(--label);
  margin: 0;
}

.end {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 8px;
}

.none {
  margin: 24px 0;
}

.table {
  flex: 1;
  overflow: auto;
  min-height: 0;
  margin-top: 6px;
}

.row {
  display: grid;
  grid-template: minmax(0, 1fr) / 236px repeat(var(--pins), minmax(170px, 1fr));
  gap: 8px;
  margin-bottom: 8px;
  height: max(184px, (100vh - 150px) / var(--rows) - 8px);
  max-height: 420px;
}

.row.names {
  position: sticky;
  top: 0;
  z-index: 1;
  height: auto;
  grid-template-rows: auto;
  background: var(--ground);
  padding: 2px 0;
  margin-bottom: 2px;
}

.side {
  display: flex;
  flex-direction: column;
  min-width: 0;
  padding: 2px 8px 2px 12px;
  border-left: 3px solid var(--treated);
  overflow: hidden auto;
}

.is-source {
  border-color: var(--source);
}

b {
  font: 600 15px var(--label);
}

.cell {
  display: block;
  min-width: 0;
  padding: 0;
  border: 1px solid transparent;
  background: none;
  cursor: pointer;
}

.cell :deep(.loupe) {
  height: 100%;
  border: 0;
}

.row.on .side {
  background: var(--raised);
}

.row.kept .cell {
  border-color: var(--treated);
}

.gone .link {
  margin-left: 8px;
}
</style>
