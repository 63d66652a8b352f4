import { computed, effectScope, nextTick, ref, shallowRef } from 'vue'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { api, type PinView, type Recipe } from '@/api/client'
import type { Point } from './glass'
import { useSwatchSpot } from './useSwatchSpot'

const recipe: Recipe = { awlsmith: 1, steps: [] }
const place = { x: 12, y: 23, why: 'edges', frame: 3, amount: 5, harm: false }
let scope = effectScope()

function made() {
  const hover = shallowRef<Point>()
  const pins = shallowRef<PinView[]>([])
  const frame = ref(3)
  const size = computed(() => ({ width: 100, height: 50 }))
  const spot = scope.run(() => useSwatchSpot('c', frame, hover, pins, size, () => recipe))!
  return { spot, hover, pins, frame }
}

beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
  vi.restoreAllMocks()
})

it('looks at the middle until the place that tells most is known', async () => {
  vi.spyOn(api, 'places').mockResolvedValue([place])
  const { spot, frame } = made()
  expect(spot.value).toEqual({ spot: { x: 50, y: 25 }, named: 'in the middle' })
  await vi.advanceTimersByTimeAsync(600)
  expect(spot.value).toEqual({ spot: { x: 12, y: 23 }, named: 'edges' })
  frame.value = 9
  await nextTick()
  expect(spot.value.named).toBe('in the middle')
})

it('prefers a pin, and what was pointed at once it rested', async () => {
  const asked = vi.spyOn(api, 'places').mockResolvedValue([])
  const { spot, hover, pins } = made()
  pins.value = [{ id: 'p', clipId: 'c', frame: 3, name: '1', x: 0, y: 0, width: 10, height: 10 }]
  await vi.advanceTimersByTimeAsync(600)
  expect(asked).not.toHaveBeenCalled()
  expect(spot.value).toEqual({ spot: { x: 5, y: 5 }, named: 'at pin 1' })
  hover.value = { x: 7, y: 8 }
  await vi.advanceTimersByTimeAsync(100)
  hover.value = { x: 9, y: 9 }
  await vi.advanceTimersByTimeAsync(600)
  expect(spot.value).toEqual({ spot: { x: 9, y: 9 }, named: 'where you pointed' })
  hover.value = undefined
  await vi.advanceTimersByTimeAsync(600)
  expect(spot.value.named).toBe('where you pointed')
})

it('stays in the middle where places cannot be told', async () => {
  vi.spyOn(api, 'places').mockRejectedValue(new Error('gone'))
  const { spot } = made()
  await vi.advanceTimersByTimeAsync(600)
  expect(spot.value.named).toBe('in the middle')
})
