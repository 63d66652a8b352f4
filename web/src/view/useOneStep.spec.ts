import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import type { PlanView, Recipe } from '@/api/client'
import { changesInPlace, useOneStep } from './useOneStep'

const steps = ['crop', 'denoise', 'enlarge'].map((step) => ({ step, on: true, settings: {} }))

function plan(recipe: Recipe): PlanView {
  const made = recipe.steps.map(() => ({ width: 320, height: 240 }))
  return {
    base: { width: 320, height: 240, steps: 0 },
    steps: made,
    waiting: [],
    placement: { x: 0, y: 0, width: 320, height: 240 },
    moving: false,
  } as unknown as PlanView
}

describe('one step alone', () => {
  it('has what reaches the step on one side and what it makes on the other', async () => {
    const recipe = ref<Recipe>({ awlsmith: 1, steps })
    const one = useOneStep(
      () => recipe.value,
      async (asked) => plan(asked),
      () => {},
    )
    one.index.value = 1
    await flushPromises()
    expect(one.shown.value?.before.recipe.steps.map((step) => step.step)).toEqual(['crop'])
    expect(one.shown.value?.after.recipe.steps.map((step) => step.step)).toEqual(['crop', 'denoise'])
    recipe.value = { awlsmith: 1, steps: [steps[0]!, { ...steps[1]!, on: false }] }
    await flushPromises()
    expect(one.index.value).toBe(-1)
    expect(one.shown.value).toBeUndefined()
  })

  it('lets go and says why when it cannot be planned', async () => {
    const failed = vi.fn()
    const one = useOneStep(
      () => ({ awlsmith: 1, steps }),
      () => Promise.reject(new Error('gone')),
      failed,
    )
    one.index.value = 0
    await flushPromises()
    expect(one.index.value).toBe(-1)
    expect(failed).toHaveBeenCalledOnce()
  })

  it('is offered where samples change on the spot', () => {
    const kind = (key: string) => ({ id: 'x', name: 'X', purpose: '', params: [{ key }] }) as never
    expect(changesInPlace(kind('share'))).toBe(true)
    expect(changesInPlace(kind('factor'))).toBe(false)
    expect(changesInPlace(undefined)).toBe(false)
  })
})
