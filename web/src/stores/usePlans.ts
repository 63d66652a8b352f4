import { api, type PlanView, type Recipe } from '@/api/client'
import { USUAL } from './useTake'

const MOST = 200

/** Plans of recipes on one clip, each asked for once. */
export function usePlans(clip: string) {
  const known = new Map<string, Promise<PlanView>>()

  return (recipe: Recipe): Promise<PlanView> => {
    const key = JSON.stringify(recipe)
    let plan = known.get(key)
    if (!plan) {
      plan = api.plan(clip, { recipe, deliverable: USUAL })
      // what failed may succeed the next time
      plan.catch(() => known.delete(key))
      if (known.size >= MOST) {
        known.delete(known.keys().next().value ?? '')
      }
      known.set(key, plan)
    }
    return plan
  }
}
