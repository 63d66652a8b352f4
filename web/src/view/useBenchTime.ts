import { computed, ref, watch } from 'vue'
import type { ClipView } from '@/api/client'
import { clamp } from './glass'
import { clock } from './words'

/**
 * The moment that is seen on the bench.
 *
 * @param framesToOne output frames to a frame of the source, as planned
 */
export function useBenchTime(clip: ClipView, framesToOne: () => number | undefined) {
  const frames = clip.frames ?? 1
  const frame = ref(0)
  /** Output frames after the first one made of the frame, where a recipe makes more of them. */
  const later = ref(0)
  const perFrame = computed(() => Math.max(1, Math.round(framesToOne() ?? 1)))
  const seconds = computed(() => frame.value / (clip.facts?.ratePerSecond ?? 25))
  const place = computed(() => {
    const half = later.value > 0 ? ` + ${later.value}/${perFrame.value}` : ''
    const at = (frame.value + later.value / perFrame.value) * (clip.facts?.seconds ?? 0)
    return `${clock(at / frames)} frame ${frame.value}${half}`
  })

  function goToOutput(output: number) {
    const n = clamp(output, 0, frames * perFrame.value - 1)
    frame.value = Math.floor(n / perFrame.value)
    later.value = n % perFrame.value
  }

  /** Goes to a moment, in frames of the source. */
  function goTo(at: number) {
    goToOutput(Math.floor(at * perFrame.value + 1e-6))
  }

  /** Goes on by output frames. */
  function goBy(by: number) {
    goToOutput(frame.value * perFrame.value + later.value + by)
  }

  watch(perFrame, () => (later.value = 0))

  return { frames, frame, later, perFrame, seconds, place, goTo, goBy }
}
