import { defineStore } from 'pinia'

const MOST = 20
/** Older ones were meant for something else. */
const LONGEST_MS = 5000

/** Keys pressed while a place is still opening: it gets them, in order, as soon as it can take them. */
export const useEarlyKeys = defineStore('earlyKeys', () => {
  let held: { event: KeyboardEvent; at: number }[] = []
  let ready = 0

  /** Keeps a key while nobody takes keys. */
  function hold(event: KeyboardEvent) {
    if (ready === 0 && !event.repeat) {
      held = [...held, { event, at: Date.now() }].slice(-MOST)
    }
  }

  function forget() {
    held = []
  }

  /** Somebody takes keys from now on; gets those that were held. */
  function begin(): KeyboardEvent[] {
    ready += 1
    const fresh = held.filter(({ at }) => Date.now() - at < LONGEST_MS).map(({ event }) => event)
    held = []
    return fresh
  }

  function end() {
    ready -= 1
  }

  return { hold, forget, begin, end }
})
