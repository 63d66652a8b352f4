import { defineStore } from 'pinia'
import { ref } from 'vue'

const KEPT = 'awlsmith.fresh'

function kept(): string[] {
  try {
    const had: unknown = JSON.parse(localStorage.getItem(KEPT) ?? '[]')
    return Array.isArray(had) ? had.filter((one) => typeof one === 'string') : []
  } catch {
    return []
  }
}

/** Clips that arrived while somebody was here and that nobody has looked at in this browser yet. */
export const useFresh = defineStore('fresh', () => {
  const ids = ref(new Set(kept()))

  function keep(next: Set<string>) {
    ids.value = next
    try {
      localStorage.setItem(KEPT, JSON.stringify([...next]))
    } catch {
      // a browser that keeps nothing forgets what is new with the page
    }
  }

  function arrived(id: string) {
    keep(new Set([...ids.value, id]))
  }

  function looked(id: string) {
    if (ids.value.has(id)) {
      keep(new Set([...ids.value].filter((one) => one !== id)))
    }
  }

  return { ids, arrived, looked }
})
