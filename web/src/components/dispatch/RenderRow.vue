<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type RenderView } from '@/api/client'
import NameField from '@/components/common/NameField.vue'
import { useNotices } from '@/stores/notices'
import { bytes, rate, spanLine, wait } from '@/view/words'

const props = defineProps<{
  render: RenderView
  /** Whether another waits before it. */
  hasBefore?: boolean
}>()
const notices = useNotices()

const share = computed(() => props.render.framesDone / Math.max(1, props.render.frames))
const made = computed(() => {
  const result = props.render.result
  const isSound = props.render.deliverable.codec === 'sound'
  if (!result) {
    const container = String(props.render.deliverable.container ?? '').toUpperCase()
    if (isSound) {
      return `${props.render.codec} in ${container}`
    }
    return `${props.render.width}×${props.render.height} · ${props.render.codec} in ${container}`
  }
  if (isSound) {
    return `Sound alone · ${result.sound.join(', ')} · ${result.seconds.toFixed(1)} s`
  }
  if (result.frames === 1) {
    return `${result.width}×${result.height} · ${result.codec} · one picture`
  }
  return [
    `${result.width}×${result.height}`,
    `${rate(result.ratePerSecond)}p`,
    result.codec,
    `${result.frames} frames`,
    `${result.seconds.toFixed(1)} s`,
  ].join(' · ')
})
const running = computed(() => {
  const before = props.render.before
  if (before) {
    return before.frames > 0 ? `${before.doing}, frame ${before.frames}` : before.doing
  }
  const live = props.render.live
  const parts = [`frame ${props.render.framesDone} of ${props.render.frames}`]
  if (live) {
    parts.push(`${live.framesASecond.toFixed(1)} fps on ${live.on}`)
    if (live.elsewhere > 0) {
      parts.push(`${live.elsewhere} from other machines`)
    }
  }
  return parts.join(' · ')
})
const shares = computed(() => {
  const live = props.render.live
  const percent = (value: number) => Math.round(100 * value)
  return live
    ? `decode ${percent(live.decode)} % treat ${percent(live.treat)} % encode ${percent(live.encode)} %`
    : ''
})
const waits = computed(() => {
  const { notBefore, framesDone, state } = props.render
  const done = framesDone > 0 ? `; ${framesDone} frames are done already` : ''
  if (state === 'PAUSED') {
    return `rests${done}`
  }
  const at = notBefore ? new Date(notBefore) : undefined
  return at && at > new Date()
    ? `begins at ${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}${done}`
    : `waits its turn${done}`
})
const checks = computed(() => {
  const result = props.render.result
  if (!result) {
    return ''
  }
  if (result.width === 0) {
    return `decodes to its end · ${result.sound.length === 1 ? 'one track' : `${result.sound.length} tracks`}`
  }
  const frames = result.errors === 0 ? 'all frames decode' : `${result.errors} decoding faults`
  const sound = result.sound.length > 0 ? `sound ${result.sound.join(', ')}` : 'no sound'
  return `${frames} · ${result.matrix}, ${result.range} range · ${result.depth} bit · ${sound}`
})
/** What it ran on and how long that took. */
const fared = computed(() => {
  const result = props.render.result
  if (!result?.on || !result.workSeconds) {
    return ''
  }
  const elsewhere = result.elsewhere ? `, ${result.elsewhere} frames by other machines` : ''
  return `made in ${wait(result.workSeconds)} on ${result.on}${elsewhere}`
})

/** What its newest frame looks like, asked for now and then while it is at work. */
const PICTURE_EVERY_MS = 2500
const newest = ref<string>()
let askedAt = 0
watch(
  () => [props.render.state, props.render.framesDone] as const,
  ([state, done]) => {
    if (state !== 'RUNNING') {
      newest.value = undefined
    } else if (props.render.live && Date.now() - askedAt > PICTURE_EVERY_MS) {
      askedAt = Date.now()
      newest.value = api.renderPicture(props.render.id, done)
    }
  },
  { immediate: true },
)

/** Shares beyond which a slip of the hand would cost too much. */
const MUCH = 0.1
const MANY = 200
const isAsked = ref(false)
/** Where much is done it is asked first. */
function cancel() {
  const { framesDone } = props.render
  if (!isAsked.value && (share.value > MUCH || framesDone > MANY)) {
    isAsked.value = true
    return
  }
  isAsked.value = false
  void act(api.cancelRender(props.render.id))
}

const naming = ref(false)
const isNamed = computed(() => props.render.fileName.replace(/\.[^.]*$/, ''))
function rename(name: string | undefined) {
  naming.value = false
  if (name !== undefined) {
    void act(api.nameRender(props.render.id, name))
  }
}

const isHeld = computed(
  () =>
    props.render.state === 'WAITING' &&
    props.render.notBefore !== undefined &&
    new Date(props.render.notBefore) > new Date(),
)

async function shelve() {
  try {
    const clip = await api.shelveRender(props.render.id)
    notices.say(`${clip.title} is on the shelf`)
  } catch (error) {
    notices.fail(error)
  }
}

const act = (wish: Promise<unknown>) => wish.catch(notices.fail)
</script>

<template>
  <div
    class="row"
    role="listitem"
    :data-state="render.state"
    :data-test="`render-${render.state.toLowerCase()}`"
  >
    <img
      :src="newest ?? `/api/clips/${render.clipId}/thumbs/2`"
      :alt="newest ? 'the newest frame' : ''"
      :title="newest ? 'the newest frame' : ''"
      @error="newest = undefined"
    />
    <div class="what">
      <div>
        <router-link class="clip" :to="`/bench/${render.clipId}`" title="To its bench">{{
          render.clipTitle
        }}</router-link>
        <span class="label">
          <template v-if="render.batchName">{{ render.batchName }}, </template>take {{ render.takeName }},
          <span :class="{ treated: !render.wholeClip }">{{ spanLine(render) }}</span>
        </span>
      </div>
      <div class="figure quiet">{{ made }}</div>
      <NameField
        v-if="naming"
        class="figure"
        :name="isNamed"
        label="Name of the file"
        :longest="150"
        @done="rename"
      />
      <v-btn
        v-else
        variant="plain"
        class="bare file figure"
        title="Give the file another name"
        @click="naming = true"
      >
        {{ render.fileName }}
      </v-btn>
    </div>
    <div v-if="render.state === 'RUNNING'">
      <v-progress-linear
        :model-value="100 * share"
        color="primary"
        bg-color="#888"
        height="5"
        :aria-label="running"
      />
      <div class="figure quiet progress">{{ running }}<br />{{ shares }}</div>
    </div>
    <div v-else-if="render.state === 'WAITING' || render.state === 'PAUSED'" class="label">{{ waits }}</div>
    <div v-else-if="render.state === 'DONE'" class="label">
      {{ checks }}
      <div v-if="fared" class="quiet">{{ fared }}</div>
      <div v-if="render.note">{{ render.note }}</div>
    </div>
    <div v-else-if="render.state === 'FAILED'" class="fault label">{{ render.problem }}</div>
    <div v-else class="label">cancelled at frame {{ render.framesDone }}</div>
    <div class="figure">
      <template v-if="render.state === 'RUNNING'">
        {{ render.live?.secondsLeft ? `${wait(render.live.secondsLeft)} left` : '…' }}
        <div class="quiet">{{ Math.round(100 * share) }} %</div>
      </template>
      <template v-else-if="render.result">{{ bytes(render.result.bytes) }}</template>
    </div>
    <div class="acts">
      <template v-if="render.state === 'RUNNING' || render.state === 'WAITING' || render.state === 'PAUSED'">
        <v-btn
          v-if="render.state === 'PAUSED' || isHeld"
          class="link"
          variant="plain"
          @click="act(api.resumeRender(render.id))"
        >
          {{ isHeld ? 'Begin now' : 'Go on' }}
        </v-btn>
        <v-btn
          v-else-if="!isAsked"
          class="link"
          variant="plain"
          title="What is finished stays; others go on"
          @click="act(api.pauseRender(render.id))"
        >
          Rest
        </v-btn>
        <v-btn
          v-if="render.state === 'WAITING' && hasBefore"
          class="link"
          variant="plain"
          title="Before all others that wait, with the other files of its treatment"
          data-test="first"
          @click="act(api.firstRender(render.id))"
        >
          First
        </v-btn>
        <v-btn
          v-if="render.state === 'WAITING' && hasBefore"
          class="link"
          variant="plain"
          title="Before the treatment that waits before it, with the other files of its own"
          data-test="earlier"
          @click="act(api.earlierRender(render.id))"
        >
          Earlier
        </v-btn>
        <template v-if="isAsked">
          <v-btn class="link fault" variant="plain" data-test="cancel-sure" @click="cancel">
            Leave {{ render.framesDone }} frames unfinished
          </v-btn>
          <v-btn class="link" variant="plain" @click="isAsked = false">Go on</v-btn>
        </template>
        <v-btn v-else class="link" variant="plain" data-test="cancel" @click="cancel">Cancel</v-btn>
      </template>
      <template v-if="render.state === 'DONE'">
        <span v-if="render.clearedAt" class="label">off the disk</span>
        <a v-else class="link" :href="`/api/renders/${render.id}/file`" download>Download</a>
        <v-menu>
          <template #activator="{ props: opens }">
            <v-btn class="link" variant="plain" v-bind="opens">More</v-btn>
          </template>
          <v-list density="compact">
            <v-list-item
              title="Report"
              subtitle="what was read back, and how it was made"
              :href="`/api/renders/${render.id}/report.html`"
              target="_blank"
            />
            <v-list-item
              v-if="render.result?.sha256"
              title="Checksum"
              :subtitle="`SHA-256 ${render.result.sha256.slice(0, 16)}…`"
              :href="`/api/renders/${render.id}/sha256`"
            />
            <v-list-item
              v-if="!render.clearedAt"
              title="Put it on the shelf"
              subtitle="as a clip of its own, to be treated further"
              @click="shelve"
            />
            <v-list-item
              title="Make it again"
              subtitle="the same recipe and file, by this version"
              @click="act(api.renderAgain(render.id))"
            />
            <v-list-item
              v-if="!render.clearedAt"
              title="Take the file off the disk"
              subtitle="this row and its report stay"
              data-test="clear-file"
              @click="act(api.clearRender(render.id))"
            />
          </v-list>
        </v-menu>
      </template>
      <v-btn
        v-if="render.state === 'FAILED' || render.state === 'CANCELLED'"
        class="link"
        variant="plain"
        @click="act(api.retryRender(render.id))"
      >
        Try again
      </v-btn>
      <v-btn
        v-if="render.state !== 'RUNNING' && render.state !== 'WAITING' && render.state !== 'PAUSED'"
        class="link"
        variant="plain"
        @click="act(api.removeRender(render.id))"
      >
        Remove
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 92px minmax(260px, 1fr) 330px 96px 190px;
  gap: 18px;
  padding: 10px 20px;
  align-items: center;
  border-top: 1px solid var(--rule);
}

img {
  width: 92px;
  height: 52px;
  object-fit: cover;
  background: var(--table);
}

.clip {
  margin-right: 10px;
  font-weight: 500;
  color: var(--ink);
  text-decoration: none;
}

.clip:hover {
  text-decoration: underline;
}

.file {
  padding: 0;
  border: 0;
  background: none;
  color: var(--faint);
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}

.file:hover {
  color: var(--ink);
}

.what {
  display: grid;
  gap: 3px;
  overflow-wrap: anywhere;
}

.progress {
  margin-top: 6px;
}

.acts {
  display: flex;
  gap: 14px;
  justify-content: end;
}
</style>
