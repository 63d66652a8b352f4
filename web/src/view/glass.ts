/** Where one looks: the point of the source picture (in its pixels) at the screen's centre, and how large it is seen. */
export interface Glass {
  readonly x: number
  readonly y: number
  /** Screen pixels (of the device) to one source pixel, down. */
  readonly scale: number
  /** How many times wider than high a source pixel is shown; 1 where nothing is said. */
  readonly aspect?: number
}

/** Screen pixels to one source pixel, across. */
function scaleAcross(glass: Glass): number {
  return glass.scale * (glass.aspect ?? 1)
}

export interface Size {
  readonly width: number
  readonly height: number
}

export interface Point {
  readonly x: number
  readonly y: number
}

export interface Rect extends Point, Size {}

const LARGEST_SCALE = 64
const SMALLEST_PICTURE = 32

export function clamp(value: number, low: number, high: number): number {
  return Math.min(Math.max(value, low), high)
}

/** A rectangle as large as it goes on the screen. */
export function fitted(rect: Rect, screen: Size, aspect = 1): Glass {
  return {
    x: rect.x + rect.width / 2,
    y: rect.y + rect.height / 2,
    scale: Math.min(screen.width / (rect.width * aspect), screen.height / rect.height) || 1,
    aspect,
  }
}

/**
 * Where another picture lies in the source's pixels.
 *
 * @param place where the source lies in that picture, in its pixels
 */
export function inSource(source: Size, size: Size, place: Rect): Rect {
  const perX = place.width / source.width
  const perY = place.height / source.height
  return {
    x: (0 - place.x) / perX,
    y: (0 - place.y) / perY,
    width: size.width / perX,
    height: size.height / perY,
  }
}

/** The smallest rectangle around the source picture and another rectangle in its pixels. */
export function around(source: Size, rect: Rect): Rect {
  const x = Math.min(0, rect.x)
  const y = Math.min(0, rect.y)
  return {
    x,
    y,
    width: Math.max(source.width, rect.x + rect.width) - x,
    height: Math.max(source.height, rect.y + rect.height) - y,
  }
}

/** Zooms so that the picture's point under `at` (from the screen's centre) stays where it is. */
export function zoomAt(glass: Glass, scale: number, at: Point): Glass {
  const shift = 1 / glass.scale - 1 / scale
  return { ...glass, x: glass.x + (at.x * shift) / (glass.aspect ?? 1), y: glass.y + at.y * shift, scale }
}

export function panBy(glass: Glass, dx: number, dy: number): Glass {
  return { ...glass, x: glass.x - dx / scaleAcross(glass), y: glass.y - dy / glass.scale }
}

/** Keeps some of a rectangle in sight and the scale within reason. */
export function held(glass: Glass, rect: Rect): Glass {
  const least = SMALLEST_PICTURE / Math.max(rect.width, rect.height)
  return {
    ...glass,
    x: clamp(glass.x, rect.x, rect.x + rect.width),
    y: clamp(glass.y, rect.y, rect.y + rect.height),
    scale: clamp(glass.scale, least, LARGEST_SCALE),
  }
}

/** A rectangle of the source picture on the screen, whose origin is its top left corner. */
export function toScreen(glass: Glass, screen: Size, rect: Rect): Rect {
  const across = scaleAcross(glass)
  return {
    x: (rect.x - glass.x) * across + screen.width / 2,
    y: (rect.y - glass.y) * glass.scale + screen.height / 2,
    width: rect.width * across,
    height: rect.height * glass.scale,
  }
}

/** The source picture's point under a point of the screen. */
export function toPicture(glass: Glass, screen: Size, at: Point): Point {
  return {
    x: (at.x - screen.width / 2) / scaleAcross(glass) + glass.x,
    y: (at.y - screen.height / 2) / glass.scale + glass.y,
  }
}

/** Which part of a picture must be fetched for this view. */
export interface Wanted {
  /** In the fetched picture's own pixels, on multiples of `reduce`. */
  readonly part: Rect
  /** One fetched pixel for reduce x reduce; a power of two. */
  readonly reduce: number
}

/**
 * The visible part of a picture in which the source lies somewhere.
 *
 * @param size of the picture in its own pixels
 * @param place where the source lies in it, in its pixels
 * @param margin share of the screen fetched around the visible part, so that small moves need nothing new
 */
export function wanted(
  glass: Glass,
  screen: Size,
  source: Size,
  size: Size,
  place: Rect,
  margin: number,
): Wanted {
  const perX = place.width / source.width
  const perY = place.height / source.height
  // by the way in which more of them are seen
  const seen = Math.max(scaleAcross(glass) / perX, glass.scale / perY)
  const reduce = seen >= 1 ? 1 : 2 ** Math.floor(Math.log2(1 / seen))
  const topLeft = toPicture(glass, screen, { x: -margin * screen.width, y: -margin * screen.height })
  const bottomRight = toPicture(glass, screen, {
    x: (1 + margin) * screen.width,
    y: (1 + margin) * screen.height,
  })
  const step = Math.max(2, reduce)
  const left = clamp(Math.floor((place.x + topLeft.x * perX) / step) * step, 0, size.width - 1)
  const top = clamp(Math.floor((place.y + topLeft.y * perY) / step) * step, 0, size.height - 1)
  const right = clamp(Math.ceil((place.x + bottomRight.x * perX) / step) * step, left + 1, size.width)
  const bottom = clamp(Math.ceil((place.y + bottomRight.y * perY) / step) * step, top + 1, size.height)
  return { part: { x: left, y: top, width: right - left, height: bottom - top }, reduce }
}

/** Whether what was fetched still serves a view. */
export function serves(have: Wanted, need: Wanted): boolean {
  return (
    have.reduce === need.reduce &&
    have.part.x <= need.part.x &&
    have.part.y <= need.part.y &&
    have.part.x + have.part.width >= need.part.x + need.part.width &&
    have.part.y + have.part.height >= need.part.y + need.part.height
  )
}
