<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useFeed } from '@/stores/feed'
import { secondsLeft } from '@/view/renders'
import { wait } from '@/view/words'
import { useKeys } from '@/stores/keys'

const own = useKeys()
const emit = defineEmits<{ help: []; 'sign-out': [] }>()
const feed = useFeed()
const route = useRoute()

const clip = computed(() =>
  typeof route.params['clip'] === 'string' ? feed.clips.get(route.params['clip']) : undefined,
)
const bench = computed(() => {
  const id = clip.value?.id ?? [...feed.clips.values()].find((one) => one.state === 'READY')?.id
  return id ? `/bench/${id}` : undefined
})
const sheet = computed(() => bench.value?.replace('/bench/', '/sheet/'))
const queue = computed(() => {
  const open = [...feed.renders.values()].filter((one) => one.state === 'RUNNING' || one.state === 'WAITING')
  if (open.length === 0) {
    return ''
  }
  const count = open.length === 1 ? '1 render' : `${open.length} renders`
  const left = secondsLeft(open)
  return left === undefined ? count : `${count}, ${wait(left)} left`
})
</script>

<template>
  <header>
    <b>
      <svg
        width="22"
        height="22"
        viewBox="0 0 22 22"
        fill="none"
        stroke="#d99a2b"
        stroke-width="2"
        stroke-linecap="round"
        aria-hidden="true"
      >
        <path d="M4 18 13 9" />
        <path d="M13 9l5-5.5" stroke="#e8e6e1" stroke-width="4" />
      </svg>
      Awlsmith
    </b>
    <nav aria-label="Places">
      <router-link to="/shelf">Shelf</router-link>
      <router-link v-if="bench" :to="bench" :class="{ on: route.name === 'bench' }">Bench</router-link>
      <router-link v-if="sheet" :to="sheet" :class="{ on: route.name === 'sheet' }">Proof sheet</router-link>
      <router-link to="/dispatch">Dispatch</router-link>
      <router-link to="/library">Library</router-link>
      <router-link to="/guide">Guide</router-link>
    </nav>
    <span class="label where">{{ clip?.title }}</span>
    <router-link v-if="queue" class="label queue" to="/dispatch">
      <svg
        viewBox="0 0 16 16"
        width="16"
        height="16"
        fill="none"
        stroke="currentColor"
        stroke-width="1.5"
        aria-hidden="true"
      >
        <rect x="2" y="9" width="3" height="5" />
        <rect x="6.5" y="5" width="3" height="9" />
        <rect x="11" y="2" width="3" height="12" />
      </svg>
      {{ queue }}
    </router-link>
    <v-btn class="link out" variant="plain" @click="emit('sign-out')">sign out</v-btn>
    <v-btn variant="plain" class="bare ask" aria-label="Keys" @click="emit('help')"
      ><kbd>{{ own.hint('?') || '?' }}</kbd></v-btn
    >
  </header>
</template>

<style scoped>
header {
  height: 44px;
  flex: none;
  display: flex;
  align-items: center;
  padding: 0 16px;
  gap: 22px;
  border-bottom: 1px solid var(--rule);
  background: var(--ground);
}

b {
  font: 600 17px var(--label);
  letter-spacing: 0.2px;
  display: flex;
  gap: 9px;
  align-items: center;
}

nav {
  display: flex;
  gap: 18px;
}

nav a {
  color: var(--quiet);
  padding: 12px 0 10px;
  border-bottom: 2px solid transparent;
  text-decoration: none;
}

nav a:hover {
  color: var(--ink);
}

nav a.router-link-active,
nav a.on {
  color: var(--ink);
  border-color: var(--ink);
}

.where {
  margin-left: auto;
  color: var(--ink);
}

.queue {
  display: flex;
  gap: 8px;
  align-items: center;
  text-decoration: none;
}

.ask {
  background: none;
  border: 0;
  cursor: pointer;
}
</style>
