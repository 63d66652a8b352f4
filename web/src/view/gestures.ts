import type { Point } from './glass'

/** What gestures may do to a view; points count from the screen's centre, in device pixels. */
export interface ViewVerbs {
  zoom(factor: number, at: Point): void
  pan(dx: number, dy: number): void
  moveEdge(share: number): void
  /** Whether a point (in CSS pixels from the left) is near enough to the wipe's edge to take hold of it. */
  nearEdge(x: number): boolean
}

const ZOOM_PER_PIXEL = 1.0022
const PIXELS_PER_LINE = 16
/** One notch of a wheel never zooms further than this. */
const MOST_PER_EVENT = 240

export type Gesture = (surface: HTMLElement, view: ViewVerbs, signal: AbortSignal) => void

export const wheelZooms: Gesture = (surface, view, signal) =>
  surface.addEventListener(
    'wheel',
    (event) => {
      event.preventDefault()
      const pixels =
        event.deltaMode === WheelEvent.DOM_DELTA_LINE ? event.deltaY * PIXELS_PER_LINE : event.deltaY
      const held = Math.max(-MOST_PER_EVENT, Math.min(MOST_PER_EVENT, pixels))
      view.zoom(ZOOM_PER_PIXEL ** -held, fromCentre(surface, event))
    },
    { passive: false, signal },
  )

/** A drag that begins at the wipe's edge moves it; any other moves the picture. */
export const dragMoves: Gesture = (surface, view, signal) => {
  surface.addEventListener(
    'pointerdown',
    (down) => {
      if (down.button !== 0) {
        return
      }
      const box = surface.getBoundingClientRect()
      const edge = view.nearEdge(down.clientX - box.left)
      surface.setPointerCapture(down.pointerId)
      let last = down
      const done = new AbortController()
      const until = { signal: done.signal }
      surface.addEventListener(
        'pointermove',
        (move) => {
          if (edge) {
            view.moveEdge((move.clientX - box.left) / box.width)
          } else {
            view.pan(
              (move.clientX - last.clientX) * devicePixelRatio,
              (move.clientY - last.clientY) * devicePixelRatio,
            )
          }
          last = move
        },
        until,
      )
      for (const end of ['pointerup', 'pointercancel', 'lostpointercapture'] as const) {
        surface.addEventListener(end, () => done.abort(), until)
      }
      signal.addEventListener('abort', () => done.abort(), until)
    },
    { signal },
  )
}

function fromCentre(surface: HTMLElement, event: MouseEvent): Point {
  const box = surface.getBoundingClientRect()
  return {
    x: (event.clientX - box.left - box.width / 2) * devicePixelRatio,
    y: (event.clientY - box.top - box.height / 2) * devicePixelRatio,
  }
}
