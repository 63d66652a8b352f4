<script setup lang="ts">
import { onMounted, onUnmounted, ref } from 'vue'
import { api, type WorkerView } from '@/api/client'
import NameField from '@/components/common/NameField.vue'
import { useNotices } from '@/stores/notices'

/** Machines that make parts of the render that runs: added by a token, seen at work, taken away. */
const notices = useNotices()
const workers = ref<WorkerView[]>([])
const naming = ref(false)
const fresh = ref<{ name: string; token: string }>()
const EVERY_MS = 5000

async function read() {
  workers.value = await api.workers().catch(() => workers.value)
}
let timer: ReturnType<typeof setInterval> | undefined
onMounted(() => {
  void read()
  timer = setInterval(() => void read(), EVERY_MS)
})
onUnmounted(() => clearInterval(timer))

async function add(name: string | undefined) {
  naming.value = false
  if (name === undefined) {
    return
  }
  try {
    fresh.value = { name, token: (await api.addWorker(name)).token }
    await read()
  } catch (error) {
    notices.fail(error)
  }
}

async function remove(worker: WorkerView) {
  await api.removeWorker(worker.id).catch(notices.fail)
  fresh.value = undefined
  await read()
}

function seen(worker: WorkerView): string {
  if (worker.isWorking) {
    return 'at work'
  }
  if (!worker.seenAt) {
    return 'never seen yet'
  }
  const seconds = (Date.now() - new Date(worker.seenAt).getTime()) / 1000
  return seconds < 15 ? 'waits for work' : `last seen ${new Date(worker.seenAt).toLocaleString()}`
}
const server = window.location.origin
</script>

<template>
  <section class="machines" aria-label="Other machines">
    <h2>
      Other machines
      <span class="label">make parts of the render that runs; the file is the same, bit for bit</span>
    </h2>
    <div v-for="worker in workers" :key="worker.id" class="machine" :data-test="`worker-${worker.name}`">
      <b>{{ worker.name }}</b>
      <span class="quiet">{{ seen(worker) }}</span>
      <span class="figure quiet">{{ worker.segments }} parts brought</span>
      <v-btn
        class="link"
        variant="plain"
        title="Its token is worth nothing from now on"
        @click="remove(worker)"
      >
        Take away
      </v-btn>
    </div>
    <div v-if="fresh" class="fresh" role="status">
      <p>
        On {{ fresh.name }}, with the same Awlsmith and the same FFmpeg; the token is shown here only once:
      </p>
      <pre class="figure">
export AWLSMITH_TOKEN={{ fresh.token }}
./awlsmith worker --server {{ server }}</pre>
    </div>
    <NameField v-if="naming" name="" label="Name of the machine" explicit @done="add" />
    <v-btn v-else class="link" variant="plain" data-test="add-machine" @click="naming = true">
      Add a machine
    </v-btn>
  </section>
</template>

<style scoped>
.machines {
  padding: 18px 20px;
  display: grid;
  gap: 8px;
  justify-items: start;
}

h2 {
  display: flex;
  gap: 12px;
  align-items: baseline;
}

h2 .label {
  font-weight: 400;
}

.machine {
  display: flex;
  gap: 18px;
  align-items: baseline;
}

.fresh p,
.fresh pre {
  margin: 4px 0;
}

.fresh pre {
  background: var(--table);
  padding: 10px 14px;
  user-select: all;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
</style>
