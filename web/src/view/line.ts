/** Bytes a second below which pixels without loss keep one waiting. */
const SLOW = 400_000
/** What is smaller says more of the way than of its width. */
const TELLING = 20_000
const WEIGHT = 0.4

/** Thrown where what is coming would keep one waiting. */
export class SlowLine extends Error {}

/** After so long of an answer it is known whether it comes slowly. */
const TELLING_MS = 700

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

  /** Whether bytes that came in this time tell of a slow line. */
  wouldBeSlow(bytes: number, ms: number): boolean {
    return (1000 * bytes) / Math.max(1, ms) < SLOW
  }

  /** Unknown counts as wide. */
  isSlow(): boolean {
    return this.rate !== undefined && this.rate < SLOW
  }
}

export const line = new Line()

/**
 * The bytes of an answer, learning from how they come.
 *
 * @param impatient gives up with {@link SlowLine} as soon as it is plain that the line is slow
 */
export async function received(response: Response, impatient: boolean, of: Line = line): Promise<Blob> {
  const type = response.headers.get('Content-Type') ?? ''
  const reader = response.body?.getReader()
  if (!reader) {
    return response.blob()
  }
  const begun = performance.now()
  const parts: Uint8Array<ArrayBuffer>[] = []
  let bytes = 0
  for (;;) {
    const { done, value } = await reader.read()
    const ms = performance.now() - begun
    if (done) {
      of.saw(bytes, ms)
      return new Blob(parts, { type })
    }
    parts.push(value as Uint8Array<ArrayBuffer>)
    bytes += value.byteLength
    if (impatient && ms > TELLING_MS && of.wouldBeSlow(bytes, ms)) {
      of.saw(Math.max(bytes, TELLING), ms)
      await reader.cancel()
      throw new SlowLine()
    }
  }
}

/** What the page itself took to come is the first that is known. */
export function learnFromLoading(
  entries: readonly PerformanceEntry[] = performance.getEntriesByType('resource'),
) {
  for (const entry of entries) {
    const { transferSize, responseStart, responseEnd } = entry as PerformanceResourceTiming
    line.saw(transferSize ?? 0, responseEnd - responseStart)
  }
}
