import { pageName } from '@/api/client'

const PREFIX = 'awlsmith-unsaved/'
/** A window that is still open marks its changes anew at every try to save them; older ones were left by a closed one. */
const LEFT_AFTER_MS = 8000

/** Changes of a take that the server has not got yet. */
export interface Unsaved<State> {
  readonly version: number
  readonly states: readonly State[]
}

interface Kept<State> extends Unsaved<State> {
  readonly at: number
}

const keyOf = (take: string, page: string) => `${PREFIX}${take}/${page}`

/** Keeps this window's unsaved changes where they survive its closing; none forgets them. */
export function keepUnsaved<State>(take: string, unsaved?: Unsaved<State>) {
  try {
    if (unsaved && unsaved.states.length > 0) {
      localStorage.setItem(keyOf(take, pageName), JSON.stringify({ ...unsaved, at: Date.now() }))
    } else {
      localStorage.removeItem(keyOf(take, pageName))
    }
  } catch {
    // a browser that keeps nothing: the changes live as long as the page
  }
}

/** Takes over what a closed window left of a take, once; undefined when there is nothing. */
export function takeUnsaved<State>(take: string): Unsaved<State> | undefined {
  try {
    for (const key of Object.keys(localStorage)) {
      if (key.startsWith(`${PREFIX}${take}/`)) {
        const kept = JSON.parse(localStorage.getItem(key) ?? '') as Kept<State>
        const mine = key === keyOf(take, pageName)
        if (mine || Date.now() - kept.at > LEFT_AFTER_MS) {
          localStorage.removeItem(key)
          return { version: kept.version, states: kept.states }
        }
      }
    }
  } catch {
    // what cannot be read is not taken over
  }
  return undefined
}
