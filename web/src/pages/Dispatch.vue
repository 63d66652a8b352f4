<script setup lang="ts">
import { computed } from 'vue'
import type { RenderView } from '@/api/client'
import RenderRow from '@/components/dispatch/RenderRow.vue'
import { useFeed } from '@/stores/feed'
import { clockIn, secondsLeft } from '@/view/renders'
import { wait } from '@/view/words'

const feed = useFeed()

const inOrder = computed(() => [...feed.renders.values()].sort((a, b) => a.place - b.place))
const groups = computed(() => {
  const of = (...states: RenderView['state'][]) => inOrder.value.filter((one) => states.includes(one.state))
  return [
    { title: 'Running', hint: '', rows: of('RUNNING') },
    { title: 'Waiting', hint: 'one at a time, in this order', rows: of('WAITING') },
    { title: 'Not finished', hint: '', rows: of('FAILED', 'CANCELLED') },
    { title: 'Sent out', hint: 'read back and checked', rows: of('DONE').reverse() },
  ].filter((group) => group.rows.length > 0)
})
const summary = computed(() => {
  const left = secondsLeft(inOrder.value)
  return left === undefined ? '' : `all is sent out in about ${wait(left)}, at ${clockIn(left)}`
})
</script>

<template>
  <section aria-label="Dispatch">
    <div class="top">
      <h1>Dispatch</h1>
      <span class="label">{{ summary }}</span>
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
  </section>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 14px 20px 0;
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
