import { defineStore } from 'pinia'
import { ref } from 'vue'
import { Problem } from '@/api/client'

/** One sentence at a time, shown at the foot of the page. */
export const useNotices = defineStore('notices', () => {
  const text = ref('')
  const fault = ref(false)
  const shown = ref(false)

  function say(sentence: string) {
    text.value = sentence
    fault.value = false
    shown.value = true
  }

  function fail(error: unknown) {
    if (error instanceof DOMException && error.name === 'AbortError') {
      return
    }
    text.value = error instanceof Problem ? error.message : 'something went wrong on this page; load it again'
    fault.value = true
    shown.value = true
  }

  return { text, fault, shown, say, fail }
})
