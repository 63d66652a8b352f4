import type { RenderView } from '@/api/client'

/** Seconds until all that runs and waits is sent out, by how fast the running one is; none while nothing is known. */
export function secondsLeft(renders: RenderView[]): number | undefined {
  const running = renders.find((one) => one.state === 'RUNNING')
  const live = running?.live
  if (!running || !live?.secondsLeft) {
    return undefined
  }
  const work = (one: RenderView) => (one.frames - one.framesDone) * one.width * one.height
  // files of one treatment are made at once, and what is to begin later takes no time before
  const counted = new Set(running.bundle ? [running.bundle] : [])
  const waiting = renders
    .filter((one) => one.state === 'WAITING' && !(one.notBefore && new Date(one.notBefore) > new Date()))
    .filter((one) => {
      const isFirst = !one.bundle || !counted.has(one.bundle)
      if (one.bundle) {
        counted.add(one.bundle)
      }
      return isFirst
    })
    .reduce((sum, one) => sum + work(one), 0)
  return live.secondsLeft + (waiting * live.secondsLeft) / Math.max(1, work(running))
}

/** The time of day so many seconds from now: {@code 17:42}. */
export function clockIn(seconds: number, now = new Date()): string {
  const at = new Date(now.getTime() + 1000 * seconds)
  return `${at.getHours()}:${String(at.getMinutes()).padStart(2, '0')}`
}

const DAY_MS = 86_400_000

/** How many finished files are so many days old and more, and what they take. @param there those on the disk */
export function agedFiles(there: RenderView[], days: number): { files: number; bytes: number } {
  const before = Date.now() - days * DAY_MS
  const old = there.filter((one) => one.finishedAt && new Date(one.finishedAt).getTime() < before)
  return { files: old.length, bytes: old.reduce((sum, one) => sum + (one.result?.bytes ?? 0), 0) }
}
