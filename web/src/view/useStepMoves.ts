import type { PlanView, Recipe } from '@/api/client'
import { withSteppedAside } from './recipe'

/** A step changes places with its neighbour where the recipe still works then; else it is said why not. */
export function useStepMoves(
  recipe: () => Recipe | undefined,
  planOf: (recipe: Recipe) => Promise<PlanView>,
  change: (recipe: Recipe) => void,
  failed: (error: unknown) => void,
) {
  return async (index: number, by: -1 | 1, done: () => void) => {
    const now = recipe()
    if (!now) {
      return
    }
    const moved = withSteppedAside(now, index, by)
    try {
      await planOf(moved)
      change(moved)
      done()
    } catch (error) {
      failed(error)
    }
  }
}
