import { onBeforeUnmount, onMounted, type Ref } from 'vue'
import { dragMoves, type ViewVerbs, wheelZooms } from './gestures'
import type { Size } from './glass'

const KEY_PIXELS = 48

/** A canvas that is as large as its place on the screen, and is moved by wheel, drag and arrow keys. */
export function useSurface(
  canvas: Ref<HTMLCanvasElement | undefined>,
  verbs: ViewVerbs,
  resized: (size: Size) => void,
) {
  const quit = new AbortController()
  const sizes = new ResizeObserver(([entry]) => {
    const box = entry?.contentRect
    if (!box || !canvas.value || box.width < 1) {
      return
    }
    const width = Math.round(box.width * devicePixelRatio)
    const height = Math.round(box.height * devicePixelRatio)
    canvas.value.width = width
    canvas.value.height = height
    resized({ width, height })
  })
  onMounted(() => {
    const surface = canvas.value
    if (surface) {
      sizes.observe(surface)
      wheelZooms(surface, verbs, quit.signal)
      dragMoves(surface, verbs, quit.signal)
    }
  })
  onBeforeUnmount(() => {
    quit.abort()
    sizes.disconnect()
  })

  function onKey(event: KeyboardEvent) {
    const step = KEY_PIXELS * devicePixelRatio
    const moves: Record<string, () => void> = {
      ArrowLeft: () => verbs.pan(step, 0),
      ArrowRight: () => verbs.pan(-step, 0),
      ArrowUp: () => verbs.pan(0, step),
      ArrowDown: () => verbs.pan(0, -step),
    }
    const move = moves[event.key]
    if (move) {
      event.preventDefault()
      move()
    }
  }

  return { onKey }
}
