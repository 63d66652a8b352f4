import { type Ref, shallowRef, watch } from 'vue'
import { api } from '@/api/client'
import type { Rect } from './glass'
import type { Sides } from './sides'

/** A frame with both its sides, which belong together: where geometry moves, they differ from frame to frame. */
export interface Shown {
  readonly frame: number
  readonly later: number
  readonly sides: Sides
}

/** Placements kept; one is a few numbers. */
const MOST = 5000

/**
 * The frame to show, once it is known where its source picture lies in it. With geometry that rests that is at once; else the frame
 * of before stays for the moment it takes.
 *
 * @param planned both sides as the plan tells them, at rest
 */
export function usePlacement(
  clip: string,
  planned: Ref<Sides | undefined>,
  frame: Ref<number>,
  later: Ref<number>,
  failed: (error: unknown) => void,
) {
  const shown = shallowRef<Shown>()
  let known = new Map<string, Rect>()
  let knownOf = ''
  let asked: AbortController | undefined

  watch(
    [planned, frame, later] as const,
    ([sides, n, k]) => {
      asked?.abort()
      if (!sides) {
        shown.value = undefined
      } else if (sides.moves) {
        void place(sides, n, k)
      } else {
        shown.value = { frame: n, later: k, sides }
      }
    },
    { immediate: true, flush: 'sync' },
  )

  async function place(sides: Sides, n: number, k: number) {
    const of = JSON.stringify([sides.recipe, sides.waits])
    if (of !== knownOf || known.size > MOST) {
      known = new Map()
      knownOf = of
    }
    const key = `${n}+${k}`
    const there = known.get(key)
    if (there) {
      shown.value = { frame: n, later: k, sides: { ...sides, placement: there } }
      return
    }
    const stop = (asked = new AbortController())
    try {
      const placement = await api.placement(clip, { recipe: sides.recipe, frame: n, later: k }, stop.signal)
      known.set(key, placement)
      if (!stop.signal.aborted) {
        shown.value = { frame: n, later: k, sides: { ...sides, placement } }
      }
    } catch (error) {
      if (!stop.signal.aborted) {
        failed(error)
      }
    }
  }

  return shown
}
