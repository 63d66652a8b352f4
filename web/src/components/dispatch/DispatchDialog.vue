<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import {
  api,
  type CodecDescription,
  type DeliverableChoice,
  type PlanView,
  type PresetDescription,
  Problem,
  type Recipe,
  type TakeView,
} from '@/api/client'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'
import { bytes, wait } from '@/view/words'
import CodecControls from './CodecControls.vue'

/** Says plainly what will be made before anything starts. */
const props = defineProps<{ take: TakeView; recipe: Recipe; clipTitle: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ sent: [] }>()
const notices = useNotices()

const codecs = ref<CodecDescription[]>([])
const presets = ref<PresetDescription[]>([])
const codec = ref('h264')
/** What was set, by codec: going to another and back forgets nothing. */
const set = ref<Record<string, Record<string, unknown>>>({})
const sound = ref(true)
const whole = ref(false)
const plan = ref<PlanView>()
const problem = ref('')
const busy = ref(false)

const chosen = computed(() => codecs.value.find((one) => one.id === codec.value))
const choices = computed(() =>
  codecs.value.map((one) => ({
    title: `${one.label} in ${one.containers[0]}: ${one.purpose}`,
    value: one.id,
  })),
)
watch(open, async (isOpen) => {
  if (isOpen && codecs.value.length === 0) {
    const both = await Promise.all([api.codecs(), api.presets()]).catch((error) => {
      notices.fail(error)
      return undefined
    })
    codecs.value = both?.[0] ?? []
    presets.value = both?.[1] ?? []
  }
})
/** What is set says it; nothing else remembers that a purpose was chosen. */
function isChosen(preset: PresetDescription): boolean {
  const now = set.value[codec.value] ?? {}
  const keys = new Set([...Object.keys(now), ...Object.keys(preset.settings)])
  return (
    preset.codec === codec.value &&
    [...keys].every((key) => String(now[key]) === String(preset.settings[key]))
  )
}

function choose(preset: PresetDescription) {
  codec.value = preset.codec
  set.value[preset.codec] = { ...preset.settings }
}
const purpose = computed(() => presets.value.find(isChosen)?.purpose ?? 'as you set it')
const feed = useFeed()
const hasSound = computed(() => (feed.clips.get(props.take.clipId)?.facts?.sound.length ?? 1) > 0)
const soundWords = computed(() =>
  (plan.value?.steps.at(-1)?.speed ?? 1) === 1
    ? 'Sound goes along'
    : 'Sound goes along, stretched to the picture at its pitch',
)
const marked = computed(() => props.take.inFrame !== undefined || props.take.outFrame !== undefined)
const deliverable = computed<DeliverableChoice>(() => ({
  codec: codec.value,
  settings: set.value[codec.value] ?? {},
  sound: sound.value && hasSound.value,
}))
const span = computed(() => {
  const now = plan.value
  if (!now) {
    return ''
  }
  return now.wholeClip
    ? `the whole clip, ${now.seconds.toFixed(1)} s, ${now.frames} frames`
    : `${now.seconds.toFixed(1)} s of ${now.clipSeconds.toFixed(1)} s (in/out set), ${now.frames} frames`
})

let asked: AbortController | undefined
watch(
  () => [open.value, deliverable.value, whole.value, props.take.version] as const,
  async ([isOpen]) => {
    if (!isOpen) {
      return
    }
    asked?.abort()
    asked = new AbortController()
    problem.value = ''
    const { inFrame, outFrame } = props.take
    const marks = whole.value
      ? {}
      : { ...(inFrame === undefined ? {} : { inFrame }), ...(outFrame === undefined ? {} : { outFrame }) }
    try {
      plan.value = await api.plan(
        props.take.clipId,
        { recipe: props.recipe, deliverable: deliverable.value, ...marks },
        asked.signal,
      )
    } catch (error) {
      if (error instanceof Problem) {
        problem.value = error.message
        plan.value = undefined
      }
    }
  },
)

async function send() {
  busy.value = true
  try {
    await api.order({ takeId: props.take.id, deliverable: deliverable.value, wholeClip: whole.value })
    open.value = false
    notices.say('Sent to Dispatch')
    emit('sent')
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : 'it could not be ordered; try again'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Dispatch">
    <v-card class="card">
      <h2>Send out {{ clipTitle }}, take {{ take.name }}</h2>
      <p class="span" data-test="dispatch-span">
        Sends <b>{{ span }}</b>.
        <v-btn v-if="marked" class="link treated" variant="plain" @click="whole = !whole">
          {{ whole ? 'Send only the marked span' : 'Send the whole clip' }}
        </v-btn>
      </p>
      <div v-if="presets.length > 0" class="presets">
        <span class="segments" role="group" aria-label="What it is for">
          <v-btn
            v-for="one in presets"
            :key="one.id"
            class="bare"
            variant="plain"
            :aria-pressed="isChosen(one)"
            :title="one.purpose"
            :data-test="`preset-${one.id}`"
            @click="choose(one)"
          >
            {{ one.label }}
          </v-btn>
        </span>
        <span class="purpose">{{ purpose }}</span>
      </div>
      <v-select v-model="codec" :items="choices" label="Codec and container" />
      <CodecControls
        v-if="chosen"
        :codec="chosen"
        :settings="set[codec] ?? {}"
        @change="(settings) => (set[codec] = settings)"
      />
      <v-checkbox
        v-if="hasSound"
        v-model="sound"
        :label="soundWords"
        density="compact"
        hide-details
        color="primary"
      />
      <dl v-if="plan" class="figure">
        <dt>picture</dt>
        <dd>
          {{ plan.width }}×{{ plan.height }} · {{ plan.depth }} bit<template v-if="plan.sar !== '1'">
            · pixels {{ plan.sar.replace('/', ':') }}</template
          >
        </dd>
        <dt>file</dt>
        <dd>about {{ bytes(plan.fileBytes) }}</dd>
        <dt>time</dt>
        <dd>
          {{
            plan.estimateSeconds === undefined
              ? 'told once the first frames are done'
              : `about ${wait(plan.estimateSeconds)}, by the last render here`
          }}
        </dd>
        <dt>memory</dt>
        <dd>{{ bytes(plan.memoryBytes) }}</dd>
      </dl>
      <p v-for="line in plan?.warnings" :key="line" class="treated">{{ line }}</p>
      <p v-for="line in plan?.refusals" :key="line" class="fault" role="alert">{{ line }}</p>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
      <div class="buttons">
        <v-btn @click="open = false">Not yet</v-btn>
        <v-btn
          color="primary"
          variant="flat"
          :disabled="busy || !plan || plan.refusals.length > 0"
          data-test="send"
          @click="send"
        >
          Send out
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 20px 24px;
  display: grid;
  gap: 14px;
}

.span {
  margin: 0;
}

.presets {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}

.purpose {
  color: var(--quiet);
}

dl {
  display: grid;
  grid-template-columns: 70px 1fr;
  gap: 3px 12px;
  margin: 0;
}

dt {
  color: var(--faint);
}

dd {
  margin: 0;
}

.buttons {
  display: flex;
  justify-content: end;
  gap: 8px;
}
</style>
