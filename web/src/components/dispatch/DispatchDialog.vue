<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  api,
  type CodecDescription,
  type DeliverableChoice,
  type PlanView,
  type PresetDescription,
  Problem,
  type TakeView,
  type TrialView,
} from '@/api/client'
import SegmentRow from '@/components/common/SegmentRow.vue'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'
import {
  hasSound,
  hasSubtitles,
  chosenOf,
  handlesOf,
  handleWords,
  nextAt,
  outputWords,
  planLine,
  presetOver,
  spanOf,
  takingOf,
  type Target,
  timeLine,
  withHandles,
} from '@/view/sending'
import { secondsLeft } from '@/view/renders'
import { bytes, length } from '@/view/words'
import OutputEditor from './OutputEditor.vue'

/** Says plainly what will be made before anything starts: of one take or of many, as one file each or as several. */
const props = defineProps<{ targets: Target[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ sent: [] }>()
const notices = useNotices()
const feed = useFeed()

/** Plans that are asked for at once where there are many clips. */
const PLANNED = 60
const USUAL: DeliverableChoice = { codec: 'h264', settings: {}, container: 'mp4', sound: 'kept' }

const codecs = ref<CodecDescription[]>([])
const presets = ref<PresetDescription[]>([])
const outputs = ref<DeliverableChoice[]>([{ ...USUAL }])
const active = ref(0)
const whole = ref(false)
/** Frames before and behind the span that go along. */
const typed = ref<number | string>(0)
const handles = computed(() => handlesOf(typed.value))
const pattern = ref('{clip} {take} {size}')
const later = ref(false)
const at = ref('22:00')
/** Of the active file, one for each take that was planned. */
const plans = ref<{ title: string; plan?: PlanView; problem?: string }[]>([])
const example = ref('')
const problem = ref('')
const busy = ref(false)

const one = computed(() => (props.targets.length === 1 ? props.targets[0] : undefined))
const output = computed({
  get: () => outputs.value[active.value] ?? USUAL,
  set: (next: DeliverableChoice) => outputs.value.splice(active.value, 1, next),
})
const label = computed(() => codecs.value.find((codec) => codec.id === output.value.codec)?.label ?? '')

async function readPresets() {
  presets.value = await api.presets().catch((error) => {
    notices.fail(error)
    return presets.value
  })
}
watch(open, async (isOpen) => {
  if (isOpen && codecs.value.length === 0) {
    codecs.value = await api.codecs().catch((error) => {
      notices.fail(error)
      return []
    })
    await readPresets()
    const first = presets.value.find((preset) => preset.isDefault)
    if (first) {
      outputs.value = [chosenOf(first)]
    }
  }
})

function follow(key: string) {
  const preset = presets.value.find((other) => other.key === key)
  if (preset) {
    output.value = presetOver(output.value, preset)
  }
}
function another() {
  const taken = outputs.value.map((now) => outputWords(now, presets.value, codecs.value))
  const next = presets.value.find((preset) => !taken.includes(preset.label))
  outputs.value.push(next ? chosenOf(next) : { ...USUAL })
  active.value = outputs.value.length - 1
}
function without(index: number) {
  outputs.value.splice(index, 1)
  active.value = Math.min(active.value, outputs.value.length - 1)
}

const marked = computed(() =>
  props.targets.some(({ take }) => take.inFrame !== undefined || take.outFrame !== undefined),
)
const plan = computed(() => plans.value.find((each) => each.plan)?.plan)
const totals = computed(() => {
  const known = plans.value.flatMap((each) => (each.plan ? [each.plan] : []))
  const sum = (of: (plan: PlanView) => number) => known.reduce((all, each) => all + of(each), 0)
  const times = known.map((each) => each.estimateSeconds)
  return {
    seconds: sum((each) => each.seconds),
    bytes: sum((each) => each.fileBytes),
    work: times.every((time) => time !== undefined) ? sum((each) => each.estimateSeconds ?? 0) : undefined,
  }
})
const refused = computed(() =>
  plans.value.flatMap((each) => {
    const said = [...(each.problem ? [each.problem] : []), ...(each.plan?.refusals ?? [])]
    return said.map((line) => (one.value ? line : `${each.title}: ${line}`))
  }),
)
const warned = computed(() => {
  const lines = new Map<string, string[]>()
  plans.value.forEach((each) =>
    each.plan?.warnings.forEach((line) => lines.set(line, [...(lines.get(line) ?? []), each.title])),
  )
  return [...lines].map(([line, titles]) =>
    one.value ? line : `${titles.length === 1 ? titles[0] : `${titles.length} clips`}: ${line}`,
  )
})
/** At the time that was told, or behind what waits already. */
const begins = computed(() => {
  const before = secondsLeft([...feed.renders.values()]) ?? 0
  return later.value ? nextAt(at.value) : new Date(Date.now() + 1000 * before)
})

/** Told by making a little of it, once nothing is changed any more. */
const trial = ref<TrialView>()
const isTrying = ref(false)
const PATIENCE_MS = 700
async function tryIt(signal: AbortSignal) {
  const target = one.value
  const known = plan.value
  if (!target || !known || known.refusals.length > 0 || known.waiting.length > 0) {
    return
  }
  await new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))
  if (signal.aborted) {
    return
  }
  isTrying.value = true
  const request = { recipe: target.recipe, deliverable: output.value, ...marksOf(target.take) }
  const found = await api.trial(target.take.clipId, request, signal).catch(() => undefined)
  if (!signal.aborted) {
    trial.value = found
    isTrying.value = false
  }
}
function marksOf(take: TakeView) {
  return whole.value ? {} : withHandles(take, handles.value, framesOf(take))
}
const framesOf = (take: TakeView) => feed.clips.get(take.clipId)?.frames ?? Infinity
/** How far the handles of the one clip reach where it ends before them. */
const reach = computed(() => {
  const take = one.value?.take
  return take && handles.value > 0 ? handleWords(take, handles.value, framesOf(take)) : ''
})

/** What qualities can be tried on: one clip, of which all is known. */
const tried = computed(() => {
  const target = one.value
  const known = plan.value
  return target && known && known.refusals.length === 0 && known.waiting.length === 0
    ? { clip: target.take.clipId, request: { recipe: target.recipe, ...marksOf(target.take) } }
    : undefined
})

let asked: AbortController | undefined
watch(
  () => [open.value, output.value, whole.value, handles.value, props.targets] as const,
  async ([isOpen]) => {
    asked?.abort()
    trial.value = undefined
    isTrying.value = false
    if (!isOpen) {
      return
    }
    const mine = new AbortController()
    asked = mine
    problem.value = ''
    const found: typeof plans.value = []
    for (const { take, recipe, title } of props.targets.slice(0, PLANNED)) {
      try {
        const request = { recipe, deliverable: output.value, ...marksOf(take) }
        found.push({ title, plan: await api.plan(take.clipId, request, mine.signal) })
      } catch (error) {
        if (mine.signal.aborted) {
          return
        }
        found.push({ title, problem: error instanceof Problem ? error.message : String(error) })
      }
    }
    plans.value = found
    void tryIt(mine.signal)
  },
)
let namedFor: AbortController | undefined
watch(
  () => [open.value, output.value, whole.value, pattern.value, props.targets] as const,
  async ([isOpen]) => {
    const first = props.targets[0]
    namedFor?.abort()
    if (!isOpen || !first) {
      return
    }
    namedFor = new AbortController()
    const request = {
      takeId: first.take.id,
      deliverable: output.value,
      wholeClip: whole.value,
      pattern: pattern.value,
    }
    const said = await api.nameOf(request, namedFor.signal).catch((error: unknown) => error)
    if (said instanceof Problem) {
      example.value = said.message
    } else if (said && typeof said === 'object' && 'fileName' in said) {
      example.value = String(said.fileName)
    }
  },
)

async function send() {
  busy.value = true
  try {
    const files = props.targets.length * outputs.value.length
    await api.order({
      takes: props.targets.map(({ take }) => ({
        takeId: take.id,
        wholeClip: whole.value,
        ...(whole.value || handles.value === 0 ? {} : { handles: handles.value }),
      })),
      deliverables: outputs.value,
      pattern: pattern.value,
      ...(later.value ? { notBefore: nextAt(at.value).toISOString() } : {}),
      ...(one.value ? {} : { name: `${props.targets.length} clips` }),
    })
    open.value = false
    notices.say(files === 1 ? 'Sent to Dispatch' : `${files} files sent to Dispatch`)
    emit('sent')
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : 'it could not be ordered; try again'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Dispatch" max-width="760">
    <v-card class="card">
      <h2 v-if="one">Send out {{ one.title }}, take {{ one.take.name }}</h2>
      <h2 v-else>Send out {{ targets.length }} clips</h2>
      <p class="span" data-test="dispatch-span">
        <template v-if="one">
          Sends <b :class="{ treated: plan && !plan.wholeClip }">{{ plan ? spanOf(plan) : '' }}</b>.
        </template>
        <template v-else>
          Sends
          <b
            >{{ length(totals.seconds) }} of {{ plans.length }} clips{{
              targets.length > plans.length && plans.length > 0
                ? `, and ${targets.length - plans.length} more`
                : ''
            }}</b
          >, each by its own take.
        </template>
        <v-btn v-if="marked" class="link treated" variant="plain" @click="whole = !whole">
          {{ whole ? 'Send only the marked span' : 'Send the whole clip' }}
        </v-btn>
        <label v-if="marked && !whole" class="handles">
          and
          <input
            v-model.number="typed"
            type="number"
            min="0"
            max="1000"
            step="1"
            aria-label="Handles"
            data-test="handles"
          />
          frames of handles on each side{{ reach }}
        </label>
      </p>
      <div class="outputs">
        <SegmentRow
          v-if="outputs.length > 1"
          label="Files of each"
          :options="outputs.map((now, id) => ({ id, label: outputWords(now, presets, codecs) }))"
          :chosen="active"
          @choose="(index) => (active = index)"
        />
        <v-btn
          class="link"
          variant="plain"
          title="Made of the same treatment, at once"
          data-test="another"
          @click="another"
        >
          Another file as well
        </v-btn>
        <v-btn v-if="outputs.length > 1" class="link" variant="plain" @click="without(active)">
          Leave this one out
        </v-btn>
      </div>
      <OutputEditor
        v-if="codecs.length > 0"
        v-model="output"
        :codecs="codecs"
        :presets="presets"
        :has-sound="hasSound(targets, feed.clips)"
        :has-subtitles="hasSubtitles(targets, feed.clips)"
        :is-stretched="(plan?.steps.at(-1)?.speed ?? 1) !== 1"
        :trial="tried"
        @presets="readPresets"
      />
      <div class="names">
        <v-text-field
          v-model="pattern"
          label="Name"
          title="{clip} {take} {size} {lines} {rate} {codec} {depth} {date} {number}"
          :hint="example"
          persistent-hint
        />
        <v-checkbox
          v-model="later"
          label="Begin at"
          density="compact"
          hide-details
          color="primary"
          data-test="later"
        />
        <v-text-field v-model="at" class="time" type="time" aria-label="Begins at" :disabled="!later" />
      </div>
      <p v-if="plan && one" class="figure plan" data-test="plan">
        {{ planLine(plan, label, trial?.fileBytes, takingOf(output, codecs)) }} ·
        {{ isTrying ? 'trying a few frames…' : timeLine(trial?.seconds ?? plan.estimateSeconds, begins) }} ·
        {{ bytes(plan.memoryBytes) }} of memory
      </p>
      <p v-else-if="plan" class="figure plan" data-test="plan">
        roughly {{ bytes(totals.bytes) }} as {{ outputWords(output, presets, codecs) }} ·
        {{ timeLine(totals.work, begins) }}
      </p>
      <p v-if="plan?.advice && one" data-test="advice">
        {{ plan.advice.why }}.
        <v-btn class="link" variant="plain" @click="follow(plan.advice.preset)">{{
          plan.advice.label
        }}</v-btn>
      </p>
      <p v-for="line in warned" :key="line" class="treated">{{ line }}</p>
      <p v-for="line in refused" :key="line" class="fault" role="alert">{{ line }}</p>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
      <div class="buttons">
        <v-btn @click="open = false">Not yet</v-btn>
        <v-btn
          color="primary"
          variant="flat"
          :disabled="busy || !plan || refused.length > 0"
          data-test="send"
          @click="send"
        >
          {{ later ? 'Send out then' : 'Send out' }}
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 18px 24px;
  display: grid;
  grid-auto-rows: max-content;
  gap: 11px;
  overflow-y: auto;
}

.span,
.plan {
  margin: 0;
}

.handles {
  white-space: nowrap;
}

.handles input {
  width: 5ch;
  border-bottom: 1px solid var(--rule);
  text-align: right;
}

.outputs {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--rule);
}

.names {
  display: grid;
  grid-template-columns: 1fr auto 110px;
  gap: 14px;
  align-items: start;
}

.card > p {
  margin: 0;
}

.buttons {
  display: flex;
  justify-content: end;
  gap: 8px;
}
</style>
