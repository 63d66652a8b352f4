<script setup lang="ts">
import { onMounted, shallowRef, watch } from 'vue'
import { api, type ClipView } from '@/api/client'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'

/** Clips taken off the shelf within the last day. */
const feed = useFeed()
const notices = useNotices()
const aside = shallowRef<ClipView[]>([])

async function load() {
  aside.value = await api.aside().catch(() => aside.value)
}
onMounted(load)
watch(() => feed.clips.size, load)

async function act(what: Promise<unknown>) {
  await what.catch(notices.fail)
  await load()
}
</script>

<template>
  <div v-if="aside.length" class="aside" data-test="aside">
    <span class="label">Taken off the shelf, kept for a day:</span>
    <span v-for="clip in aside" :key="clip.id" class="one">
      {{ clip.title }}
      <v-btn class="link" variant="plain" @click="act(api.takeBack(clip.id))">take back</v-btn>
      <v-btn
        class="link"
        variant="plain"
        title="Removes it with its takes and what was sent out from it; the file it was taken in from is not touched"
        @click="act(api.removeClip(clip.id))"
      >
        remove for good
      </v-btn>
    </span>
  </div>
</template>

<style scoped>
.aside {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 20px;
  align-items: baseline;
  padding: 14px 20px;
  border-top: 1px solid var(--rule);
}

.one {
  display: flex;
  gap: 10px;
}
</style>
