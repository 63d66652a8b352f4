<script setup lang="ts">
import { computed } from 'vue'
import SheetClip from '@/components/sheet/SheetClip.vue'
import { useFeed } from '@/stores/feed'

const props = defineProps<{ clip: string }>()
const feed = useFeed()
const view = computed(() => feed.clips.get(props.clip))
</script>

<template>
  <SheetClip v-if="view?.state === 'READY'" :key="view.id" :clip="view" />
  <p v-else-if="view" class="note quiet" role="status">
    {{ view.title }} {{ view.state === 'READING' ? 'is being read. It opens by itself.' : view.problem }}
  </p>
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
