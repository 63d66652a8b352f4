<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type ClipView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { bytes, colourLine, factsLine } from '@/view/words'

const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()
const asking = ref(false)

const bench = computed(() => `/bench/${props.clip.id}`)
const ready = computed(() => props.clip.state === 'READY')
const details = computed(() => {
  const facts = props.clip.facts
  if (!facts) {
    return []
  }
  const lines = [`${facts.layout} ${facts.depth} bit · ${colourLine(facts)}`]
  const second = [bytes(props.clip.bytes)]
  if (facts.order) {
    second.unshift(facts.order)
  }
  if (facts.sar !== '1') {
    second.push(`pixels ${facts.sar.replace('/', ':')}`)
  }
  lines.push(second.join(' · '))
  return lines
})
const takes = computed(() => (props.clip.takes === 1 ? '1 take' : `${props.clip.takes} takes`))
const sent = computed(() =>
  props.clip.sentOut === 0 ? '–' : props.clip.sentOut === 1 ? '1 file' : `${props.clip.sentOut} files`,
)

async function remove() {
  asking.value = false
  await api.removeClip(props.clip.id).catch(notices.fail)
}
</script>

<template>
  <div class="row" role="listitem">
    <router-link v-if="ready" :to="bench" class="strip" tabindex="-1" aria-hidden="true">
      <img v-for="n in 5" :key="n" :src="`/api/clips/${clip.id}/thumbs/${n - 1}`" alt="" />
    </router-link>
    <div v-else class="strip empty"></div>
    <div class="what">
      <router-link v-if="ready" :to="bench" class="title">{{ clip.title }}</router-link>
      <span v-else class="title">{{ clip.title }}</span>
      <div v-if="clip.facts" class="figure quiet">{{ factsLine(clip.facts) }}</div>
      <div v-if="clip.problem" class="fault">{{ clip.problem }}</div>
      <template v-if="clip.state === 'READING'">
        <div class="figure quiet">reading, {{ Math.round(100 * clip.progress) }} %</div>
        <v-progress-linear
          :model-value="100 * clip.progress"
          color="secondary"
          height="3"
          :aria-label="`reading ${clip.title}`"
        />
      </template>
    </div>
    <div class="label details">
      <div v-for="line in details" :key="line">{{ line }}</div>
    </div>
    <div class="label">{{ ready ? takes : '' }}</div>
    <div class="label">{{ ready ? sent : '' }}</div>
    <button class="link" type="button" :aria-label="`Remove ${clip.title}`" @click="asking = true">
      Remove
    </button>
    <v-dialog v-model="asking">
      <v-card class="ask">
        <p>
          Remove <b>{{ clip.title }}</b> from the shelf, with its takes and what was sent out from it? The
          file it was taken in from is not touched.
        </p>
        <div class="buttons">
          <button class="button" type="button" @click="asking = false">Keep it</button>
          <button class="button" type="button" @click="remove"><span class="fault">Remove</span></button>
        </div>
      </v-card>
    </v-dialog>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 352px minmax(250px, 1fr) 236px 64px 64px 48px;
  gap: 18px;
  align-items: center;
  padding: 10px 20px;
  border-top: 1px solid var(--rule);
}

.row:hover {
  background: #1a1a1a;
}

.strip {
  display: flex;
  height: 56px;
  gap: 1px;
  overflow: hidden;
  background: var(--table);
}

.strip img {
  flex: 1;
  min-width: 0;
  height: 56px;
  object-fit: cover;
}

.title {
  font-weight: 500;
  font-size: 15px;
  color: var(--ink);
  text-decoration: none;
  overflow-wrap: anywhere;
}

a.title:hover {
  text-decoration: underline;
}

.what {
  display: grid;
  gap: 3px;
}

.details {
  line-height: 1.45;
}

.ask {
  padding: 20px 24px;
}

.buttons {
  display: flex;
  gap: 8px;
  justify-content: end;
  margin-top: 18px;
}

@media (width < 1240px) {
  .row {
    grid-template-columns: 250px minmax(220px, 1fr) 200px 56px 56px 48px;
    gap: 14px;
  }
}
</style>
