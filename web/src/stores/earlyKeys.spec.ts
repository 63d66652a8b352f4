import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useBenchKeys } from '@/view/useBenchKeys'
import { useEarlyKeys } from './earlyKeys'

const key = (name: string) => new KeyboardEvent('keydown', { key: name, cancelable: true })

beforeEach(() => {
  vi.useFakeTimers()
  setActivePinia(createPinia())
})
afterEach(() => vi.useRealTimers())

function place(ready = ref(false)) {
  const pressed: string[] = []
  const act = (name: string) => () => pressed.push(name)
  const scope = effectScope()
  scope.run(() =>
    useBenchKeys(
      () => ({ undo: act('undo'), redo: act('redo'), up: {}, down: { k: act('k'), c: act('c') } }),
      () => ready.value,
    ),
  )
  return { pressed, ready, scope }
}

describe('keys of a place that is still opening', () => {
  it('are done in order as soon as it can take them, and once', async () => {
    useEarlyKeys().hold(key('k'))
    const { pressed, ready } = place()
    useEarlyKeys().hold(key('c'))
    expect(pressed).toEqual([])
    ready.value = true
    await nextTick()
    expect(pressed).toEqual(['k', 'c'])
    window.dispatchEvent(key('k'))
    useEarlyKeys().hold(key('c'))
    expect(pressed).toEqual(['k', 'c', 'k'])
  })

  it('are not done much later', async () => {
    useEarlyKeys().hold(key('k'))
    vi.advanceTimersByTime(6000)
    const { pressed } = place(ref(true))
    await nextTick()
    expect(pressed).toEqual([])
  })

  it('are held again when the place has closed', async () => {
    const first = place(ref(true))
    await nextTick()
    first.scope.stop()
    useEarlyKeys().hold(key('c'))
    const second = place(ref(true))
    await nextTick()
    expect(first.pressed).toEqual([])
    expect(second.pressed).toEqual(['c'])
  })
})
