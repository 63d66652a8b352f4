import { expect, it } from 'vitest'
import type { PlanView, Recipe } from '@/api/client'
import { cutsByHand } from './cutsByHand'

const recipe: Recipe = {
  awlsmith: 1,
  steps: [
    { step: 'speed', on: true, settings: { speed: 50 } },
    { step: 'rate', on: true, settings: { frames: 'made', scenes: '1:1,4:0' } },
    { step: 'rate', on: false, settings: { scenes: '2:1' } },
  ],
}

it('tells cuts by hand in frames of the clip, of steps that are on', () => {
  expect(cutsByHand(recipe, undefined, 25)).toEqual([
    { frame: 25, begins: true },
    { frame: 100, begins: false },
  ])
  // played at half the speed before, a second there is half a second of the clip
  const plan = { steps: [{ speed: 0.5 }, { speed: 0.5 }, { speed: 0.5 }] } as PlanView
  expect(cutsByHand(recipe, plan, 25).map((cut) => cut.frame)).toEqual([13, 50])
  expect(cutsByHand(undefined, undefined, 25)).toEqual([])
})
