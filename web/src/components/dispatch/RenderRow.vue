<script setup lang="ts">
import { computed } from 'vue'
import { api, type RenderView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { bytes, rate, spanLine, wait } from '@/view/words'

const props = defineProps<{ render: RenderView }>()
const notices = useNotices()

const share = computed(() => props.render.framesDone / Math.max(1, props.render.frames))
const made = computed(() => {
  const result = props.render.result
  if (!result) {
    return `${props.render.width}×${props.render.height} · ${props.render.codec}`
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
    return `${before.doing}, frame ${before.frames}`
  }
  const live = props.render.live
  const parts = [`frame ${props.render.framesDone} of ${props.render.frames}`]
  if (live) {
    parts.push(`${live.framesASecond.toFixed(1)} fps`)
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
const checks = computed(() => {
  const result = props.render.result
  if (!result) {
    return ''
  }
  const frames = result.errors === 0 ? 'all frames decode' : `${result.errors} decoding faults`
  const sound = result.sound.length > 0 ? `sound ${result.sound.join(', ')}` : 'no sound'
  return `${frames} · ${result.matrix}, ${result.range} range · ${result.depth} bit · ${sound}`
})

const act = (wish: Promise<unknown>) => wish.catch(notices.fail)
</script>

<template>
  <div
    class="row"
    role="listitem"
    :data-state="render.state"
    :data-test="`render-${render.state.toLowerCase()}`"
  >
    <img :src="`/api/clips/${render.clipId}/thumbs/2`" alt="" />
    <div class="what">
      <div>
        <b>{{ render.clipTitle }}</b>
        <span class="label">
          take {{ render.takeName }},
          <span :class="{ treated: !render.wholeClip }">{{ spanLine(render) }}</span>
        </span>
      </div>
      <div class="figure quiet">{{ made }}</div>
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
    <div v-else-if="render.state === 'WAITING'" class="label">
      {{ render.framesDone > 0 ? `waits; ${render.framesDone} frames are done already` : 'waits its turn' }}
    </div>
    <div v-else-if="render.state === 'DONE'" class="label">
      {{ checks }}
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
      <v-btn
        v-if="render.state === 'RUNNING' || render.state === 'WAITING'"
        class="link"
        variant="plain"
        @click="act(api.cancelRender(render.id))"
      >
        Cancel
      </v-btn>
      <a v-if="render.state === 'DONE'" class="link" :href="`/api/renders/${render.id}/file`" download
        >Download</a
      >
      <v-btn
        v-if="render.state === 'FAILED' || render.state === 'CANCELLED'"
        class="link"
        variant="plain"
        @click="act(api.retryRender(render.id))"
      >
        Try again
      </v-btn>
      <v-btn
        v-if="render.state !== 'RUNNING' && render.state !== 'WAITING'"
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
  grid-template-columns: 92px minmax(260px, 1fr) 340px 110px 124px;
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

b {
  font-weight: 500;
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
