import { describe, expect, it } from 'vitest'
import type { Recipe, RecipeStep } from '@/api/client'
import { inWay, plainly, sizeWay, withSetting, withStep } from './recipe'

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
    const changed = withSetting(recipe, 0, 'factor', 3)
    expect(changed.steps[0]?.settings['factor']).toBe(3)
    expect(recipe.steps[0]?.settings['factor']).toBe(2)
    expect(withSetting(recipe, 0, 'factor', undefined).steps[0]?.settings).toEqual({ kernel: 'mitchell' })
    expect(withSetting(recipe, 5, 'factor', 3)).toBe(recipe)
    expect(withStep(recipe, 0, { ...step, on: false }).steps[0]?.on).toBe(false)
  })

  it('shows the source plainly at the treated size', () => {
    expect(plainly(1280, 720).steps[0]?.settings).toEqual({ width: 1280, height: 720, kernel: 'bilinear' })
  })
})
