import type { Point } from './glass'

/** What gestures may do to a view; points count from the screen's centre, in device pixels. */
export interface ViewVerbs {
  zoom(factor: number, at: Point): void
  pan(dx: number, dy: number): void
  /** Moves the wipe's edge by device pixels, or turns it so that it goes through a point. */
  moveEdge(dx: number, dy: number): void
  turnEdge(at: Point): void
  /** Whether a point is near enough to the wipe's edge to take hold of it, and of which part. */
  nearEdge(at: Point): 'line' | 'end' | undefined
  /** A box being drawn from one point to another; done when it is let go. */
  box(from: Point, to: Point, done: boolean): void
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

/** A drag that begins at the wipe's edge moves or turns it, one with Shift draws a box; any other moves the picture. */
export const dragMoves: Gesture = (surface, view, signal) => {
  surface.addEventListener(
    'pointerdown',
    (down) => {
      if (down.button !== 0) {
        return
      }
      const start = fromCentre(surface, down)
      const edge = down.shiftKey ? undefined : view.nearEdge(start)
      surface.setPointerCapture(down.pointerId)
      let last = start
      const done = new AbortController()
      const until = { signal: done.signal }
      surface.addEventListener(
        'pointermove',
        (move) => {
          const now = fromCentre(surface, move)
          if (down.shiftKey) {
            view.box(start, now, false)
          } else if (edge === 'end') {
            view.turnEdge(now)
          } else if (edge === 'line') {
            view.moveEdge(now.x - last.x, now.y - last.y)
          } else {
            view.pan(now.x - last.x, now.y - last.y)
          }
          last = now
        },
        until,
      )
      for (const end of ['pointerup', 'pointercancel', 'lostpointercapture'] as const) {
        surface.addEventListener(
          end,
          () => {
            done.abort()
            if (down.shiftKey && end === 'pointerup') {
              view.box(start, last, true)
            }
          },
          until,
        )
      }
      signal.addEventListener('abort', () => done.abort(), until)
    },
    { signal },
  )
}

/** A pointer's place in device pixels from the middle of a surface. */
export function fromCentre(surface: HTMLElement, event: MouseEvent): Point {
  const box = surface.getBoundingClientRect()
  return {
    x: (event.clientX - box.left - box.width / 2) * devicePixelRatio,
    y: (event.clientY - box.top - box.height / 2) * devicePixelRatio,
  }
}
