import { ref, shallowRef, watch } from 'vue'
import type { PlanView, Recipe, StepDescription } from '@/api/client'
import { firstSteps } from './recipe'
import { type Sides, sidesOf } from './sides'

/** One step seen alone: what reaches it, and what it makes of that. */
interface OneStep {
  readonly before: Sides
  readonly after: Sides
}

/** Whether a step changes samples where they are, so that what it changes can be seen on the spot. */
export function changesInPlace(kind: StepDescription | undefined): boolean {
  return kind?.params.some((param) => param.key === 'share') === true
}

/** Looks at one step of the recipe alone, in place of the whole. */
export function useOneStep(
  recipe: () => Recipe | undefined,
  planOf: (recipe: Recipe) => Promise<PlanView>,
  failed: (error: unknown) => void,
) {
  /** Of the step, or -1 for none. */
  const index = ref(-1)
  const shown = shallowRef<OneStep>()
  let asked = 0

  async function sides(steps: Recipe): Promise<Sides> {
    return sidesOf(steps, await planOf(steps))
  }

  watch([index, recipe], async ([at, all]) => {
    const mine = ++asked
    if (!all || all.steps[at]?.on !== true) {
      index.value = -1
      shown.value = undefined
      return
    }
    try {
      const [before, after] = await Promise.all([sides(firstSteps(all, at)), sides(firstSteps(all, at + 1))])
      if (mine === asked) {
        shown.value = { before, after }
      }
    } catch (error) {
      if (mine === asked) {
        index.value = -1
        failed(error)
      }
    }
  })

  return { index, shown }
}
