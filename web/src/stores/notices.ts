import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { Problem } from '@/api/client'

interface Notice {
  readonly text: string
  readonly fault: boolean
  /** Takes back what the sentence tells of. */
  readonly undo?: (() => void) | undefined
}

/** Faults that wait to be read behind the first. */
const MOST = 5

/** One sentence at a time at the foot of the page; what went wrong stays until it was read. */
export const useNotices = defineStore('notices', () => {
  const waiting = ref<Notice[]>([])
  const now = computed(() => waiting.value[0])
  const text = computed(() => now.value?.text ?? '')
  const fault = computed(() => now.value?.fault === true)
  const undo = computed(() => now.value?.undo)
  const shown = computed(() => now.value !== undefined)

  function add(one: Notice) {
    const faults = waiting.value.filter((other) => other.fault && other.text !== one.text)
    waiting.value = one.fault ? [...faults, one].slice(-MOST) : [...faults, one]
  }

  /** @param back takes back what was done */
  function say(sentence: string, back?: () => void) {
    add({ text: sentence, fault: false, undo: back })
  }

  function fail(error: unknown) {
    if (error instanceof DOMException && error.name === 'AbortError') {
      return
    }
    add({
      text: error instanceof Problem ? error.message : 'something went wrong on this page; load it again',
      fault: true,
    })
  }

  function close() {
    waiting.value = waiting.value.slice(1)
  }

  return { text, fault, shown, undo, say, fail, close }
})
