<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type ClipView } from '@/api/client'
import { useFresh } from '@/stores/fresh'
import { useNotices } from '@/stores/notices'
import { canBeMended, isExamining, mostWrong, rescueWords } from '@/view/condition'
import { bytes, colourLine, factsLine } from '@/view/words'
import NameField from '@/components/common/NameField.vue'
import ConditionBars from './ConditionBars.vue'

const props = defineProps<{ clip: ClipView }>()
const notices = useNotices()
const fresh = useFresh()
const selected = defineModel<boolean>('selected', { default: false })
const naming = ref(false)

async function rename(title: string | undefined) {
  naming.value = false
  if (title !== undefined) {
    await api.rename(props.clip.id, title).catch(notices.fail)
  }
}

const bench = computed(() => `/bench/${props.clip.id}`)
const ready = computed(() => props.clip.state === 'READY')
const details = computed(() => {
  const facts = props.clip.facts
  if (!facts) {
    return ''
  }
  const parts = [
    bytes(props.clip.bytes),
    ...(props.clip.linked ? ['linked in place'] : []),
    `${facts.layout} ${facts.depth} bit`,
    colourLine(facts),
  ]
  if (facts.order) {
    parts.push(facts.order)
  }
  if (facts.sar !== '1') {
    parts.push(`pixels ${facts.sar.replace('/', ':')}`)
  }
  if (facts.timecode) {
    parts.push(`from ${facts.timecode}`)
  }
  const counted = (n: number | undefined, what: string) => (n ? [`${n} ${what}${n === 1 ? '' : 's'}`] : [])
  parts.push(...counted(facts.subtitles, 'subtitle track'), ...counted(facts.chapters, 'chapter'))
  return parts.join(' · ')
})
const takes = computed(() => (props.clip.takes === 1 ? '1 take' : `${props.clip.takes} takes`))
const sent = computed(() =>
  props.clip.sentOut === 0 ? '' : props.clip.sentOut === 1 ? '1 sent out' : `${props.clip.sentOut} sent out`,
)

const examination = computed(() => props.clip.examination)
const condition = computed(() => examination.value?.condition)

const repairing = ref(false)

async function repair(fill: boolean) {
  repairing.value = true
  await api.repair(props.clip.id, fill).catch(notices.fail)
  repairing.value = false
}

function examine() {
  api.examine(props.clip.id).catch(notices.fail)
}

async function remove() {
  const { id, title } = props.clip
  try {
    await api.putAside(id)
    notices.say(`${title} is off the shelf; for a day it can be taken back.`, () => {
      void api.takeBack(id).catch(notices.fail)
    })
  } catch (error) {
    notices.fail(error)
  }
}
</script>

<template>
  <div class="row" role="listitem" :data-clip="clip.title">
    <span>
      <v-checkbox-btn
        v-if="ready"
        v-model="selected"
        density="compact"
        :aria-label="`Select ${clip.title}`"
      />
    </span>
    <router-link v-if="ready" :to="bench" class="strip" tabindex="-1" aria-hidden="true">
      <img v-for="n in 5" :key="n" :src="`/api/clips/${clip.id}/thumbs/${n - 1}`" alt="" />
    </router-link>
    <div v-else class="strip empty"></div>
    <div class="what">
      <NameField
        v-if="naming"
        class="name"
        :name="clip.title"
        :label="`New name of ${clip.title}`"
        :longest="200"
        @done="rename"
      />
      <span v-else>
        <router-link v-if="ready" :to="bench" class="title">{{ clip.title }}</router-link>
        <span v-else class="title">{{ clip.title }}</span>
        <span v-if="fresh.ids.has(clip.id)" class="label new" data-test="new">new</span>
      </span>
      <div v-if="clip.facts" class="figure quiet">{{ factsLine(clip.facts) }}</div>
      <div v-if="details" class="label details">{{ details }}</div>
      <div v-if="clip.problem" class="fault">
        {{ clip.problem }}
        <template v-if="ready && canBeMended(clip)">
          <v-btn
            v-if="!clip.facts?.rescue"
            class="link"
            variant="plain"
            title="Rebuilds the file around what can be read; nothing is decoded, broken packets are left out"
            :disabled="repairing"
            @click="repair(false)"
          >
            Repair a copy
          </v-btn>
          <template v-if="!clip.facts?.rescue"> · </template>
          <v-btn
            class="link"
            variant="plain"
            title="Decodes everything and writes it without loss: lost frames made of their neighbours, sound in step"
            :disabled="repairing"
            @click="repair(true)"
          >
            Mend a copy, frames filled in
          </v-btn>
        </template>
      </div>
      <div v-if="rescueWords(clip)" class="label" data-test="rescue">{{ rescueWords(clip) }}</div>
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
    <ConditionBars v-if="condition" :condition="condition" />
    <span v-else></span>
    <div class="wrong" data-test="wrong">
      <template v-if="isExamining(clip)">
        <span class="figure quiet" role="status">
          {{
            examination?.state === 'WAITING'
              ? 'waits to be examined'
              : `examining, ${Math.round(100 * (examination?.progress ?? 0))} %`
          }}
        </span>
        <v-btn class="link" variant="plain" @click="api.stopExamining(clip.id).catch(notices.fail)">
          Stop
        </v-btn>
      </template>
      <span v-else-if="condition" :class="{ quiet: !condition.worst }">{{ mostWrong(condition) }}</span>
      <template v-else-if="ready">
        <span v-if="examination?.problem" class="fault">{{ examination.problem }}</span>
        <v-btn class="link" variant="plain" @click="examine">Examine</v-btn>
      </template>
    </div>
    <div class="label">
      {{ ready ? takes : '' }}
      <div :class="{ treated: clip.sentOut > 0 }">{{ ready ? sent : '' }}</div>
    </div>
    <div class="acts">
      <v-btn v-if="ready" :to="bench" :aria-label="`Treat ${clip.title}`">Treat</v-btn>
      <v-menu location="bottom end">
        <template #activator="{ props: opens }">
          <v-btn v-bind="opens" class="link more" variant="plain" :aria-label="`More for ${clip.title}`">
            more
          </v-btn>
        </template>
        <v-list density="compact" min-width="150">
          <v-list-item title="Rename" @click="naming = true" />
          <v-list-item v-if="ready" title="Proof sheet" :to="`/sheet/${clip.id}`" />
          <v-list-item v-if="ready && !isExamining(clip)" title="Examine again" @click="examine" />
          <v-list-item title="Take off the shelf" @click="remove" />
        </v-list>
      </v-menu>
    </div>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 28px 330px minmax(250px, 1fr) 110px 190px 72px 64px;
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

.acts {
  display: grid;
  gap: 4px;
  justify-items: start;
}

.acts .more {
  color: var(--faint);
}

.new {
  margin-left: 10px;
  padding: 0 6px;
  border: 1px solid var(--treated);
  border-radius: 3px;
  color: var(--treated);
}

.name {
  font: 500 15px var(--sans);
}

.details {
  color: var(--faint);
  line-height: 1.35;
}

.wrong {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: baseline;
  font: 14px var(--label);
}

@media (width < 1240px) {
  .row {
    grid-template-columns: 28px 200px minmax(220px, 1fr) 110px 150px 66px 64px;
    gap: 14px;
  }
}
</style>
