import { type Ref, watch } from 'vue'
import { api, type PlanView, type Recipe } from '@/api/client'

/** Frames up to which a clip is looked through unasked: it takes some seconds. */
const SHORT = 1500

/** Looks through the whole clip for what the recipe's steps wait for; how it goes is told by events. */
export function useLookThrough(
  clip: string,
  frames: number,
  plan: Ref<PlanView | undefined>,
  recipe: () => Recipe | undefined,
  fail: (error: unknown) => void,
) {
  const lookedFor = new Set<string>()

  function lookThrough() {
    const now = recipe()
    if (now) {
      api.analyse(clip, now).catch(fail)
    }
  }

  watch(plan, (now) => {
    const waits = now?.waiting ?? []
    const wanted = JSON.stringify([recipe(), waits.map((one) => [one.step, one.doing])])
    // whoever stopped it does not want it, and what failed would fail again
    if (waits.length > 0 && waits.every((one) => !one.look) && frames <= SHORT && !lookedFor.has(wanted)) {
      lookedFor.add(wanted)
      lookThrough()
    }
  })

  return lookThrough
}
