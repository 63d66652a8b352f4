import { onScopeDispose } from 'vue'

/** Draws once in the next animation frame after any number of changes; rests while nothing changes. */
export function useDrawLoop(draw: () => void) {
  let frame = 0
  onScopeDispose(() => cancelAnimationFrame(frame))
  return {
    invalidate() {
      frame ||= requestAnimationFrame(() => {
        frame = 0
        draw()
      })
    },
  }
}
