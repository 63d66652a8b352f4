import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { type AnalysisView, api, type PlanView, Problem, type Recipe, type TakeView } from '@/api/client'
import { useFeed } from './feed'
import { keepUnsaved } from './unsaved'
import { useTake } from './useTake'

const recipe = (factor: number): Recipe => ({
  awlsmith: 1,
  steps: [{ step: 'enlarge', on: true, settings: { factor } }],
})
const take = (version: number, factor = 2): TakeView => ({
  id: 't',
  clipId: 'c',
  name: 'A',
  recipe: recipe(factor) as unknown as TakeView['recipe'],
  version,
  verdict: 'OPEN',
  undos: version - 1,
  redos: 0,
  updatedAt: '',
})
const planned = { frames: 5, waiting: [] as PlanView['waiting'] } as PlanView

let hear: (take: TakeView) => void
let hearLook: (look: AnalysisView) => void

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  setActivePinia(createPinia())
  vi.spyOn(useFeed(), 'listen').mockImplementation((name, listener) => {
    if (name === 'analysis') {
      hearLook = listener as typeof hearLook
    } else {
      hear = listener as typeof hear
    }
    return () => true
  })
  vi.spyOn(api, 'takes').mockResolvedValue([take(1)])
  vi.spyOn(api, 'plan').mockResolvedValue(planned)
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.useRealTimers()
})

async function loaded(fail = vi.fn()) {
  const scope = effectScope()
  const made = scope.run(() => useTake('c', fail))!
  await made.load()
  await vi.advanceTimersByTimeAsync(0)
  return { ...made, fail, scope }
}

const factor = (state: { recipe: Recipe } | undefined) => state?.recipe.steps[0]?.settings['factor']

describe('the take on the bench', () => {
  it('is shown and planned as it was kept', async () => {
    const { state, plan, saved } = await loaded()
    expect(factor(state.value)).toBe(2)
    expect(plan.value).toEqual(planned)
    expect(saved.value).toBe(true)
  })

  it('is saved shortly after a change, on the version it was made on', async () => {
    const change = vi.spyOn(api, 'changeTake').mockImplementation(async () => take(2, 4))
    const { change: set, saved } = await loaded()
    set({ recipe: recipe(4), inFrame: 7 })
    expect(saved.value).toBe(false)
    expect(change).not.toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(400)
    expect(change).toHaveBeenCalledTimes(1)
    expect(change).toHaveBeenCalledWith('t', { recipe: recipe(4), inFrame: 7, version: 1 })
    expect(saved.value).toBe(true)
  })

  it('saves every change as a step of its own, and a drag as one', async () => {
    let version = 1
    const change = vi.spyOn(api, 'changeTake').mockImplementation(async () => take(++version, 4))
    const { change: set } = await loaded()
    set({ recipe: recipe(3) })
    set({ recipe: recipe(4) }, 'drag')
    set({ recipe: recipe(5) }, 'drag')
    set({ recipe: recipe(6) }, 'drag')
    await vi.advanceTimersByTimeAsync(400)
    expect(change.mock.calls.map(([, body]) => [factor(body), body.version])).toEqual([
      [3, 1],
      [6, 2],
    ])
  })

  it('goes back and forth by what the server kept, saving first', async () => {
    vi.spyOn(api, 'changeTake').mockResolvedValue(take(2, 3))
    const back = vi.spyOn(api, 'undoTake').mockResolvedValue({ ...take(3, 2), redos: 1 })
    const on = vi.spyOn(api, 'redoTake').mockResolvedValue(take(4, 3))
    const { change, state, undo, redo } = await loaded()
    change({ recipe: recipe(3) })
    await undo()
    expect(back).toHaveBeenCalledWith('t', 2)
    expect(factor(state.value)).toBe(2)
    await redo()
    expect(on).toHaveBeenCalledWith('t', 3)
    expect(factor(state.value)).toBe(3)
    await redo()
    expect(on).toHaveBeenCalledTimes(1)
  })

  it('takes two quick undos one after another, each on the version the other made', async () => {
    vi.spyOn(api, 'takes').mockResolvedValue([{ ...take(3, 4), undos: 2 }])
    let version = 3
    const back = vi.spyOn(api, 'undoTake').mockImplementation(async () => ({
      ...take(++version, 2),
      undos: 5 - version,
    }))
    const { undo } = await loaded()
    await Promise.all([undo(), undo(), undo()])
    expect(back.mock.calls.map(([, on]) => on)).toEqual([3, 4])
  })

  it('makes no step of undo of what changes nothing', async () => {
    const change = vi.spyOn(api, 'changeTake').mockResolvedValue(take(2))
    const { change: set, saved } = await loaded()
    set({ recipe: recipe(2) })
    expect(saved.value).toBe(true)
    await vi.advanceTimersByTimeAsync(400)
    expect(change).not.toHaveBeenCalled()
  })

  it('opens another take, saving what is unsaved of this one', async () => {
    const change = vi.spyOn(api, 'changeTake').mockResolvedValue(take(2, 3))
    const { change: set, open, take: at, state } = await loaded()
    set({ recipe: recipe(3) })
    await open({ ...take(1, 8), id: 'other', name: 'B' })
    expect(change).toHaveBeenCalledTimes(1)
    expect(at.value?.name).toBe('B')
    expect(factor(state.value)).toBe(8)
  })

  it('keeps the last good plan beside what is wrong with a setting', async () => {
    const { change, plan, problems } = await loaded()
    const wrong = { step: 0, key: 'factor', sentence: 'factor is 99' }
    vi.spyOn(api, 'plan').mockRejectedValue(new Problem(422, 'factor is 99', [wrong]))
    change({ recipe: recipe(99) })
    await vi.advanceTimersByTimeAsync(0)
    expect(problems.value).toEqual([wrong])
    expect(plan.value).toEqual(planned)
  })

  it('takes over a change made elsewhere, unless it has one of its own', async () => {
    const { state, change } = await loaded()
    hear(take(2, 3))
    expect(factor(state.value)).toBe(3)
    hear(take(1, 7))
    expect(factor(state.value)).toBe(3)
    vi.spyOn(api, 'changeTake').mockReturnValue(new Promise(() => {}))
    change({ recipe: recipe(4) })
    hear(take(3, 8))
    expect(factor(state.value)).toBe(4)
  })

  it('takes a verdict over from wherever it is heard of', async () => {
    const { take: at, note, change: set } = await loaded()
    note({ ...take(1), verdict: 'KEPT' })
    expect(at.value?.verdict).toBe('KEPT')
    note({ ...take(1), id: 'other', verdict: 'DISCARDED' })
    expect(at.value?.verdict).toBe('KEPT')
    vi.spyOn(api, 'changeTake').mockReturnValue(new Promise(() => {}))
    set({ recipe: recipe(4) })
    note(take(3, 8))
    expect(at.value?.version).toBe(1)
  })

  it('tells how a look through the clip goes, and plans anew at its end', async () => {
    const look: AnalysisView = {
      id: 'a',
      clipId: 'c',
      state: 'RUNNING',
      doing: 'following the camera',
      frames: 10,
      framesDone: 4,
    }
    const waits = { ...planned, waiting: [{ step: 0, doing: 'following the camera', look }] }
    const asked = vi.spyOn(api, 'plan').mockResolvedValue(waits)
    const { plan } = await loaded()
    hearLook({ ...look, framesDone: 7 })
    expect(plan.value?.waiting[0]?.look?.framesDone).toBe(7)
    hearLook({ ...look, id: 'other', framesDone: 1 })
    hearLook({ ...look, clipId: 'other', state: 'DONE' })
    expect(plan.value?.waiting[0]?.look?.framesDone).toBe(7)
    expect(asked).toHaveBeenCalledTimes(1)
    asked.mockResolvedValue(planned)
    hearLook({ ...look, state: 'DONE' })
    await vi.advanceTimersByTimeAsync(0)
    expect(plan.value?.waiting).toEqual([])
  })

  it('gives way, and says so, when somebody else was quicker', async () => {
    const { change, state, fail } = await loaded()
    vi.spyOn(api, 'changeTake').mockRejectedValue(new Problem(409, 'changed in another window'))
    vi.spyOn(api, 'takes').mockResolvedValue([take(5, 6)])
    change({ recipe: recipe(4) })
    await vi.advanceTimersByTimeAsync(400)
    expect(fail).toHaveBeenCalledTimes(1)
    expect(factor(state.value)).toBe(6)
  })

  it('tries on while the server is away', async () => {
    const { change, saved, fail } = await loaded()
    const answer = vi
      .spyOn(api, 'changeTake')
      .mockRejectedValueOnce(new Problem(0, 'away'))
      .mockResolvedValue(take(2, 4))
    change({ recipe: recipe(4) })
    await vi.advanceTimersByTimeAsync(400)
    expect(saved.value).toBe(false)
    await vi.advanceTimersByTimeAsync(2100)
    expect(answer).toHaveBeenCalledTimes(2)
    expect(saved.value).toBe(true)
    expect(fail).not.toHaveBeenCalled()
  })

  it('takes up again what this window had not saved, as behind signing in anew', async () => {
    keepUnsaved('t', { version: 1, states: [{ recipe: recipe(4), inFrame: 3, outFrame: undefined }] })
    const answer = vi.spyOn(api, 'changeTake').mockResolvedValue(take(2, 4))
    const { state } = await loaded()
    expect(factor(state.value)).toBe(4)
    expect(state.value?.inFrame).toBe(3)
    await vi.advanceTimersByTimeAsync(10)
    expect(answer).toHaveBeenCalledTimes(1)
    expect(localStorage.length).toBe(0)
  })

  it('keeps what was not saved as another take where this one was changed since', async () => {
    keepUnsaved('t', { version: 1, states: [{ recipe: recipe(4) }] })
    vi.spyOn(api, 'takes').mockResolvedValue([take(2, 8)])
    const added = vi.spyOn(api, 'addTakes').mockResolvedValue([take(1, 4)])
    const { state } = await loaded()
    expect(factor(state.value)).toBe(8)
    expect(added).toHaveBeenCalledWith('c', [{ recipe: recipe(4) }], 't')
  })

  it('saves what is unsaved when the bench is left', async () => {
    const answer = vi.spyOn(api, 'changeTake').mockResolvedValue(take(2, 4))
    const { change, scope } = await loaded()
    change({ recipe: recipe(4) })
    scope.stop()
    expect(answer).toHaveBeenCalledTimes(1)
  })
})
