import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { Problem } from '@/api/client'

/** One sentence at a time, shown at the foot of the page. */
export const useNotices = defineStore('notices', () => {
  const text = ref('')
  const fault = ref(false)
  const shown = ref(false)
  /** Takes back what the sentence tells of. */
  const undo = shallowRef<() => void>()

  /** @param back takes back what was done */
  function say(sentence: string, back?: () => void) {
    undo.value = back
    text.value = sentence
    fault.value = false
    shown.value = true
  }

  function fail(error: unknown) {
    if (error instanceof DOMException && error.name === 'AbortError') {
      return
    }
    undo.value = undefined
    text.value = error instanceof Problem ? error.message : 'something went wrong on this page; load it again'
    fault.value = true
    shown.value = true
  }

  return { text, fault, shown, undo, say, fail }
})
