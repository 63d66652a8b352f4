import { expect, it } from 'vitest'
import type { Recipe, RecipeStep } from '@/api/client'
import { besideNames, difference } from './proofNames'

const step = (kind: string, settings: RecipeStep['settings'] = {}, on = true): RecipeStep => ({
  step: kind,
  on,
  settings,
})
const recipe = (...steps: RecipeStep[]): Recipe => ({ awlsmith: 1, steps })

it('names the one setting that differs', () => {
  const a = recipe(step('enlarge', { factor: 2, model: 'worn', mode: 'quality' }))
  const b = recipe(step('enlarge', { factor: 2, model: 'worn', mode: 'crisp' }))
  expect(difference(a, b)).toEqual(['quality', 'crisp'])
  expect(besideNames({ takeName: 'A', recipe: a }, { takeName: 'A', recipe: b })).toEqual([
    'A: quality',
    'A: crisp',
  ])
  expect(besideNames({ takeName: 'A', recipe: a }, { takeName: 'B', recipe: b })).toEqual(['A', 'B'])
})

it('names steps that one of them lacks or has switched off, and the second of a kind', () => {
  const a = recipe(step('denoise'), step('enlarge', { strength: 100 }))
  const b = recipe(step('denoise', {}, false), step('enlarge'), step('enlarge'))
  expect(difference(a, b)).toEqual(['denoise, strength 100 …', 'no denoise, strength as usual …'])
})

it('says nothing of the same', () => {
  const a = recipe(step('denoise', { noise: 3 }))
  expect(difference(a, a)).toEqual(['', ''])
  expect(besideNames({ takeName: 'A', recipe: a }, { takeName: 'A', recipe: a })).toEqual(['A', 'A'])
})
