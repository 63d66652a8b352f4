import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { keepUnsaved, takeUnsaved } from './unsaved'

interface State {
  factor: number
}
const left = { version: 3, states: [{ factor: 2 }, { factor: 4 }] }

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
})
afterEach(() => vi.useRealTimers())

/** As a window with another name would have kept it. */
function byAnother(at: number) {
  localStorage.setItem('awlsmith-unsaved/t/other', JSON.stringify({ ...left, at }))
}

describe('changes that are not saved yet', () => {
  it('are taken up again, once', () => {
    keepUnsaved<State>('t', left)
    expect(takeUnsaved<State>('t')).toEqual(left)
    expect(takeUnsaved<State>('t')).toBeUndefined()
  })

  it('are forgotten when they are saved', () => {
    keepUnsaved<State>('t', left)
    keepUnsaved<State>('t', { version: 4, states: [] })
    expect(takeUnsaved<State>('t')).toBeUndefined()
  })

  it('of a window that is still open stay its own', () => {
    byAnother(Date.now() - 1000)
    expect(takeUnsaved<State>('t')).toBeUndefined()
  })

  it('of a window that was closed are taken over, and those of other takes are not', () => {
    byAnother(Date.now() - 20_000)
    expect(takeUnsaved<State>('u')).toBeUndefined()
    expect(takeUnsaved<State>('t')).toEqual(left)
  })

  it('that cannot be read do no harm', () => {
    localStorage.setItem('awlsmith-unsaved/t/other', '{')
    expect(takeUnsaved<State>('t')).toBeUndefined()
  })
})
