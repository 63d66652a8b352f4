<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { api, type ClipView, Problem, type Recipe, type Way } from '@/api/client'
import WayPicker from '@/components/common/WayPicker.vue'
import DispatchDialog from '@/components/dispatch/DispatchDialog.vue'
import AsideList from '@/components/shelf/AsideList.vue'
import ClipRow from '@/components/shelf/ClipRow.vue'
import JoinDialog from '@/components/shelf/JoinDialog.vue'
import LinkDialog from '@/components/shelf/LinkDialog.vue'
import UploadRow from '@/components/shelf/UploadRow.vue'
import WatchedFolders from '@/components/shelf/WatchedFolders.vue'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'
import { useUploads } from '@/stores/uploads'
import { BARS, finding, isDamaged } from '@/view/condition'
import { takeToSend, type Target } from '@/view/sending'
import { bytes, length } from '@/view/words'

const feed = useFeed()
const uploads = useUploads()
const notices = useNotices()
const picker = ref<HTMLInputElement>()
const folderPicker = ref<HTMLInputElement>()
const linkRoots = ref<string[]>([])
const linking = ref(false)
const filter = ref<string | null>('')
const order = ref<'newest' | 'title' | 'worst'>('newest')
onMounted(async () => {
  void uploads.findBroken()
  linkRoots.value = await api.folders().catch(() => [])
})

function severity(clip: ClipView): number {
  const condition = clip.examination?.condition
  // a file that is damaged is wrong before anything that can be seen in it
  return isDamaged(clip) ? 2 : (finding(condition, condition?.worst)?.severity ?? 0)
}

const all = computed(() => [...feed.clips.values()])
const clips = computed(() => {
  const wanted = (filter.value ?? '').trim().toLowerCase()
  const by = {
    newest: (a: ClipView, b: ClipView) => b.addedAt.localeCompare(a.addedAt),
    title: (a: ClipView, b: ClipView) => a.title.localeCompare(b.title, undefined, { numeric: true }),
    worst: (a: ClipView, b: ClipView) => severity(b) - severity(a),
  }
  return all.value
    .filter((clip) => `${clip.title} ${clip.facts?.codec ?? ''}`.toLowerCase().includes(wanted))
    .sort(by[order.value])
})
const summary = computed(() => {
  const seconds = clips.value.reduce((sum, clip) => sum + (clip.facts?.seconds ?? 0), 0)
  const size = clips.value.reduce((sum, clip) => sum + clip.bytes, 0)
  const count = clips.value.length === 1 ? '1 clip' : `${clips.value.length} clips`
  return `${count}, ${length(seconds)}, ${bytes(size)}`
})

const selected = ref(new Set<string>())
const chosen = computed(() => all.value.filter((clip) => selected.value.has(clip.id)))
const way = ref<Way>({ how: 'SUGGESTED' })
const from = ref<string>()
const watching = ref(false)
const giving = ref(false)

function select(id: string, is: boolean) {
  const next = new Set(selected.value)
  if (is) {
    next.add(id)
  } else {
    next.delete(id)
  }
  selected.value = next
}

async function give() {
  giving.value = true
  try {
    const ids = chosen.value.map((clip) => clip.id)
    const wrong = await api.treatAlike(ids, way.value)
    if (wrong.length) {
      notices.fail(new Problem(0, wrong.join('; ')))
    } else {
      notices.say(
        `${chosen.value.length === 1 ? '1 clip has' : `${chosen.value.length} clips have`} the recipe now`,
      )
      selected.value = new Set()
    }
  } catch (error) {
    notices.fail(error)
  } finally {
    giving.value = false
  }
}

const sending = ref(false)
const joining = ref(false)
const gathering = ref(false)
const targets = ref<Target[]>([])
/** Each clip by the take that is kept, or its first. */
async function sendOut() {
  gathering.value = true
  try {
    const found: Target[] = []
    for (const clip of chosen.value.filter((one) => one.state === 'READY')) {
      const take = takeToSend(await api.takes(clip.id))
      if (take) {
        found.push({ take, recipe: take.recipe as unknown as Recipe, title: clip.title })
      }
    }
    targets.value = found
    sending.value = found.length > 0
  } catch (error) {
    notices.fail(error)
  } finally {
    gathering.value = false
  }
}

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  uploads.offer(input.files ?? [])
  input.value = ''
}
</script>

<template>
  <section aria-label="Shelf">
    <div class="top">
      <h1>Shelf</h1>
      <span v-if="clips.length" class="label">{{ summary }}</span>
      <v-text-field
        v-model="filter"
        class="filter"
        type="search"
        placeholder="Filter"
        aria-label="Filter by title or codec"
        clearable
      />
      <v-btn-toggle v-model="order" mandatory density="compact" aria-label="Order">
        <v-btn value="newest">newest</v-btn>
        <v-btn value="title">title</v-btn>
        <v-btn value="worst">most wrong</v-btn>
      </v-btn-toggle>
      <span class="label hint">Drop files anywhere, or</span>
      <v-btn v-if="linkRoots.length" data-test="watched" @click="watching = true">Watched folders…</v-btn>
      <v-btn v-if="linkRoots.length" @click="linking = true"> Link in place… </v-btn>
      <v-btn @click="folderPicker?.click()">Take in a folder…</v-btn>
      <v-btn color="primary" variant="flat" @click="picker?.click()">Take in files…</v-btn>
      <input ref="picker" type="file" multiple hidden aria-label="Take in files" @change="picked" />
      <input
        ref="folderPicker"
        type="file"
        webkitdirectory
        hidden
        aria-label="Take in a folder"
        @change="picked"
      />
    </div>
    <div v-if="feed.demo.label" class="making" role="status">
      <span class="label"
        >Making the demo archive: {{ feed.demo.label }}, {{ Math.round(100 * feed.demo.share) }} %</span
      >
      <v-progress-linear
        :model-value="100 * feed.demo.share"
        color="secondary"
        height="3"
        aria-label="demo archive"
      />
    </div>
    <div v-if="chosen.length" class="alike" role="group" aria-label="Treat the selected alike">
      <b>{{ chosen.length === 1 ? '1 clip' : `${chosen.length} clips` }} selected</b>
      <WayPicker v-model="way" v-model:from="from" label="give" />
      <v-btn color="primary" variant="flat" :disabled="giving" @click="give">
        {{ giving ? 'Giving…' : 'Give' }}
      </v-btn>
      <v-btn :disabled="gathering" data-test="send-selected" @click="sendOut">Send out…</v-btn>
      <v-btn
        v-if="chosen.length > 1"
        title="One behind another as they are, as a clip of its own"
        data-test="join-selected"
        @click="joining = true"
        >Join…</v-btn
      >
      <v-btn class="link" variant="plain" @click="selected = new Set()">Select none</v-btn>
    </div>
    <div v-if="clips.length" class="head label" aria-hidden="true">
      <span></span><span></span><span></span
      ><span class="heads"
        ><i v-for="head in BARS" :key="head"
          ><b>{{ head }}</b></i
        ></span
      ><span>most wrong</span><span>takes</span><span></span>
    </div>
    <div role="list">
      <div v-for="one in uploads.broken" :key="one.key" class="broken" role="listitem">
        <span>{{ one.name }}</span>
        <span class="quiet"
          >was sent in part only ({{ bytes(one.bytes) }} in all); drop it again and it goes on from
          there</span
        >
        <v-btn class="link" variant="plain" @click="uploads.forgetBroken(one.key)">Forget it</v-btn>
      </div>
      <UploadRow v-for="upload in uploads.uploads" :key="upload.key" :upload="upload" />
      <ClipRow
        v-for="clip in clips"
        :key="clip.id"
        :clip="clip"
        :selected="selected.has(clip.id)"
        @update:selected="(is) => select(clip.id, is)"
      />
    </div>
    <AsideList />
    <p v-if="all.length > 0 && !clips.length" class="empty quiet">No clip is called like that.</p>
    <WatchedFolders v-model="watching" :roots="linkRoots" />
    <LinkDialog v-model="linking" :roots="linkRoots" />
    <JoinDialog v-model="joining" :clips="chosen" @joined="selected = new Set()" />
    <DispatchDialog v-model="sending" :targets="targets" @sent="selected = new Set()" />
    <p v-if="feed.loaded && !all.length && !uploads.uploads.length && !feed.demo.label" class="empty quiet">
      Nothing here yet. Drop a video file anywhere on this page: MP4, MOV, MKV, WebM, AVI, MPEG, DV, MXF or
      GIF.
    </p>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 14px 20px 12px;
}

.top .label,
.top .v-btn-group {
  flex: none;
}

.top .hint {
  flex: 0 1 auto;
  margin-left: auto;
}

.making {
  padding: 4px 20px 12px;
  display: grid;
  gap: 6px;
}

.head {
  display: grid;
  grid-template-columns: 28px 330px minmax(250px, 1fr) 110px 190px 72px 64px;
  gap: 18px;
  align-items: end;
  padding: 0 20px 6px;
}

.heads {
  display: flex;
  gap: 6px;
  height: 42px;
}

.heads i {
  position: relative;
  width: 13px;
}

.heads b {
  position: absolute;
  left: 6px;
  bottom: 0;
  font: 12px var(--label);
  white-space: nowrap;
  transform: rotate(-52deg);
  transform-origin: left bottom;
}

.alike {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 8px 20px;
  background: var(--raised);
  border-top: 1px solid var(--rule);
}

.filter {
  flex: none;
  width: 150px;
}

.broken {
  display: flex;
  gap: 16px;
  align-items: baseline;
  padding: 12px 20px;
  border-top: 1px solid var(--rule);
}

.empty {
  padding: 60px 20px;
  text-align: center;
}

@media (width < 1240px) {
  .head {
    grid-template-columns: 28px 200px minmax(220px, 1fr) 110px 150px 66px 64px;
    gap: 14px;
  }
}
</style>
