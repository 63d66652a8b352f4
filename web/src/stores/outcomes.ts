import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { RenderView } from '@/api/client'

const KEPT = 'awlsmith.outcomes'

/** Tells through the browser when a render has ended, where somebody asked for it: the page may lie behind others. */
export const useOutcomes = defineStore('outcomes', () => {
  const canTell = 'Notification' in window
  const isWanted = ref(false)
  try {
    isWanted.value = canTell && localStorage.getItem(KEPT) === 'yes' && Notification.permission === 'granted'
  } catch {
    // a browser that keeps nothing tells nothing until it is asked to
  }

  /** @returns whether the browser lets us */
  async function want(is: boolean): Promise<boolean> {
    isWanted.value = is && canTell && (await Notification.requestPermission()) === 'granted'
    try {
      localStorage.setItem(KEPT, isWanted.value ? 'yes' : 'no')
    } catch {
      // it is asked anew with the next page
    }
    return isWanted.value === is
  }

  /** @param before the same render as it was known; none where it is new here */
  function heard(before: RenderView | undefined, now: RenderView) {
    const hasEnded = before?.state === 'RUNNING' && (now.state === 'DONE' || now.state === 'FAILED')
    if (!isWanted.value || !hasEnded) {
      return
    }
    const title = now.state === 'DONE' ? `${now.fileName} is sent out` : `${now.fileName} failed`
    new Notification(title, { body: now.problem ?? `${now.clipTitle}, take ${now.takeName}`, tag: now.id })
  }

  return { canTell, isWanted, want, heard }
})
