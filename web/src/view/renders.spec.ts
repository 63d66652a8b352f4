import { expect, it } from 'vitest'
import type { RenderView } from '@/api/client'
import { clockIn, secondsLeft } from './renders'

const one = (state: string, framesDone: number, more = {}) =>
  ({ state, frames: 100, framesDone, width: 10, height: 10, ...more }) as unknown as RenderView

it('counts what runs and what waits, by the pixels that are left', () => {
  const live = { secondsLeft: 50 }
  expect(secondsLeft([one('RUNNING', 50, { live })])).toBe(50)
  // twice as many frames are left of it, each four times as large
  expect(secondsLeft([one('WAITING', 0, { width: 20, height: 20 }), one('RUNNING', 50, { live })])).toBe(450)
  expect(secondsLeft([one('DONE', 100), one('RUNNING', 50, { live })])).toBe(50)
})

it('counts files of one treatment once, and not what begins later', () => {
  const live = { secondsLeft: 50 }
  const tonight = new Date(Date.now() + 3_600_000).toISOString()
  expect(
    secondsLeft([
      one('RUNNING', 50, { live, bundle: 'a' }),
      one('WAITING', 50, { bundle: 'a' }),
      one('WAITING', 0, { bundle: 'b' }),
      one('WAITING', 0, { bundle: 'b' }),
      one('WAITING', 0, { notBefore: tonight }),
    ]),
  ).toBe(150)
})

it('says nothing while the running one has not told its rate', () => {
  expect(secondsLeft([one('WAITING', 0)])).toBeUndefined()
  expect(secondsLeft([one('RUNNING', 0), one('WAITING', 0)])).toBeUndefined()
})

it('tells the time of day', () => {
  expect(clockIn(90 * 60, new Date(2026, 1, 1, 23, 5))).toBe('0:35')
})
