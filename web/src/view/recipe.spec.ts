import { describe, expect, it } from 'vitest'
import type { Recipe, RecipeStep } from '@/api/client'
import {
  plainly,
  sourceRecipe,
  stepWith,
  withNewStep,
  withoutStep,
  withStep,
  withSteppedAside,
} from './recipe'

const step: RecipeStep = { step: 'enlarge', on: true, settings: { factor: 2, kernel: 'mitchell' } }
const recipe: Recipe = { awlsmith: 1, steps: [step] }

describe('the recipe', () => {
  it('lets a step change places with its neighbour', () => {
    const three = { ...recipe, steps: ['a', 'b', 'c'].map((kind) => ({ ...step, step: kind })) }
    const order = (index: number, by: -1 | 1) =>
      withSteppedAside(three, index, by).steps.map((one) => one.step)
    expect(order(0, 1)).toEqual(['b', 'a', 'c'])
    expect(order(2, -1)).toEqual(['a', 'c', 'b'])
  })

  it('is changed by copying, never in place', () => {
    const changed = stepWith(step, 'factor', 3)
    expect(changed.settings['factor']).toBe(3)
    expect(step.settings['factor']).toBe(2)
    expect(stepWith(step, 'factor', undefined).settings).toEqual({ kernel: 'mitchell' })
    expect(withStep(recipe, 0, { ...step, on: false }).steps[0]?.on).toBe(false)
  })

  it('shows the source plainly at the treated size', () => {
    expect(plainly(1280, 720).steps[0]?.settings).toEqual({ width: 1280, height: 720, kernel: 'bilinear' })
  })

  it('gets a new step where its kind belongs', () => {
    const order = ['deinterlace', 'crop', 'enlarge']
    const one = withNewStep(recipe, 'deinterlace', order)
    expect(one.index).toBe(0)
    const two = withNewStep(one.recipe, 'crop', order)
    expect(two.index).toBe(1)
    expect(two.recipe.steps.map((each) => each.step)).toEqual(order)
    expect(withNewStep(recipe, 'sharpen', [...order, 'sharpen']).index).toBe(1)
    expect(withoutStep(two.recipe, 1).steps.map((each) => each.step)).toEqual(['deinterlace', 'enlarge'])
  })

  it('turns the source as it turns the treated picture', () => {
    const turned = withNewStep(recipe, 'turn', ['turn', 'enlarge']).recipe
    expect(sourceRecipe(turned, 1).steps.map((each) => each.step)).toEqual(['turn'])
    expect(sourceRecipe(turned, 1, { width: 640, height: 480 }).steps.at(-1)?.settings).toMatchObject({
      width: 640,
    })
  })
})
