/** Bytes a second below which pixels without loss keep one waiting. */
const SLOW = 400_000
/** What is smaller says more of the way than of its width. */
const TELLING = 20_000
const WEIGHT = 0.4

/** How wide the line to the server is, learned from what came over it. */
export class Line {
  private rate: number | undefined

  /** @param bytes that came; @param ms from their first to their last */
  saw(bytes: number, ms: number) {
    if (bytes < TELLING) {
      return
    }
    const now = (1000 * bytes) / Math.max(1, ms)
    this.rate = this.rate === undefined ? now : this.rate + WEIGHT * (now - this.rate)
  }

  /** Unknown counts as wide. */
  isSlow(): boolean {
    return this.rate !== undefined && this.rate < SLOW
  }
}

export const line = new Line()

/** What the page itself took to come is the first that is known. */
export function learnFromLoading(
  entries: readonly PerformanceEntry[] = performance.getEntriesByType('resource'),
) {
  for (const entry of entries) {
    const { transferSize, responseStart, responseEnd } = entry as PerformanceResourceTiming
    line.saw(transferSize ?? 0, responseEnd - responseStart)
  }
}
