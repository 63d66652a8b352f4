<script setup lang="ts">
import { computed } from 'vue'
import BenchClip from '@/components/bench/BenchClip.vue'
import { useFeed } from '@/stores/feed'

const props = defineProps<{ clip: string }>()
const feed = useFeed()
const view = computed(() => feed.clips.get(props.clip))
</script>

<template>
  <BenchClip v-if="view?.state === 'READY'" :key="view.id" :clip="view" />
  <p v-else-if="view?.state === 'READING'" class="note quiet" role="status">
    {{ view.title }} is being read, {{ Math.round(100 * view.progress) }} %. It opens by itself.
  </p>
  <p v-else-if="view" class="note fault">{{ view.title }} cannot be worked on: {{ view.problem }}</p>
  <p v-else-if="feed.loaded" class="note quiet">
    This clip is not on the shelf any more. <router-link to="/shelf" class="link">To the shelf</router-link>
  </p>
</template>

<style scoped>
.note {
  padding: 80px 20px;
  text-align: center;
}
</style>
