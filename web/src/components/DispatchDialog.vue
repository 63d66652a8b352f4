<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type DeliverableChoice, type PlanView, Problem, type Recipe, type TakeView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { bytes, wait } from '@/view/words'

/** Says plainly what will be made before anything starts. */
const props = defineProps<{ take: TakeView; recipe: Recipe; clipTitle: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ sent: [] }>()
const notices = useNotices()

const codec = ref('h264')
const quality = ref(17)
const sound = ref(true)
const whole = ref(false)
const plan = ref<PlanView>()
const problem = ref('')
const busy = ref(false)

const codecs = [
  { title: 'H.264 in MP4: plays nearly everywhere', value: 'h264' },
  { title: 'FFV1 in MKV: lossless, for further work', value: 'ffv1' },
]
/** Eight bits where the user wants them; otherwise as many as the picture has and the codec holds. */
const eight = ref(false)
/** Bits of the file when nobody asks for fewer. */
const kept = ref(8)
const marked = computed(() => props.take.inFrame !== undefined || props.take.outFrame !== undefined)
const deliverable = computed<DeliverableChoice>(() => ({
  codec: codec.value,
  quality: quality.value,
  depth: eight.value ? 8 : 0,
  gop: 48,
  sound: sound.value,
}))
const qualityWords = computed(() =>
  quality.value <= 14
    ? 'near lossless'
    : quality.value <= 19
      ? 'very fine'
      : quality.value <= 24
        ? 'fine'
        : 'small',
)
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
      kept.value = eight.value ? kept.value : plan.value.depth
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
        <button v-if="marked" class="link treated" type="button" @click="whole = !whole">
          {{ whole ? 'Send only the marked span' : 'Send the whole clip' }}
        </button>
      </p>
      <v-select v-model="codec" :items="codecs" label="Codec and container" />
      <div v-if="codec === 'h264'" class="quality">
        <span class="label">Quality</span>
        <v-slider
          v-model="quality"
          :min="10"
          :max="30"
          :step="1"
          aria-label="Quality, constant rate factor"
        />
        <span class="figure">CRF {{ quality }}, {{ qualityWords }}</span>
      </div>
      <div v-if="kept > 8" class="quality depth">
        <span class="label">Depth</span>
        <span class="segments" role="group" aria-label="Depth">
          <button type="button" :aria-pressed="!eight" @click="eight = false">{{ kept }} bit</button>
          <button type="button" :aria-pressed="eight" data-test="eight" @click="eight = true">8 bit</button>
        </span>
      </div>
      <v-checkbox
        v-model="sound"
        label="Sound passed through"
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
        <button class="button" type="button" @click="open = false">Not yet</button>
        <button
          class="button go"
          type="button"
          :disabled="busy || !plan || plan.refusals.length > 0"
          data-test="send"
          @click="send"
        >
          Send out
        </button>
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

.quality {
  display: grid;
  grid-template-columns: auto 1fr 150px;
  gap: 12px;
  align-items: center;
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
