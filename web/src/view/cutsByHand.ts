import type { PlanView, Recipe } from '@/api/client'
import { pointsOf } from './points'

export interface CutByHand {
  /** Of the clip; a scene begins with it, or does not. */
  readonly frame: number
  readonly begins: boolean
}

/** The setting of a step that holds them. */
const KEY = 'scenes'

/** Where somebody said in a recipe that a scene begins, and where none does. @param rate frames a second of the clip */
export function cutsByHand(
  recipe: Recipe | undefined,
  plan: PlanView | undefined,
  rate: number,
): CutByHand[] {
  return (recipe?.steps ?? []).flatMap((step, index) => {
    const said = step.settings[KEY]
    if (step.on === false || typeof said !== 'string') {
      return []
    }
    // told in seconds of what reaches the step
    const speed = plan?.steps[index - 1]?.speed ?? 1
    return pointsOf(said).map((mark) => ({
      frame: Math.round(mark.x * speed * rate),
      begins: mark.y === 1,
    }))
  })
}
