import { onScopeDispose, reactive, watch, type Ref } from 'vue'
import {
  api,
  type PinView,
  type PlanView,
  Problem,
  type Recipe,
  type TakeFigures,
  type TakeView,
} from '@/api/client'
import { behindTheGlass } from '@/view/queue'
import { type Sides, sidesOf } from '@/view/sides'
import type { usePlans } from './usePlans'

/** What a take's row shows: its pictures' places, what was measured, what a whole render takes. */
export interface SheetRow {
  sides?: Sides
  plan?: PlanView
  figures?: TakeFigures
  problem?: string
}

/**
 * Plans and figures of the takes on the sheet, measured one after another at the pins' frames. A take is asked for once it
 * has come in sight: there may be hundreds.
 */
export function useSheet(
  clip: string,
  takes: Ref<TakeView[]>,
  pins: Ref<PinView[]>,
  middle: number,
  planOf: ReturnType<typeof usePlans>,
) {
  const rows = reactive(new Map<string, SheetRow>())
  const stop = new AbortController()
  const asked = new Map<string, string>()
  const inSight = new Set<string>()
  onScopeDispose(() => stop.abort())

  async function fill(take: TakeView, frames: number[]) {
    const recipe = take.recipe as unknown as Recipe
    const row: SheetRow = reactive({})
    rows.set(take.id, row)
    try {
      row.plan = await planOf(recipe)
      row.sides = sidesOf(recipe, row.plan)
      row.figures = await behindTheGlass.add(
        () => api.compareTake(clip, recipe, frames, take.id, stop.signal),
        stop.signal,
      )
    } catch (error) {
      if (error instanceof Problem) {
        row.problem = error.message
      }
    }
  }

  function measure() {
    const frames = [...new Set(pins.value.map((pin) => pin.frame))].slice(0, 3)
    const some = frames.length > 0 ? frames : [middle]
    for (const take of takes.value) {
      const key = JSON.stringify([take.recipe, some])
      if (inSight.has(take.id) && asked.get(take.id) !== key) {
        asked.set(take.id, key)
        void fill(take, some)
      }
    }
  }
  watch([takes, pins], measure, { immediate: true })

  return {
    rows,
    see(take: string) {
      if (!inSight.has(take)) {
        inSight.add(take)
        measure()
      }
    },
    /** Measures all anew, as after another reference was chosen. */
    again() {
      asked.clear()
      measure()
    },
  }
}
