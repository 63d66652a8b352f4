<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, Problem, type RenderView } from '@/api/client'
import OtherMachines from '@/components/dispatch/OtherMachines.vue'
import RenderRow from '@/components/dispatch/RenderRow.vue'
import StorageUse from '@/components/dispatch/StorageUse.vue'
import ThisMachine from '@/components/dispatch/ThisMachine.vue'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'
import { useOutcomes } from '@/stores/outcomes'
import { clockIn, secondsLeft } from '@/view/renders'
import { wait } from '@/view/words'

const feed = useFeed()
const notices = useNotices()

const inOrder = computed(() => [...feed.renders.values()].sort((a, b) => a.place - b.place))
const groups = computed(() => {
  const of = (...states: RenderView['state'][]) => inOrder.value.filter((one) => states.includes(one.state))
  return [
    { title: 'Running', hint: '', rows: of('RUNNING') },
    { title: 'Waiting', hint: 'in this order; files of one treatment are made at once', rows: of('WAITING') },
    { title: 'Resting', hint: 'what is finished of them stays', rows: of('PAUSED') },
    { title: 'Not finished', hint: '', rows: of('FAILED', 'CANCELLED') },
    { title: 'Sent out', hint: 'read back and checked', rows: of('DONE').reverse() },
  ].filter((group) => group.rows.length > 0)
})
const summary = computed(() => {
  const left = secondsLeft(inOrder.value)
  return left === undefined ? '' : `all is sent out in about ${wait(left)}, at ${clockIn(left)}`
})
const open = computed(() => inOrder.value.filter((one) => one.state === 'RUNNING' || one.state === 'WAITING'))
const resting = computed(() => inOrder.value.filter((one) => one.state === 'PAUSED'))
const outcomes = useOutcomes()
async function tellMe(is: boolean | null) {
  if (!(await outcomes.want(is === true))) {
    notices.fail(
      new Problem(0, 'this browser does not let pages tell anything; allow it for this page first'),
    )
  }
}
const busy = ref(false)
/** One after another: each answers by itself, and one that has just ended is no fault. */
async function each(rows: RenderView[], act: (id: string) => Promise<unknown>) {
  busy.value = true
  for (const one of rows) {
    await act(one.id).catch(() => undefined)
  }
  busy.value = false
}
</script>

<template>
  <section aria-label="Dispatch">
    <div class="top">
      <h1>Dispatch</h1>
      <span class="label">{{ summary }}</span>
      <span class="all">
        <v-checkbox
          v-if="outcomes.canTell"
          :model-value="outcomes.isWanted"
          label="Tell me when one has ended"
          density="compact"
          hide-details
          color="primary"
          @update:model-value="tellMe"
        />
        <v-btn
          v-if="open.length"
          :disabled="busy"
          title="Everything rests where it is; what is finished stays"
          data-test="rest-all"
          @click="each([...open].reverse(), api.pauseRender)"
        >
          Let all rest
        </v-btn>
        <v-btn
          v-if="resting.length"
          :disabled="busy"
          color="primary"
          variant="flat"
          data-test="resume-all"
          @click="each(resting, api.resumeRender)"
        >
          Go on with all
        </v-btn>
      </span>
    </div>
    <template v-for="group in groups" :key="group.title">
      <h2>
        {{ group.title }} <span class="label">{{ group.hint }}</span>
      </h2>
      <div role="list" :aria-label="group.title">
        <RenderRow v-for="(render, n) in group.rows" :key="render.id" :render="render" :has-before="n > 0" />
      </div>
    </template>
    <p v-if="feed.loaded && groups.length === 0" class="empty quiet">
      Nothing has been sent out yet. Choose a clip on the Shelf, treat it on the Bench, then press Dispatch
      there.
    </p>
    <StorageUse />
    <ThisMachine />
    <OtherMachines />
  </section>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 14px 20px 0;
}

.all {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 8px;
}

h2 {
  padding: 16px 20px 8px;
  display: flex;
  gap: 12px;
  align-items: baseline;
}

h2 .label {
  font-weight: 400;
}

.empty {
  padding: 60px 20px;
  text-align: center;
}
</style>
