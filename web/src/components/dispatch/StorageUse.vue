<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { api, type StorageUse } from '@/api/client'
import SegmentRow from '@/components/common/SegmentRow.vue'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'
import { agedFiles } from '@/view/renders'
import { bytes } from '@/view/words'

/** What lies on the disk, and which finished files may go; what is known of them stays. */
const feed = useFeed()
const notices = useNotices()
const use = ref<StorageUse>()
const isOpen = ref(false)
const busy = ref(false)

async function read() {
  use.value = await api.storage().catch(() => use.value)
}
onMounted(read)

const there = computed(() =>
  [...feed.renders.values()].filter((one) => one.state === 'DONE' && !one.clearedAt),
)
// a file more or less: the disk is asked again
watch(() => there.value.length, read)

const AGES = [
  { id: 0, label: 'any age' },
  { id: 1, label: 'a day and more' },
  { id: 7, label: 'a week and more' },
  { id: 30, label: 'a month and more' },
]
const days = ref(7)
const aged = computed(() => agedFiles(there.value, days.value))
const count = (files: number) => (files === 1 ? 'one file' : `${files} files`)

const line = computed(() => {
  const now = use.value
  if (!now) {
    return ''
  }
  return [
    `sent out ${bytes(now.renders)} in ${count(there.value.length)}`,
    `clips and proofs ${bytes(now.clips)}`,
    now.passing > 0 ? `arriving or put aside ${bytes(now.passing)}` : '',
    `${bytes(Math.max(0, now.free - now.kept))} may still be used`,
  ]
    .filter(Boolean)
    .join(' · ')
})

async function clear() {
  busy.value = true
  try {
    const { files } = await api.clearStorage(days.value)
    notices.say(files === 1 ? 'One file is off the disk' : `${files} files are off the disk`)
    await read()
  } catch (error) {
    notices.fail(error)
  }
  busy.value = false
}
</script>

<template>
  <section v-if="use" class="storage" aria-label="Storage" data-test="storage">
    <h2>
      Storage <span class="label">{{ line }}</span>
      <v-btn
        v-if="there.length > 0"
        class="link"
        variant="plain"
        :aria-expanded="isOpen"
        data-test="clean-up"
        @click="isOpen = !isOpen"
      >
        {{ isOpen ? 'Done' : 'Clean up' }}
      </v-btn>
    </h2>
    <dl v-if="isOpen && there.length > 0" class="choices">
      <dt class="label">Files sent out, of</dt>
      <dd>
        <SegmentRow
          label="Files sent out, of"
          :options="AGES"
          :chosen="days"
          @choose="(age) => (days = age)"
        />
      </dd>
      <dt />
      <dd>
        <v-btn
          :disabled="busy || aged.files === 0"
          color="primary"
          variant="flat"
          data-test="clear"
          @click="clear"
        >
          {{
            aged.files === 0
              ? 'None of that age'
              : `Take ${count(aged.files)}, ${bytes(aged.bytes)}, off the disk`
          }}
        </v-btn>
        <span class="quiet">Their rows and reports stay; each can be made again while its clip is here</span>
      </dd>
    </dl>
  </section>
</template>

<style scoped>
.storage {
  padding: 18px 20px 0;
  border-top: 1px solid var(--rule);
}

h2 {
  display: flex;
  gap: 12px;
  align-items: baseline;
}

h2 .label {
  font-weight: 400;
}
</style>
