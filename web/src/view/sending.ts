import type {
  ClipView,
  CodecDescription,
  DeliverableChoice,
  PlanView,
  PresetDescription,
  Recipe,
  TakeView,
} from '@/api/client'
import { clockIn } from './renders'
import { bytes, length, rate, wait } from './words'

/** A take that is to be sent out. */
export interface Target {
  take: TakeView
  recipe: Recipe
  title: string
}

/** A preset's deliverable as it is sent. */
export function chosenOf(preset: PresetDescription): DeliverableChoice {
  const tree = preset.deliverable as {
    codec: string
    settings: Record<string, unknown>
    container: string
    sound: string
    tags?: Record<string, string>
    subtitles?: string
  }
  return {
    codec: tree.codec,
    settings: { ...tree.settings },
    container: tree.container,
    sound: tree.sound,
    ...(tree.tags ? { tags: { ...tree.tags } } : {}),
    ...(tree.subtitles ? { subtitles: tree.subtitles } : {}),
  }
}

/** A preset where something is set already: what the file shall say of itself stays, unless the preset says it. */
export function presetOver(now: DeliverableChoice, preset: PresetDescription): DeliverableChoice {
  const then = chosenOf(preset)
  const tags = { ...now.tags, ...then.tags }
  return Object.keys(tags).length > 0 ? { ...then, tags } : then
}

/** Whether what is set is just what the preset says, and perhaps more words; nothing else remembers that it was chosen. */
export function isPreset(now: DeliverableChoice, preset: PresetDescription): boolean {
  const then = chosenOf(preset)
  const keys = new Set([...Object.keys(now.settings), ...Object.keys(then.settings)])
  return (
    then.codec === now.codec &&
    then.container === now.container &&
    then.sound === now.sound &&
    (then.subtitles ?? 'attached') === (now.subtitles ?? 'attached') &&
    [...keys].every((key) => String(now.settings[key]) === String(then.settings[key])) &&
    Object.entries(then.tags ?? {}).every(([key, words]) => now.tags?.[key] === words)
  )
}

/** The same in another codec: in its usual container, with sound that it holds. */
export function inCodec(now: DeliverableChoice, codec: CodecDescription): DeliverableChoice {
  const same = codec.containers.find((one) => one.ending === now.container)
  return inContainer({ ...now, codec: codec.id, settings: {} }, codec, (same ?? codec.containers[0]!).ending)
}

/** The same in another container; sound that it does not hold goes the way that is usual there. */
export function inContainer(
  now: DeliverableChoice,
  codec: CodecDescription,
  ending: string,
): DeliverableChoice {
  const container = codec.containers.find((one) => one.ending === ending)
  const holds = container?.sounds.some((one) => one.id === now.sound) ?? true
  return { ...now, container: ending, sound: holds ? now.sound : (container?.sounds[0]?.id ?? 'none') }
}

/** {@code To watch}, or {@code H.265 in MKV}. */
export function outputWords(
  now: DeliverableChoice,
  presets: PresetDescription[],
  codecs: CodecDescription[],
): string {
  const preset = presets.find((one) => isPreset(now, one))
  const codec = codecs.find((one) => one.id === now.codec)
  const container = codec?.containers.find((one) => one.ending === now.container)
  return preset?.label ?? `${codec?.label ?? now.codec} in ${container?.label ?? now.container}`
}

/** Which of the frames go into it: all, few, none or the source's own. */
export function takingOf(
  now: DeliverableChoice,
  codecs: CodecDescription[],
): 'ALL' | 'FEW' | 'SOUND' | 'SOURCE' {
  const codec = codecs.find((one) => one.id === now.codec)
  return codec?.containers.find((one) => one.ending === now.container)?.taking ?? 'ALL'
}

/**
 * What will be made, in a line.
 *
 * @param tried its size by what was made of it to find out
 * @param taking which of the frames go into it
 */
export function planLine(plan: PlanView, label: string, tried?: number, taking = 'ALL'): string {
  const weight = tried === undefined ? `roughly ${bytes(plan.fileBytes)}` : `about ${bytes(tried)}`
  if (taking === 'SOUND') {
    return `${label} · ${weight}`
  }
  const parts = [
    `${plan.width}×${plan.height}`,
    ...(taking === 'FEW' ? [] : [`${rate(plan.ratePerSecond)} fps`]),
    `${label} ${plan.depth} bit`,
    weight,
  ]
  if (plan.sar !== '1') {
    parts.splice(1, 0, `pixels ${plan.sar.replace('/', ':')}`)
  }
  return parts.join(' · ')
}

/** When it is done, in words. @param seconds of work, none where nobody knows */
export function timeLine(seconds: number | undefined, from: Date): string {
  return seconds === undefined
    ? 'how long it takes is told once the first frames are done'
    : `about ${wait(seconds)} on this machine, done at ${clockIn(seconds, from)}`
}

/** {@code 4.2 s of 4:12 (in/out set)}, or the whole. */
export function spanOf(plan: PlanView): string {
  return plan.wholeClip
    ? `the whole clip, ${plan.seconds.toFixed(1)} s, ${plan.frames} frames`
    : `${plan.seconds.toFixed(1)} s of ${
        plan.clipSeconds < 60 ? `${plan.clipSeconds.toFixed(1)} s` : length(plan.clipSeconds)
      } (in/out set), ${plan.frames} frames`
}

/** The next time that the clock shows so, {@code 22:00}. */
export function nextAt(time: string, now = new Date()): Date {
  const [hours, minutes] = time.split(':').map(Number)
  const at = new Date(now)
  at.setHours(hours ?? 0, minutes ?? 0, 0, 0)
  if (at <= now) {
    at.setDate(at.getDate() + 1)
  }
  return at
}

/** How many frames of handles were typed; none where it is no such number. */
export function handlesOf(typed: unknown): number {
  return Number.isInteger(typed) && (typed as number) > 0 ? (typed as number) : 0
}

/** A take's span with so many frames more on each side, as far as the clip has them. @param frames it has */
export function withHandles(
  take: Pick<TakeView, 'inFrame' | 'outFrame'>,
  handles: number,
  frames: number,
): { inFrame?: number; outFrame?: number } {
  return {
    ...(take.inFrame === undefined ? {} : { inFrame: Math.max(0, take.inFrame - handles) }),
    ...(take.outFrame === undefined ? {} : { outFrame: Math.min(frames, take.outFrame + handles) }),
  }
}

/** Where a clip is too short for its handles: {@code : 12 before, 4 behind; the clip has no more}. */
export function handleWords(
  take: Pick<TakeView, 'inFrame' | 'outFrame'>,
  handles: number,
  frames: number,
): string {
  const before = Math.min(handles, take.inFrame ?? 0)
  const behind = Math.min(handles, frames - (take.outFrame ?? frames))
  return before < handles || behind < handles
    ? `: ${before} before, ${behind} behind; the clip has no more`
    : ''
}

/** The take of a clip that is sent out where none is named: one that is kept, else the first. */
export function takeToSend(takes: TakeView[]): TakeView | undefined {
  return takes.find((take) => take.verdict === 'KEPT') ?? takes[0]
}

/** Seconds of sound in any of the clips. */
export function hasSound(targets: Target[], clips: Map<string, ClipView>): boolean {
  return targets.some((target) => (clips.get(target.take.clipId)?.facts?.sound.length ?? 1) > 0)
}

/** Whether any of the clips has subtitles. */
export function hasSubtitles(targets: Target[], clips: Map<string, ClipView>): boolean {
  return targets.some((target) => (clips.get(target.take.clipId)?.facts?.subtitles ?? 0) > 0)
}

/** What decides about size beside the quality. */
const RULES = ['by', 'bitrate', 'size', 'peak']

/** The same going by quality, or by nothing that was set. */
export function byQuality(now: DeliverableChoice, quality?: number): DeliverableChoice {
  const kept = Object.entries(now.settings).filter(([key]) => key !== 'quality' && !RULES.includes(key))
  return { ...now, settings: { ...Object.fromEntries(kept), ...(quality === undefined ? {} : { quality }) } }
}
