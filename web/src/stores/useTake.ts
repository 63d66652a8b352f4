import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { api, type PlanView, Problem, type Recipe, type RecipeProblem, type TakeView } from '@/api/client'
import { useFeed } from './feed'

const SAVE_AFTER_MS = 350
const MOST_UNDO = 200
const SAME_GESTURE_MS = 1000

interface State {
  readonly recipe: Recipe
  readonly inFrame: number | undefined
  readonly outFrame: number | undefined
}

/**
 * The take on the bench: changed at once on this page, planned and saved shortly after. A change made elsewhere is taken
 * over; when both changed, the other one wins and a sentence says so.
 */
export function useTake(clip: string, fail: (error: unknown) => void) {
  const feed = useFeed()
  const take = shallowRef<TakeView>()
  const state = shallowRef<State>()
  const plan = shallowRef<PlanView>()
  const problems = shallowRef<RecipeProblem[]>([])
  const unsaved = ref(false)
  const undoable: State[] = []
  const redoable: State[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving = false
  let planning: AbortController | undefined
  let lastGesture = ''
  let lastChange = 0

  async function load() {
    try {
      const [first] = await api.takes(clip)
      if (first) {
        adopt(first)
      }
    } catch (error) {
      fail(error)
    }
  }

  function adopt(next: TakeView) {
    take.value = next
    state.value = {
      recipe: next.recipe as unknown as Recipe,
      inFrame: next.inFrame,
      outFrame: next.outFrame,
    }
    unsaved.value = false
    void replan()
  }

  function put(next: State) {
    state.value = next
    unsaved.value = true
    clearTimeout(timer)
    timer = setTimeout(save, SAVE_AFTER_MS)
    void replan()
  }

  /** @param gesture changes of one name that follow each other closely are undone together, as a drag's are */
  function change(part: Partial<State>, gesture = '') {
    const now = state.value
    if (!now) {
      return
    }
    const goesOn = gesture !== '' && gesture === lastGesture && Date.now() - lastChange < SAME_GESTURE_MS
    lastGesture = gesture
    lastChange = Date.now()
    if (!goesOn) {
      undoable.push(now)
    }
    if (undoable.length > MOST_UNDO) {
      undoable.shift()
    }
    redoable.length = 0
    put({ ...now, ...part })
  }

  function step(from: State[], to: State[]) {
    const before = from.pop()
    if (before && state.value) {
      to.push(state.value)
      put(before)
    }
  }

  async function replan() {
    planning?.abort()
    const mine = (planning = new AbortController())
    const now = state.value
    if (!now) {
      return
    }
    try {
      const request = {
        recipe: now.recipe,
        deliverable: { codec: 'h264', quality: 17, depth: 0, gop: 48, sound: true },
        ...marks(now),
      }
      plan.value = await api.plan(clip, request, mine.signal)
      problems.value = []
    } catch (error) {
      if (error instanceof Problem && error.problems.length > 0) {
        problems.value = error.problems
      } else if (!mine.signal.aborted) {
        fail(error)
      }
    }
  }

  async function save() {
    const now = state.value
    const on = take.value
    if (!now || !on || saving || !unsaved.value) {
      return
    }
    saving = true
    try {
      const saved = await api.changeTake(on.id, { recipe: now.recipe, ...marks(now), version: on.version })
      take.value = saved
      unsaved.value = state.value !== now
    } catch (error) {
      if (error instanceof Problem && error.status === 409) {
        fail(error)
        await load()
      } else if (error instanceof Problem && (error.status === 0 || error.status >= 500)) {
        timer = setTimeout(save, 2000)
      } else {
        fail(error)
      }
    } finally {
      saving = false
      if (unsaved.value && state.value !== now) {
        timer = setTimeout(save, SAVE_AFTER_MS)
      }
    }
  }

  const stopListening = feed.onTake((other) => {
    if (other.id === take.value?.id && other.version > take.value.version && !unsaved.value) {
      adopt(other)
    }
  })
  onScopeDispose(() => {
    stopListening()
    planning?.abort()
    clearTimeout(timer)
    if (unsaved.value) {
      void save()
    }
  })

  return {
    take,
    state,
    plan,
    problems,
    saved: computed(() => !unsaved.value),
    load,
    change,
    save,
    undo: () => step(undoable, redoable),
    redo: () => step(redoable, undoable),
  }
}

function marks(state: State): { inFrame?: number; outFrame?: number } {
  return {
    ...(state.inFrame === undefined ? {} : { inFrame: state.inFrame }),
    ...(state.outFrame === undefined ? {} : { outFrame: state.outFrame }),
  }
}
