import { describe, expect, it } from 'vitest'
import type { Recipe, RecipeStep } from '@/api/client'
import { inWay, plainly, sizeWay, sourceRecipe, stepWith, withNewStep, withoutStep, withStep } from './recipe'

const step: RecipeStep = { step: 'enlarge', on: true, settings: { factor: 2, kernel: 'mitchell' } }
const recipe: Recipe = { awlsmith: 1, steps: [step] }

describe('the recipe', () => {
  it('gives the size in exactly one way', () => {
    const target = inWay(step, 'target', 1280, 720)
    expect(target.settings).toEqual({ target: '1080p', kernel: 'mitchell' })
    const pixels = inWay(target, 'pixels', 1920, 1080)
    expect(pixels.settings).toEqual({ width: 1920, height: 1080, kernel: 'mitchell' })
    expect([step, target, pixels].map(sizeWay)).toEqual(['factor', 'target', 'pixels'])
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
