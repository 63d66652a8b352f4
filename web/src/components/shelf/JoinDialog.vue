<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type ClipView, Problem } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { moved, shared } from '@/view/joining'
import { length } from '@/view/words'

/** Puts clips one behind another as they are: the parts that a camera, or a split, made of one recording. */
const props = defineProps<{ clips: ClipView[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ joined: [] }>()
const notices = useNotices()

const order = ref<ClipView[]>([])
const title = ref('')
const problem = ref('')
const busy = ref(false)
const seconds = computed(() => order.value.reduce((sum, clip) => sum + (clip.facts?.seconds ?? 0), 0))

watch(open, (is) => {
  if (is) {
    problem.value = ''
    order.value = [...props.clips].sort((a, b) =>
      a.title.localeCompare(b.title, undefined, { numeric: true }),
    )
    title.value = shared(order.value.map((clip) => clip.title))
  }
})

async function join() {
  busy.value = true
  problem.value = ''
  try {
    const ids = order.value.map((clip) => clip.id)
    const clip = await api.joinClips(ids, title.value)
    notices.say(`${clip.title} is being joined`)
    open.value = false
    emit('joined')
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : String(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Join clips" max-width="560">
    <v-card class="card" data-test="join-dialog">
      <h2>Join {{ order.length }} clips</h2>
      <p class="quiet">
        One behind another, in this order, as a clip of its own. Nothing is coded anew, and every frame is
        held against what it was; subtitles and chapters are left behind. The clips stay.
      </p>
      <ol>
        <li v-for="(clip, n) in order" :key="clip.id">
          <span class="name">{{ clip.title }}</span>
          <span class="figure quiet">{{ length(clip.facts?.seconds ?? 0) }}</span>
          <v-btn
            class="link"
            variant="plain"
            :class="{ first: n === 0 }"
            :disabled="n === 0"
            :aria-label="`${clip.title} earlier`"
            @click="order = moved(order, n, n - 1)"
            >Earlier</v-btn
          >
        </li>
      </ol>
      <v-text-field v-model="title" label="Title" />
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
      <div class="buttons">
        <span class="figure quiet">{{ length(seconds) }} in all</span>
        <v-btn @click="open = false">Not yet</v-btn>
        <v-btn color="primary" variant="flat" :disabled="busy" data-test="join" @click="join">Join</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 18px 24px;
  display: grid;
  gap: 11px;
}

.card p {
  margin: 0;
}

ol {
  margin: 0;
  padding: 0;
  list-style: none;
  max-height: 50vh;
  overflow-y: auto;
}

li {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 14px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}

.first {
  visibility: hidden;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.buttons {
  display: flex;
  justify-content: end;
  align-items: center;
  gap: 8px;
}

.buttons > :first-child {
  margin-right: auto;
}
</style>
