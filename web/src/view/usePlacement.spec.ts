import { afterEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, shallowRef } from 'vue'
import { api } from '@/api/client'
import type { Sides } from './sides'
import { usePlacement } from './usePlacement'

const sides = (moves: boolean): Sides => ({
  recipe: { awlsmith: 1, steps: [] },
  turning: 0,
  source: { width: 100, height: 80 },
  treated: { width: 90, height: 70 },
  placement: { x: -5, y: -5, width: 100, height: 80 },
  moves,
  waits: '',
})

function used(moves: boolean) {
  const planned = shallowRef<Sides | undefined>(sides(moves))
  const frame = ref(0)
  const scope = effectScope()
  const shown = scope.run(() => usePlacement('c', planned, frame, ref(0), vi.fn()))!
  return { planned, frame, shown }
}

afterEach(() => vi.restoreAllMocks())

describe('the frame that is shown', () => {
  it('is there at once where geometry rests', () => {
    const asked = vi.spyOn(api, 'placement')
    const { frame, shown } = used(false)
    frame.value = 7
    expect(shown.value?.frame).toBe(7)
    expect(asked).not.toHaveBeenCalled()
  })

  it('waits until it is known where it lies, and asks only once', async () => {
    const asked = vi
      .spyOn(api, 'placement')
      .mockImplementation((_clip, { frame }) => Promise.resolve({ x: -frame, y: 0, width: 100, height: 80 }))
    const { frame, shown } = used(true)
    await vi.waitFor(() => expect(shown.value?.frame).toBe(0))
    frame.value = 3
    expect(shown.value?.frame).toBe(0)
    await vi.waitFor(() => expect(shown.value?.frame).toBe(3))
    expect(shown.value?.sides.placement.x).toBe(-3)
    frame.value = 0
    expect(shown.value?.frame).toBe(0)
    expect(asked).toHaveBeenCalledTimes(2)
  })

  it('asks anew when what steps wait for is known', async () => {
    const asked = vi.spyOn(api, 'placement').mockResolvedValue({ x: 1, y: 0, width: 100, height: 80 })
    const { planned, shown } = used(true)
    await vi.waitFor(() => expect(shown.value).toBeDefined())
    planned.value = { ...sides(true), waits: 'other' }
    await vi.waitFor(() => expect(asked).toHaveBeenCalledTimes(2))
  })
})
