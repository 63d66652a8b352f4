import { ref, shallowRef, watch } from 'vue'
import type { PlanView, Recipe, RecipeStep, StepDescription } from '@/api/client'
import { firstSteps } from './recipe'
import { type Sides, sidesOf } from './sides'

/** One step seen alone: what reaches it, and what it makes of that. */
interface OneStep {
  readonly step: RecipeStep
  readonly before: Sides
  readonly after: Sides
}

/** Whether a step changes samples where they are, so that what it changes can be seen on the spot. */
export function changesInPlace(kind: StepDescription | undefined): boolean {
  return kind?.params.some((param) => param.key === 'share') === true
}

/**
 * Looks at one step of the recipe alone, in place of the whole.
 *
 * @param recipe another object each time that its plan was made anew: what steps wait for may be known by then
 * @param planOf asks anew each time
 */
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
    const step = all?.steps[at]
    if (!all || step?.on !== true) {
      index.value = -1
      shown.value = undefined
      return
    }
    try {
      const [before, after] = await Promise.all([sides(firstSteps(all, at)), sides(firstSteps(all, at + 1))])
      if (mine === asked) {
        // the steps before it are made once for both sides
        shown.value = { step, before, after: { ...after, held: at } }
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
