<script setup lang="ts">
import { onScopeDispose, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useUploads } from '@/stores/uploads'
import { droppedFiles } from '@/view/dropped'

/** Takes files dropped on any page. */
const uploads = useUploads()
const router = useRouter()
const over = ref(false)
const stop = new AbortController()
let depth = 0

function carriesFiles(event: DragEvent): boolean {
  return event.dataTransfer?.types.includes('Files') ?? false
}

function listen<K extends keyof WindowEventMap>(name: K, act: (event: WindowEventMap[K]) => void) {
  window.addEventListener(name, act, { signal: stop.signal })
}

listen('dragenter', (event) => {
  if (carriesFiles(event)) {
    depth++
    over.value = true
  }
})
listen('dragleave', () => {
  depth = Math.max(0, depth - 1)
  over.value = depth > 0
})
listen('dragover', (event) => {
  if (carriesFiles(event)) {
    event.preventDefault()
  }
})
listen('drop', (event) => {
  depth = 0
  over.value = false
  if (carriesFiles(event) && event.dataTransfer) {
    event.preventDefault()
    void droppedFiles(event.dataTransfer).then(uploads.offer)
    void router.push('/shelf')
  }
})
onScopeDispose(() => stop.abort())
</script>

<template>
  <div v-if="over" class="over"><span>Drop to take in</span></div>
</template>

<style scoped>
.over {
  position: fixed;
  inset: 0;
  z-index: 3000;
  display: grid;
  place-items: center;
  pointer-events: none;
  background: rgb(22 22 22 / 72%);
  border: 2px solid var(--source);
  font: 600 22px var(--label);
}
</style>
