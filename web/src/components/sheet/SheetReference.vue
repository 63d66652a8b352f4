<script setup lang="ts">
import { computed } from 'vue'
import { api, type ClipView } from '@/api/client'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'

/** The clean clip that takes are held against, where there is one of as many frames. */
const props = defineProps<{ clip: ClipView }>()
const emit = defineEmits<{ changed: [] }>()
const notices = useNotices()
const feed = useFeed()

const NONE = ''
const KEPT = 'kept'
const choices = computed(() => [
  { value: NONE, title: 'no reference' },
  ...(props.clip.hadReference ? [{ value: KEPT, title: 'its reference' }] : []),
  ...[...feed.clips.values()]
    .filter((one) => one.id !== props.clip.id && one.state === 'READY' && one.frames === props.clip.frames)
    .map((one) => ({ value: one.id, title: one.title })),
])

async function refer(chosen: string) {
  try {
    await api.refer(
      props.clip.id,
      chosen === KEPT ? { known: true } : chosen === NONE ? {} : { clip: chosen },
    )
    emit('changed')
  } catch (error) {
    notices.fail(error)
  }
}
</script>

<template>
  <v-select
    class="reference"
    :model-value="clip.hasReference ? KEPT : NONE"
    :items="choices"
    label="held against"
    aria-label="Reference"
    @update:model-value="refer"
  />
</template>

<style scoped>
.reference {
  flex: none;
  width: 170px;
}
</style>
