import type { ClipFacts, RenderView } from '@/api/client'

/** 0:04.16 — minutes, seconds, hundredths; hours when there are any. */
export function clock(seconds: number): string {
  const hundredths = Math.round(Math.max(0, seconds) * 100)
  const whole = Math.floor(hundredths / 100)
  const rest = String(hundredths % 100).padStart(2, '0')
  return `${minutes(whole)}.${rest}`
}

/** 4:12 — without fractions. */
export function length(seconds: number): string {
  return minutes(Math.round(seconds))
}

function minutes(whole: number): string {
  const h = Math.floor(whole / 3600)
  const m = Math.floor(whole / 60) % 60
  const s = String(whole % 60).padStart(2, '0')
  return h > 0 ? `${h}:${String(m).padStart(2, '0')}:${s}` : `${m}:${s}`
}

export function bytes(count: number): string {
  if (count >= 1e9) {
    return `${(count / 1e9).toFixed(1)} GB`
  }
  if (count >= 1e6) {
    return `${(count / 1e6).toFixed(count < 1e7 ? 1 : 0)} MB`
  }
  return `${Math.max(1, Math.round(count / 1e3))} kB`
}

/** How long something will take, no finer than anyone needs. */
export function wait(seconds: number): string {
  if (seconds < 90) {
    return `${Math.max(1, Math.round(seconds))} s`
  }
  if (seconds < 5400) {
    return `${Math.round(seconds / 60)} min`
  }
  return `${Math.floor(seconds / 3600)} h ${Math.round((seconds % 3600) / 60)} min`
}

export function rate(perSecond: number): string {
  return String(Number(perSecond.toFixed(perSecond % 1 === 0 ? 0 : 2)))
}

/** 720×576 · 25i · 0:06 · MPEG-2 · MP2 48 kHz mono */
export function factsLine(facts: ClipFacts): string {
  const parts = [
    `${facts.width}×${facts.height}`,
    `${rate(facts.ratePerSecond)}${facts.scan}${facts.steady ? '' : ' uneven'}`,
    length(facts.seconds),
    facts.codec,
  ]
  if (facts.depth > 8) {
    parts.push(`${facts.depth} bit`)
  }
  parts.push(facts.sound[0] ?? 'no sound')
  return parts.join(' · ')
}

/** What the colour tags say, and what silence is taken for. */
export function colourLine(facts: ClipFacts): string {
  const { matrix, range, takenAs } = facts.colour
  if (matrix === 'untagged') {
    return `untagged, taken as ${takenAs}`
  }
  return range === 'untagged' ? matrix : `${matrix}, ${range} range`
}

/** "2.0 s of 6.0 s (in/out set)" or "whole clip, 6.0 s". */
export function spanLine(render: Pick<RenderView, 'wholeClip' | 'spanSeconds' | 'clipSeconds'>): string {
  return render.wholeClip
    ? `whole clip, ${render.clipSeconds.toFixed(1)} s`
    : `${render.spanSeconds.toFixed(1)} s of ${render.clipSeconds.toFixed(1)} s, in/out set`
}

/** 2:1, 1:1, 1:2 or the nearest decimal. */
export function ratio(scale: number): string {
  const inverse = 1 / scale
  if (Math.abs(scale - Math.round(scale)) < 0.005 && scale >= 1) {
    return `${Math.round(scale)}:1`
  }
  if (Math.abs(inverse - Math.round(inverse)) < 0.005) {
    return `1:${Math.round(inverse)}`
  }
  return scale >= 1 ? `${scale.toFixed(2)}:1` : `1:${inverse.toFixed(2)}`
}

/** Input pixels a second as frames of a common small size: {@code 5.1 frames/s of 640×360 here}. */
export function modelSpeed(pixelsASecond: number | undefined): string {
  if (pixelsASecond === undefined) {
    return 'speed here not measured yet'
  }
  return `${perSecond(pixelsASecond / (640 * 360))} frames/s of 640×360 here`
}

/** Frames a second, as fine as anyone needs. */
export function perSecond(frames: number): string {
  return frames < 10 ? frames.toFixed(1) : String(Math.round(frames))
}
