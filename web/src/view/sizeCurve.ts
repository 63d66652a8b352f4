import type { CurvePoint } from '@/api/client'

/** From the finest to the coarsest. */
export function ordered(points: Iterable<CurvePoint>): CurvePoint[] {
  return [...points].sort((a, b) => a.quality - b.quality)
}

/** How alike it looks, by the frame that fares worst (common practice, no source). */
export function likeness(point: CurvePoint): string {
  if (point.psnr === undefined) {
    return 'nothing is lost'
  }
  if (point.worst === undefined) {
    return 'too small a picture to tell'
  }
  if (point.worst >= 0.985) {
    return 'hardly to be told apart'
  }
  return point.worst >= 0.95 ? 'told apart where one looks for it' : 'seen to be coarser'
}

/** Its size against that of the clip's own file. */
export function share(point: CurvePoint): string {
  const times = point.fileBytes / Math.max(1, point.sourceBytes)
  return times < 1.995
    ? `${Math.max(1, Math.round(100 * times))} % of the source`
    : `${times.toFixed(1)} times the source`
}

/**
 * The rate factor that comes to a size: sizes go down by even factors from one to the next.
 *
 * @returns none where it lies beyond what was tried
 */
export function qualityFor(points: Iterable<CurvePoint>, bytes: number): number | undefined {
  const all = ordered(points)
  for (let n = 0; n + 1 < all.length; n++) {
    const fine = all[n]!
    const coarse = all[n + 1]!
    if (fine.fileBytes >= bytes && bytes >= coarse.fileBytes) {
      const span = Math.log(fine.fileBytes / coarse.fileBytes)
      const part = span === 0 ? 0 : Math.log(fine.fileBytes / bytes) / span
      // no larger than was asked for
      return Math.ceil(fine.quality + part * (coarse.quality - fine.quality) - 1e-9)
    }
  }
  return undefined
}

/** Where points lie in a drawing of 1 by 1: sizes by factors to the right, likeness upwards. */
export function places(points: CurvePoint[]): { point: CurvePoint; x: number; y: number }[] {
  const sizes = points.map((one) => Math.log(Math.max(1, one.fileBytes)))
  const likes = points.map((one) => one.ssim ?? 1)
  const span = (values: number[]) => {
    const least = Math.min(...values)
    return { least, width: Math.max(1e-9, Math.max(...values) - least) }
  }
  const across = span(sizes)
  const up = span(likes)
  return points.map((point, n) => ({
    point,
    x: (sizes[n]! - across.least) / across.width,
    y: 1 - (likes[n]! - up.least) / up.width,
  }))
}
