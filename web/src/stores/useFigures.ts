import { onScopeDispose, shallowRef } from 'vue'
import { api, Problem, type Rect, type Recipe, type StepsView } from '@/api/client'
import { behindTheGlass } from '@/view/queue'

const REST_MS = 400

/** What each step measured to change in the part that is seen; asked for once the view rests. */
export function useFigures(clip: string) {
  const figures = shallowRef<StepsView>()
  let timer: ReturnType<typeof setTimeout> | undefined
  let asked: AbortController | undefined
  let last = ''
  let measured = ''

  function want(recipe: Recipe, frame: number, later: number, seen: Rect) {
    const part = {
      x: Math.round(seen.x),
      y: Math.round(seen.y),
      width: Math.max(1, Math.round(seen.width)),
      height: Math.max(1, Math.round(seen.height)),
    }
    const request = { recipe, frame, later, ...part }
    const key = JSON.stringify(request)
    if (key === last) {
      return
    }
    last = key
    if (JSON.stringify(recipe) !== measured) {
      // what other settings did says nothing of these
      measured = JSON.stringify(recipe)
      figures.value = undefined
    }
    asked?.abort()
    clearTimeout(timer)
    timer = setTimeout(() => {
      const mine = (asked = new AbortController())
      behindTheGlass
        .add(() => api.compareSteps(clip, request, mine.signal), mine.signal)
        .then((answer) => (figures.value = answer))
        .catch((error: unknown) => {
          // figures are told beside the picture; that they could not be had is no reason to disturb
          if (error instanceof Problem) {
            figures.value = undefined
          }
        })
    }, REST_MS)
  }

  onScopeDispose(() => {
    clearTimeout(timer)
    asked?.abort()
  })

  return { figures, want }
}
