<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, onSignedOut, Problem } from './api/client'
import AppHeader from '@/components/common/AppHeader.vue'
import DropAnywhere from '@/components/common/DropAnywhere.vue'
import KeyHelp from '@/components/common/KeyHelp.vue'
import SeriesDialog from '@/components/common/SeriesDialog.vue'
import { useEarlyKeys } from './stores/earlyKeys'
import { useFeed } from './stores/feed'
import { useKeys } from './stores/keys'
import { useNotices } from './stores/notices'
import { useUploads } from './stores/uploads'

const feed = useFeed()
const notices = useNotices()
const uploads = useUploads()
const route = useRoute()
const router = useRouter()
const signedIn = ref(false)
const help = ref(false)
const keys = useKeys()

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

// a place that does not arrive: the server is gone, or a newer one has other files
router.onError(() => notices.fail(new Problem(0, 'This place could not be loaded. Load the page again.')))
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
  notices.close()
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
  const typed =
    event.target instanceof HTMLElement && event.target.closest('input, textarea, [contenteditable]')
  if (!event.ctrlKey && !event.metaKey && keys.meant(event.key) === '?' && !typed) {
    help.value = !help.value
  }
}
// `?` opens the keys wherever one is, with the focus anywhere or nowhere
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <v-app>
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
      :key="notices.text"
      :model-value="notices.shown"
      :timeout="notices.fault ? -1 : notices.undo ? 9000 : 4000"
      location="bottom"
      color="#292929"
      @update:model-value="notices.close"
    >
      <span :class="{ fault: notices.fault }" role="status">{{ notices.text }}</span>
      <template #actions>
        <v-btn v-if="notices.undo" class="link" variant="plain" @click="undo">undo</v-btn>
        <v-btn class="link" variant="plain" @click="notices.close">close</v-btn>
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
