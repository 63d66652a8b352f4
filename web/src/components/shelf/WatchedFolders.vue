<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import {
  api,
  type CodecDescription,
  type FolderListing,
  type PresetDescription,
  Problem,
  type WatchedView,
  type Way,
} from '@/api/client'
import SegmentRow from '@/components/common/SegmentRow.vue'
import WayPicker from '@/components/common/WayPicker.vue'
import { useFeed } from '@/stores/feed'
import { chosenOf, outputWords } from '@/view/sending'

/** Folders of the machine whose files are taken in, treated and sent out by themselves. */
const props = defineProps<{ roots: string[] }>()
const open = defineModel<boolean>({ required: true })
const feed = useFeed()

const watched = ref<WatchedView[]>([])
const presets = ref<PresetDescription[]>([])
const codecs = ref<CodecDescription[]>([])
const problem = ref('')
const adding = ref(false)
const root = ref(0)
const path = ref('')
const listing = ref<FolderListing>()
const way = ref<Way>({ how: 'SUGGESTED' })
const from = ref<string>()
const chosen = ref<string[]>([])
const pattern = ref('{clip} {size}')
const told = ref(new Set<string>())

const folders = computed(() => listing.value?.entries.filter((one) => one.folder) ?? [])

async function attempt(work: () => Promise<unknown>) {
  problem.value = ''
  try {
    await work()
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : String(error)
  }
}
const read = () => attempt(async () => (watched.value = await api.watched()))

const stop = feed.listen('watched', () => void (open.value && read()))
onBeforeUnmount(stop)
watch(open, (is) => {
  if (is) {
    void read()
    void attempt(async () => {
      ;[presets.value, codecs.value] = await Promise.all([api.presets(), api.codecs()])
      const first = presets.value.find((one) => one.isDefault) ?? presets.value[0]
      chosen.value = first ? [first.key] : []
    })
    void look('')
  }
})
const look = (next: string) =>
  attempt(async () => {
    listing.value = await api.folder(root.value, next)
    path.value = next
  })
watch(root, () => void look(''))

function toggle(key: string) {
  chosen.value = chosen.value.includes(key)
    ? chosen.value.filter((one) => one !== key)
    : [...chosen.value, key]
}

const add = () =>
  attempt(async () => {
    await api.watch({
      root: root.value,
      path: path.value,
      way: way.value,
      deliverables: presets.value.filter((one) => chosen.value.includes(one.key)).map(chosenOf),
      pattern: pattern.value,
    })
    adding.value = false
    await read()
  })
const activate = (one: WatchedView) => attempt(() => api.activateWatched(one.id, !one.active).then(read))
const retry = (one: WatchedView) => attempt(() => api.retryWatched(one.id).then(read))
const remove = (one: WatchedView) => attempt(() => api.removeWatched(one.id).then(read))

const WAYS = {
  USUAL: 'twice as large',
  SUGGESTED: 'each by its condition',
  SAME: 'all by one recipe',
  MEASURED: 'one recipe, values measured of each',
}
function words(one: WatchedView): string {
  const outputs = one.deliverables.map((tree) =>
    outputWords(chosenOf({ deliverable: tree } as PresetDescription), presets.value, codecs.value),
  )
  return `${WAYS[one.way.how]}, goes out as ${outputs.join(' and ')}`
}
function counts(one: WatchedView): string {
  const parts = [
    one.arriving ? `${one.arriving} arriving` : '',
    one.taken ? `${one.taken} on the shelf, at work` : '',
    `${one.sent} sent to Dispatch`,
  ]
  return parts.filter(Boolean).join(' · ')
}
function unfold(id: string) {
  const next = new Set(told.value)
  if (!next.delete(id)) {
    next.add(id)
  }
  told.value = next
}
</script>

<template>
  <v-dialog v-model="open" max-width="720" aria-label="Watched folders">
    <v-card class="card" data-test="watched-dialog">
      <h2>Watched folders</h2>
      <p class="quiet">
        What is put into them, and has come to rest, is taken in where it lies, treated and sent out by
        itself. The files there are only read.
      </p>
      <article v-for="one in watched" :key="one.id" :data-test="`watched-${one.path.split('/').pop()}`">
        <p>
          <b class="figure">{{ one.path }}</b>
          <span v-if="!one.active" class="treated"> rests</span>
        </p>
        <p class="quiet">{{ words(one) }}</p>
        <p v-if="one.problem" class="fault">{{ one.problem }}</p>
        <p class="figure" data-test="watched-counts">{{ counts(one) }}</p>
        <p v-if="one.failed" class="fault">
          {{ one.failed === 1 ? '1 file' : `${one.failed} files` }} could not be sent out
          <v-btn class="link" variant="plain" :aria-expanded="told.has(one.id)" @click="unfold(one.id)">
            {{ told.has(one.id) ? 'Hide why' : 'Why' }}
          </v-btn>
        </p>
        <ul v-if="told.has(one.id)">
          <li v-for="failure in one.failures" :key="failure.file">
            <b>{{ failure.file }}</b>: {{ failure.problem }}
          </li>
        </ul>
        <div class="does">
          <v-btn class="link" variant="plain" @click="activate(one)">{{
            one.active ? 'Let it rest' : 'Go on'
          }}</v-btn>
          <v-btn v-if="one.failed" class="link" variant="plain" @click="retry(one)">Try those again</v-btn>
          <v-btn class="link" variant="plain" title="Files and clips stay" @click="remove(one)">
            Watch no longer
          </v-btn>
        </div>
      </article>
      <p v-if="!watched.length && !adding" class="quiet">None is watched yet.</p>
      <form v-if="adding" class="form" @submit.prevent="add">
        <SegmentRow
          v-if="props.roots.length > 1"
          label="Allowed folders"
          :options="props.roots.map((name, id) => ({ id, label: name }))"
          :chosen="root"
          @choose="(i) => (root = i)"
        />
        <p>
          Watches <b class="figure">{{ props.roots[root] }}{{ path ? `/${path}` : '' }}</b>
          <v-btn
            v-if="path"
            class="link"
            variant="plain"
            @click="look(path.split('/').slice(0, -1).join('/'))"
          >
            one up
          </v-btn>
        </p>
        <p v-if="folders.length" class="quiet">
          or a folder in it:
          <v-btn v-for="one in folders" :key="one.path" class="link" variant="plain" @click="look(one.path)">
            {{ one.name }}
          </v-btn>
        </p>
        <WayPicker v-model="way" v-model:from="from" label="Treats with" usual />
        <div class="outputs" role="group" aria-label="Sends out as">
          <span class="label">Sends out as</span>
          <v-btn
            v-for="one in presets"
            :key="one.key"
            class="bare"
            variant="plain"
            :aria-pressed="chosen.includes(one.key)"
            :title="one.purpose"
            @click="toggle(one.key)"
          >
            {{ one.label }}
          </v-btn>
        </div>
        <v-text-field
          v-model="pattern"
          label="Name"
          title="{clip} {take} {size} {lines} {rate} {codec} {depth} {date} {number}"
          hide-details
        />
        <div class="buttons">
          <v-btn @click="adding = false">Not yet</v-btn>
          <v-btn type="submit" color="primary" variant="flat" :disabled="!chosen.length" data-test="watch">
            Watch it
          </v-btn>
        </div>
      </form>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
      <div v-if="!adding" class="buttons">
        <v-btn data-test="watch-another" @click="adding = true">Watch a folder…</v-btn>
        <v-btn @click="open = false">Close</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 20px 24px;
  display: grid;
  grid-auto-rows: max-content;
  gap: 10px;
  overflow-y: auto;
}

p {
  margin: 0;
}

article {
  border-top: 1px solid var(--rule);
  padding-top: 10px;
  display: grid;
  gap: 4px;
}

ul {
  margin: 0;
  padding-left: 18px;
  max-height: 160px;
  overflow-y: auto;
}

.form {
  border-top: 1px solid var(--rule);
  padding-top: 12px;
  display: grid;
  gap: 12px;
}

.does,
.outputs,
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}

.form p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}

.outputs .v-btn {
  padding: 2px 8px;
}

.outputs .v-btn[aria-pressed='true'] {
  background: var(--ink);
  color: var(--ground);
}

.buttons {
  justify-content: end;
}
</style>
