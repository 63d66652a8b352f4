import { defineStore } from 'pinia'
import { ref, watch } from 'vue'

const KEPT = 'awlsmith.keys'

/** What somebody changed about keys in this browser. */
interface Kept {
  single: boolean
  /** By the usual key, the one that stands for it now. */
  changed: Record<string, string>
}

function kept(): Kept {
  try {
    const had = JSON.parse(localStorage.getItem(KEPT) ?? '{}') as Partial<Kept>
    const changed = Object.entries(had.changed ?? {}).filter(([, key]) => typeof key === 'string')
    return { single: had.single !== false, changed: Object.fromEntries(changed) }
  } catch {
    return { single: true, changed: {} }
  }
}

/** Whether a key is a single character, which speech and shaky hands may press unmeant (WCAG 2.2, 2.1.4). */
export function isSingle(key: string): boolean {
  return key.length === 1 && key !== ' '
}

/** Single keys, which can be switched off and exchanged for others. */
export const useKeys = defineStore('keys', () => {
  const { single: on, changed: others } = kept()
  const single = ref(on)
  const changed = ref(others)
  watch(
    [single, changed],
    () => {
      try {
        localStorage.setItem(KEPT, JSON.stringify({ single: single.value, changed: changed.value }))
      } catch {
        // a browser that keeps nothing has the usual keys with the next page
      }
    },
    { deep: true },
  )

  /** The usual key that a pressed one stands for; none where it stands for nothing now. */
  function meant(key: string): string | undefined {
    if (isSingle(key) && !single.value) {
      return undefined
    }
    const usual = Object.entries(changed.value).find(([, own]) => own === key)?.[0]
    return usual ?? (key in changed.value ? undefined : key)
  }

  /** The key to press now for a usual one. */
  function now(usual: string): string {
    return changed.value[usual] ?? usual
  }

  /** How a usual key is told beside what it does; empty while it does nothing. */
  function hint(usual: string): string {
    if (isSingle(usual) && !single.value) {
      return ''
    }
    const key = now(usual)
    const isShifted = key.length === 1 && key !== key.toLowerCase()
    return isShifted ? `Shift ${key}` : key.length === 1 ? key.toUpperCase() : key
  }

  /** What something does, with its key behind. */
  function withKey(text: string, usual: string): string {
    const key = hint(usual)
    return key === '' ? text : `${text} (${key})`
  }

  /**
   * Lets another key stand for a usual one; one that has a meaning already changes places with it.
   *
   * @return false where the key cannot stand for anything
   */
  function change(usual: string, key: string): boolean {
    if (!isSingle(key)) {
      return false
    }
    const next = { ...changed.value }
    const had = meant(key)
    const old = now(usual)
    if (had !== undefined && had !== usual) {
      next[had] = old
    }
    next[usual] = key
    changed.value = Object.fromEntries(Object.entries(next).filter(([from, to]) => from !== to))
    return true
  }

  function reset() {
    single.value = true
    changed.value = {}
  }

  return { single, changed, meant, now, hint, withKey, change, reset }
})
