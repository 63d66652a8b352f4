import { onScopeDispose, watch } from 'vue'
import { useEarlyKeys } from '@/stores/earlyKeys'
import { useKeys } from '@/stores/keys'

/** What keys do on the bench, by the key's name; what is held is told again when it is let go. */
export interface Keys {
  readonly down: Record<string, () => void>
  readonly up: Record<string, () => void>
  undo(): void
  redo(): void
}

const TAKES_KEYS = 'input, textarea, select, [role="listbox"], [role="dialog"], [contenteditable]'
/** Keys that press a button which has the focus. */
const PRESSES = [' ', 'Enter']

/** A key may also come from the window itself. */
function asElement(target: EventTarget | null): Element | undefined {
  return target instanceof Element ? target : undefined
}

/**
 * Hears keys anywhere on the page, except where something else takes them.
 *
 * @param ready whether what they act on is there; keys pressed before are done then
 */
export function useBenchKeys(keys: () => Keys, ready: () => boolean) {
  const stop = new AbortController()
  const early = useEarlyKeys()
  const own = useKeys()
  let taking = false
  watch(
    ready,
    (now) => {
      if (now && !taking) {
        taking = true
        early.begin().forEach(onKey)
      }
    },
    // what they act on is drawn
    { immediate: true, flush: 'post' },
  )
  onScopeDispose(() => {
    if (taking) {
      early.end()
    }
  })
  window.addEventListener('keydown', onKey, { signal: stop.signal })
  window.addEventListener('keyup', onKeyUp, { signal: stop.signal })
  // a button that was clicked with the pointer must not take the keys that follow
  window.addEventListener('click', letGo, { signal: stop.signal })
  onScopeDispose(() => stop.abort())

  function letGo(event: MouseEvent) {
    const button = asElement(event.target)?.closest<HTMLElement>('button')
    if (event.detail > 0 && button && !button.closest('[role="dialog"]')) {
      button.blur()
    }
  }

  function onKey(event: KeyboardEvent) {
    if (!taking) {
      return
    }
    const target = asElement(event.target)
    if (target?.closest(TAKES_KEYS) || (PRESSES.includes(event.key) && target?.closest('button, a'))) {
      return
    }
    const { down, undo, redo } = keys()
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      return event.shiftKey ? redo() : undo()
    }
    if (event.ctrlKey || event.metaKey || event.altKey) {
      return
    }
    const act = down[own.meant(event.key) ?? '']
    if (act) {
      event.preventDefault()
      act()
    }
  }

  function onKeyUp(event: KeyboardEvent) {
    keys().up[own.meant(event.key) ?? '']?.()
  }
}
