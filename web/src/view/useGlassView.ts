import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import type { ViewVerbs } from './gestures'
import {
  around,
  clamp,
  fitted,
  type Glass,
  held,
  inSource,
  panBy,
  type Point,
  type Rect,
  type Size,
  toPicture,
  zoomAt,
} from './glass'
import { keepView, keptView } from './keptView'
import { type Edge, fromEdge, halfScreen, type Look } from './paint'
import type { Sides } from './sides'

const KEEP_MS = 200
/** CSS pixels to either side of the edge in which it is taken hold of. */
const EDGE_REACH = 8
/** Share of the screen's height at either end of the edge that turns it. */
const TURNING = 0.14

/** What is looked at. */
interface Subject {
  readonly clip: string
  readonly sides: () => Sides
  /** The rectangle to keep while it is being dragged. */
  readonly crop: () => Rect | undefined
  /** How many times wider than high the source's pixels are meant to be seen. */
  readonly pixelShape: () => number
  /** A box was drawn on the source picture. */
  readonly boxed: (box: Rect) => void
}

/** Which part of both pictures is seen, how large and in which way; it is kept for the next visit. */
export function useGlassView(of: Subject) {
  const kept = keptView(of.clip)
  const screen = shallowRef<Size>({ width: 1, height: 1 })
  const glass = shallowRef<Glass>({ x: 0, y: 0, scale: 1 })
  /** To the treated frame, to both pictures, or as somebody set it. */
  const fitting = ref<'frame' | 'all' | 'none'>(kept.glass && kept.fitted === false ? 'none' : 'frame')
  const isFitted = computed(() => fitting.value !== 'none')
  const edge = shallowRef<Edge>(kept.edge ?? { at: 0.5, turn: 0 })
  const look = ref<Look>(kept.look ?? 'wipe')
  const flipped = ref(false)
  /** Pixels in the shape they are meant to be seen in; else each as a square. */
  const trueShape = ref(true)
  /** The box that is being drawn. */
  const drawn = shallowRef<Rect>()

  const aspect = computed(() => (trueShape.value ? of.pixelShape() : 1))
  const source = computed(() => of.sides().source)
  /** The treated picture's pixels to one of the screen's. */
  const treatedScale = computed(() => (glass.value.scale * source.value.height) / of.sides().placement.height)
  /** The treated frame, and both pictures together, in the source's pixels. */
  const frame = computed(() => inSource(source.value, of.sides().treated, of.sides().placement))
  const all = computed(() => around(source.value, frame.value))
  const shown = computed<Look>(() => (flipped.value || of.crop() ? 'source' : look.value))
  /** The screen that one side has for itself. */
  const sideScreen = computed(() => (shown.value === 'pair' ? halfScreen(screen.value) : screen.value))

  function lookAt(next: Glass, fit: 'frame' | 'all' | 'none' = 'none') {
    glass.value = held({ ...next, aspect: aspect.value }, all.value)
    fitting.value = fit
  }

  /** What of both pictures is worth the whole screen: the box that is kept, or the treated frame where it leaves much out. */
  function kernel(): Rect {
    const crop = of.crop()
    if (crop && crop.width >= source.value.width - 1 && crop.height >= source.value.height - 1) {
      return all.value
    }
    return crop ?? frame.value
  }

  function fit() {
    lookAt(
      fitted(fitting.value === 'all' ? all.value : kernel(), sideScreen.value, aspect.value),
      fitting.value === 'all' ? 'all' : 'frame',
    )
  }

  /** To the treated frame; there already, to all there is. */
  function fitOrAll() {
    fitting.value = fitting.value === 'frame' ? 'all' : 'frame'
    fit()
  }

  /** Sets the scale in treated pixels, the middle of the screen staying where it is. */
  function setScale(scale: number) {
    const next = (scale * of.sides().placement.height) / source.value.height
    lookAt(zoomAt(glass.value, next, { x: 0, y: 0 }))
  }

  /** Goes to a place of the source; a rectangle is made as large as it goes. */
  function goTo(rect: Rect) {
    lookAt({
      x: rect.x + rect.width / 2,
      y: rect.y + rect.height / 2,
      scale: Math.max(glass.value.scale, (4 * of.sides().placement.height) / source.value.height),
    })
  }

  /** The screen has another size; the first one brings back what was seen last. */
  function resize(size: Size) {
    const isFirst = screen.value.width < 2
    screen.value = size
    if (isFirst && kept.glass && !isFitted.value) {
      lookAt(kept.glass)
    } else if (isFitted.value) {
      fit()
    }
  }

  /** From the middle of the screen to the middle of the side that lies there. */
  function onSide(at: Point): Point {
    if (shown.value !== 'pair') {
      return at
    }
    const quarter = screen.value.width / 4
    return { x: at.x < 0 ? at.x + quarter : at.x - quarter, y: at.y }
  }

  /** The source's pixel at a place of the screen, told from its middle. */
  function pictureAt(at: Point): Point {
    const { width, height } = sideScreen.value
    const mine = onSide(at)
    return toPicture(glass.value, sideScreen.value, { x: mine.x + width / 2, y: mine.y + height / 2 })
  }

  /** What is seen of the source. */
  function seenPart(): Rect {
    const { width, height } = sideScreen.value
    const a = toPicture(glass.value, sideScreen.value, { x: 0, y: 0 })
    const b = toPicture(glass.value, sideScreen.value, { x: width, y: height })
    const x = clamp(a.x, 0, source.value.width)
    const y = clamp(a.y, 0, source.value.height)
    return {
      x,
      y,
      width: clamp(b.x, x, source.value.width) - x,
      height: clamp(b.y, y, source.value.height) - y,
    }
  }

  const verbs: ViewVerbs = {
    zoom(factor, at) {
      const scale = held({ ...glass.value, scale: glass.value.scale * factor }, all.value).scale
      lookAt(zoomAt(glass.value, scale, onSide(at)))
    },
    pan(dx, dy) {
      lookAt(panBy(glass.value, dx, dy))
    },
    moveEdge(dx, dy) {
      const turn = (edge.value.turn * Math.PI) / 180
      // only what goes across the edge moves it
      const across = (dx * Math.cos(turn) + dy * Math.sin(turn)) / Math.max(0.2, Math.cos(turn))
      edge.value = { ...edge.value, at: clamp(edge.value.at + across / screen.value.width, 0, 1) }
    },
    turnEdge(at) {
      const middle = (edge.value.at - 0.5) * screen.value.width
      const away = at.y < 0 ? { x: at.x - middle, y: at.y } : { x: middle - at.x, y: -at.y }
      const turn = (Math.atan2(away.x, -away.y) * 180) / Math.PI
      // upright holds a little, so that it can be found again
      edge.value = { ...edge.value, turn: Math.abs(turn) < 2 ? 0 : clamp(Math.round(turn), -85, 85) }
    },
    nearEdge(at) {
      const { width, height } = screen.value
      const far = fromEdge(screen.value, edge.value, { x: at.x + width / 2, y: at.y + height / 2 })
      if (shown.value !== 'wipe' || Math.abs(far) > EDGE_REACH * devicePixelRatio) {
        return undefined
      }
      return Math.abs(at.y) > (0.5 - TURNING) * height ? 'end' : 'line'
    },
    box(from, to, done) {
      const a = pictureAt(from)
      const b = pictureAt(to)
      const rect = {
        x: Math.min(a.x, b.x),
        y: Math.min(a.y, b.y),
        width: Math.abs(a.x - b.x),
        height: Math.abs(a.y - b.y),
      }
      drawn.value = done ? undefined : rect
      if (done && rect.width >= 4 && rect.height >= 4) {
        of.boxed(rect)
      }
    },
  }

  watch(sideScreen, () => isFitted.value && fit())
  watch(aspect, () => (isFitted.value ? fit() : lookAt(glass.value)))
  watch(
    // by value: another recipe for a picture of the same size leaves the view where it is
    () => `${source.value.width}x${source.value.height}`,
    () => fit(),
  )
  watch(all, () => {
    // a box that is being drawn must not run away
    if (isFitted.value && !of.crop()) {
      fit()
    }
  })
  watch(
    () => of.crop() !== undefined,
    () => isFitted.value && fit(),
  )

  let keeping: ReturnType<typeof setTimeout> | undefined
  watch([glass, fitting, look, edge], () => {
    clearTimeout(keeping)
    keeping = setTimeout(keep, KEEP_MS)
  })
  function keep() {
    clearTimeout(keeping)
    keepView(of.clip, { glass: glass.value, fitted: isFitted.value, look: look.value, edge: edge.value })
  }
  onScopeDispose(keep)

  return {
    screen,
    glass,
    isFitted,
    edge,
    look,
    flipped,
    trueShape,
    drawn,
    source,
    frame,
    treatedScale,
    shown,
    sideScreen,
    verbs,
    fitOrAll,
    setScale,
    goTo,
    resize,
    pictureAt,
    seenPart,
  }
}
