import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { api, type PlanView, Problem, type Recipe, type RecipeProblem, type TakeView } from '@/api/client'
import { useFeed } from './feed'
import { useNotices } from './notices'
import { keepUnsaved, takeUnsaved, type Unsaved } from './unsaved'

const SAVE_AFTER_MS = 350
const SAME_GESTURE_MS = 1000

interface State {
  readonly recipe: Recipe
  readonly inFrame: number | undefined
  readonly outFrame: number | undefined
}

/**
 * The take on the bench: changed at once on this page, planned and saved shortly after; the server keeps every state, so
 * that undo reaches across sessions. A change made elsewhere is taken over; when both changed, the other one wins and a
 * sentence says so.
 */
export function useTake(clip: string, fail: (error: unknown) => void) {
  const feed = useFeed()
  const notices = useNotices()
  const take = shallowRef<TakeView>()
  const state = shallowRef<State>()
  const plan = shallowRef<PlanView>()
  /** The recipe that the plan at hand was made for: only these two together say where pixels lie. */
  const planned = shallowRef<Recipe>()
  /** Whether the plan of the present recipe is still on its way. */
  const planning = ref(false)
  const problems = shallowRef<RecipeProblem[]>([])
  /** States that are still to be saved, in order; each becomes one step of undo. */
  const pending = shallowRef<State[]>([])
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<void> | undefined
  let asking: AbortController | undefined
  let lastGesture = ''
  let lastChange = 0

  /** @param id of the take wanted; otherwise the first one that is not discarded */
  async function load(id?: string) {
    try {
      const all = await api.takes(clip)
      const next =
        all.find((one) => one.id === (id ?? take.value?.id)) ??
        all.find((one) => one.verdict !== 'DISCARDED') ??
        all[0]
      if (next) {
        // looked for before the take is put on the bench, which forgets what this window had not saved
        const left = takeUnsaved<State>(next.id)
        adopt(next)
        await takeUp(left, next)
      }
    } catch (error) {
      fail(error)
    }
  }

  /** What a window that was closed, or signed out, had not saved yet goes on here. */
  async function takeUp(left: Unsaved<State> | undefined, on: TakeView) {
    const last = left?.states.at(-1)
    if (!left || !last) {
      return
    }
    if (left.version === on.version) {
      state.value = last
      setPending([...left.states])
      timer = setTimeout(save, 0)
      void replan()
      notices.say('Changes of this take that were not saved yet are taken up again.')
    } else {
      // changed elsewhere since: neither may be lost
      const [copy] = await api.addTakes(clip, [{ recipe: last.recipe }], on.id)
      notices.say(
        `This take was changed elsewhere; what was not saved here is kept as take ${copy?.name ?? ''}.`,
      )
    }
  }

  function setPending(states: State[]) {
    pending.value = states
    if (take.value) {
      keepUnsaved<State>(take.value.id, { version: take.value.version, states })
    }
  }

  /** Puts another take on the bench; what is unsaved of this one is saved first. */
  async function open(next: TakeView) {
    await save()
    adopt(next)
  }

  function adopt(next: TakeView) {
    take.value = next
    state.value = {
      recipe: next.recipe as unknown as Recipe,
      inFrame: next.inFrame,
      outFrame: next.outFrame,
    }
    setPending([])
    lastGesture = ''
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
    const next = { ...now, ...part }
    if (JSON.stringify(next) === JSON.stringify(now)) {
      return
    }
    state.value = next
    setPending([...(goesOn ? pending.value.slice(0, -1) : pending.value), next])
    clearTimeout(timer)
    timer = setTimeout(save, SAVE_AFTER_MS)
    void replan()
  }

  async function replan() {
    asking?.abort()
    const mine = (asking = new AbortController())
    const now = state.value
    if (!now) {
      return
    }
    planning.value = true
    try {
      const made = await api.plan(
        clip,
        { recipe: now.recipe, deliverable: USUAL, ...marks(now) },
        mine.signal,
      )
      plan.value = made
      planned.value = now.recipe
      problems.value = []
    } catch (error) {
      if (error instanceof Problem && error.problems.length > 0) {
        problems.value = error.problems
      } else if (!mine.signal.aborted) {
        fail(error)
      }
    } finally {
      if (asking === mine) {
        planning.value = false
      }
    }
  }

  function save(): Promise<void> {
    clearTimeout(timer)
    saving ??= saveAll().finally(() => (saving = undefined))
    return saving
  }

  async function saveAll() {
    for (let next = pending.value[0]; next && take.value; next = pending.value[0]) {
      const on = take.value
      try {
        const saved = await api.changeTake(on.id, {
          recipe: next.recipe,
          ...marks(next),
          version: on.version,
        })
        take.value = saved
        setPending(pending.value.filter((one) => one !== next))
      } catch (error) {
        if (error instanceof Problem && error.status === 409) {
          fail(error)
          setPending([])
          await load()
        } else if (error instanceof Problem && error.status === 401) {
          // the page leads to signing in; they are taken up again behind it
          keepUnsaved<State>(on.id, { version: on.version, states: pending.value })
          return
        } else if (error instanceof Problem && (error.status === 0 || error.status >= 500)) {
          keepUnsaved<State>(on.id, { version: on.version, states: pending.value })
          timer = setTimeout(save, 2000)
          return
        } else {
          // a state that is refused must not hold up those after it
          setPending(pending.value.filter((one) => one !== next))
          fail(error)
        }
      }
    }
  }

  /** One after another: each needs the version that the one before it made. */
  let stepping: Promise<void> = Promise.resolve()
  function step(way: 'undo' | 'redo'): Promise<void> {
    stepping = stepping.then(() => stepOnce(way))
    return stepping
  }

  async function stepOnce(way: 'undo' | 'redo') {
    await save()
    const on = take.value
    if (!on || pending.value.length > 0 || (way === 'undo' ? on.undos : on.redos) === 0) {
      return
    }
    try {
      adopt(await (way === 'undo' ? api.undoTake : api.redoTake)(on.id, on.version))
    } catch (error) {
      fail(error)
      await load()
    }
  }

  /** What is known of this take from elsewhere: an event, an answer, the list read anew after a lost connection. */
  function note(other: TakeView) {
    if (other.id !== take.value?.id) {
      return
    }
    if (other.version > take.value.version && pending.value.length === 0) {
      adopt(other)
    } else if (other.version === take.value.version) {
      // a name or a verdict, which are no changes of the recipe
      take.value = other
    }
  }
  const stopListening = feed.listen('take', note)
  const stopLooking = feed.listen('analysis', (look) => {
    const now = plan.value
    if (look.clipId !== clip || !now || now.waiting.length === 0) {
      return
    }
    const ours = now.waiting.some((one) => one.look?.id === look.id)
    if (look.state === 'DONE' || (!ours && look.state === 'WAITING')) {
      void replan()
    } else if (ours) {
      plan.value = { ...now, waiting: now.waiting.map((one) => ({ ...one, look })) }
    }
  })
  onScopeDispose(() => {
    stopListening()
    stopLooking()
    asking?.abort()
    clearTimeout(timer)
    if (pending.value.length > 0) {
      void save()
    }
  })

  return {
    take,
    state,
    plan,
    planned,
    planning,
    problems,
    saved: computed(() => pending.value.length === 0),
    load,
    open,
    change,
    note,
    save,
    undo: () => step('undo'),
    redo: () => step('redo'),
  }
}

/** What estimates on the bench are made for. */
export const USUAL = { codec: 'h264', settings: {}, sound: 'kept' }

function marks(state: State): { inFrame?: number; outFrame?: number } {
  return {
    ...(state.inFrame === undefined ? {} : { inFrame: state.inFrame }),
    ...(state.outFrame === undefined ? {} : { outFrame: state.outFrame }),
  }
}
