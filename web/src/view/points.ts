export interface Point {
  x: number
  y: number
}

/** Points as they are written in recipes, {@code 0:0,0.5:0.6,1:1}; none when the text is no such thing. */
export function pointsOf(text: string): Point[] {
  const points = text.split(',').map((pair) => {
    const two = pair.split(':')
    return two.length === 2 ? { x: Number(two[0]), y: Number(two[1]) } : { x: NaN, y: NaN }
  })
  return points.every((point) => Number.isFinite(point.x) && Number.isFinite(point.y)) ? points : []
}

/** As they are written, to a thousandth. */
export function textOf(points: Point[]): string {
  const short = (value: number) => String(Math.round(value * 1000) / 1000)
  return points.map((point) => `${short(point.x)}:${short(point.y)}`).join(',')
}

/** Straight from point to point, and the ends' values outside. */
export function straight(points: Point[], x: number): number {
  const next = points.findIndex((point) => point.x > x)
  const after = points[next]
  const before = points[next - 1]
  if (!after) {
    return points.at(-1)?.y ?? 0
  }
  if (!before) {
    return after.y
  }
  return before.y + ((x - before.x) / (after.x - before.x)) * (after.y - before.y)
}

/**
 * The smooth curve that the server draws through the same points (Fritsch and Butland, SIAM Journal on Scientific and Statistical
 * Computing 5(2), 1984): slopes are weighted harmonic means, so it never swings beyond two neighbours; outside it goes on straight.
 */
export function smooth(points: Point[], x: number): number {
  const last = points.length - 1
  const at = (i: number) => points[i] as Point
  if (last < 1) {
    return points[0]?.y ?? 0
  }
  const slope = (i: number) => (at(i + 1).y - at(i).y) / (at(i + 1).x - at(i).x)
  const slopeAt = (i: number) => {
    if (i === 0 || i === last) {
      return slope(i === 0 ? 0 : last - 1)
    }
    const left = slope(i - 1)
    const right = slope(i)
    if (left * right <= 0) {
      return 0
    }
    const before = at(i).x - at(i - 1).x
    const after = at(i + 1).x - at(i).x
    const share = (before + 2 * after) / (3 * (before + after))
    return (left * right) / (share * right + (1 - share) * left)
  }
  if (x <= at(0).x) {
    return at(0).y + (x - at(0).x) * slopeAt(0)
  }
  if (x >= at(last).x) {
    return at(last).y + (x - at(last).x) * slopeAt(last)
  }
  const i = points.findIndex((point) => point.x > x) - 1
  const step = at(i + 1).x - at(i).x
  const t = (x - at(i).x) / step
  const s = 1 - t
  return (
    at(i).y * (1 + 2 * t) * s * s +
    at(i + 1).y * (1 + 2 * s) * t * t +
    step * t * s * (slopeAt(i) * s - slopeAt(i + 1) * t)
  )
}

/** With a point put in its place, in place of one that is nearer than this. */
export function withPoint(points: Point[], point: Point, near: number): Point[] {
  const others = points.filter((one) => Math.abs(one.x - point.x) >= near)
  return [...others, point].sort((a, b) => a.x - b.x)
}
