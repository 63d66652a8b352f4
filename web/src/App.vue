<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, onSignedOut } from './api/client'
import AppHeader from './components/AppHeader.vue'
import DropAnywhere from './components/DropAnywhere.vue'
import KeyHelp from './components/KeyHelp.vue'
import SeriesDialog from './components/SeriesDialog.vue'
import { useEarlyKeys } from './stores/earlyKeys'
import { useFeed } from './stores/feed'
import { useNotices } from './stores/notices'
import { useUploads } from './stores/uploads'

const feed = useFeed()
const notices = useNotices()
const uploads = useUploads()
const route = useRoute()
const router = useRouter()
const signedIn = ref(false)
const help = ref(false)

const earlyKeys = useEarlyKeys()
onMounted(async () => {
  window.addEventListener('keydown', holdKey)
  await router.isReady()
  await enter()
})
onBeforeUnmount(() => window.removeEventListener('keydown', holdKey))

/** Keys of a place that is still opening are kept until it can take them. */
function holdKey(event: KeyboardEvent) {
  if (signedIn.value && (route.name === 'bench' || route.name === 'sheet')) {
    earlyKeys.hold(event)
  } else {
    earlyKeys.forget()
  }
}

onBeforeUnmount(onSignedOut(() => void leave()))

/** To signing in, and from there back to here. */
async function leave() {
  if (!signedIn.value) {
    return
  }
  signedIn.value = false
  feed.disconnect()
  await router.push({ path: '/sign-in', query: { to: route.fullPath, out: '' } })
}

async function signOut() {
  try {
    await api.signOut()
    signedIn.value = false
    feed.disconnect()
    await router.push('/sign-in')
  } catch (error) {
    notices.fail(error)
  }
}

/** An address of our own only: what stands in a link may lead anywhere. */
function wayBack(): string {
  const to = route.query['to']
  return typeof to === 'string' && /^\/(?![/\\])/.test(to) ? to : '/shelf'
}

function undo() {
  notices.undo?.()
  notices.shown = false
}

async function enter() {
  try {
    const session = await api.session()
    signedIn.value = session.signedIn
    if (!session.signedIn) {
      const to = route.name === 'sign-in' ? route.query : { ...route.query, to: route.fullPath }
      await router.replace({ path: '/sign-in', query: to })
      return
    }
    uploads.largest = session.largestUpload
    feed.connect()
    if (route.name === 'sign-in') {
      await router.replace(wayBack())
    }
  } catch (error) {
    notices.fail(error)
    setTimeout(enter, 2000)
  }
}

function onKey(event: KeyboardEvent) {
  if (event.key === '?' && !(event.target instanceof HTMLInputElement)) {
    help.value = !help.value
  }
}
</script>

<template>
  <v-app @keydown="onKey">
    <template v-if="signedIn">
      <AppHeader @help="help = true" @sign-out="signOut" />
      <div v-if="feed.link === 'lost'" class="lost" role="status">
        The connection to the server is lost. What you did is kept; this page goes on as soon as it answers.
      </div>
      <v-main class="main"><router-view /></v-main>
      <DropAnywhere />
      <SeriesDialog />
      <KeyHelp v-model="help" />
    </template>
    <v-main v-else class="main"><router-view v-if="route.name === 'sign-in'" @signed-in="enter" /></v-main>
    <v-snackbar
      v-model="notices.shown"
      :timeout="notices.fault || notices.undo ? 9000 : 4000"
      location="bottom"
      color="#292929"
    >
      <span :class="{ fault: notices.fault }" role="status">{{ notices.text }}</span>
      <template #actions>
        <button v-if="notices.undo" class="link" type="button" @click="undo">undo</button>
        <button class="link" type="button" @click="notices.shown = false">close</button>
      </template>
    </v-snackbar>
  </v-app>
</template>

<style scoped>
.main {
  min-height: calc(100vh - 44px);
}

.lost {
  background: #4a2c22;
  padding: 6px 16px;
  font-family: var(--label);
}
</style>
