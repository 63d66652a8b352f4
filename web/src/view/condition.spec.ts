import { describe, expect, it } from 'vitest'
import type { ClipView, ConditionFacts } from '@/api/client'
import { canBeMended, finding, holdsSteps, isExamining, mostWrong, rescueWords, suggested } from './condition'

const condition: ConditionFacts = {
  findings: [
    {
      id: 'noise',
      label: 'Noise',
      value: 7.9,
      unit: 'of 255',
      severity: 0.56,
      noticed: true,
      words: 'noise 7.9 of 255, fine-grained',
      method: '',
    },
  ],
  worst: 'noise',
  scan: 'progressive',
  cuts: 0,
  suggestion: {
    steps: [{ step: 'enlarge', settings: { factor: 2, model: 'worn' }, reason: 'worn: noise' }],
    notes: [],
  },
}

describe('a condition', () => {
  it('names the worst, or says that there is none', () => {
    expect(mostWrong(condition)).toBe('noise 7.9 of 255, fine-grained')
    expect(mostWrong({ ...condition, worst: undefined } as unknown as ConditionFacts)).toContain('nothing')
    expect(finding(condition, 'blur')).toBeUndefined()
  })

  it('is being made while the clip waits for it', () => {
    const clip = (state: string) => ({ examination: { state, progress: 0 } }) as unknown as ClipView
    expect(isExamining(clip('WAITING'))).toBe(true)
    expect(isExamining(clip('RUNNING'))).toBe(true)
    expect(isExamining(clip('STOPPED'))).toBe(false)
    expect(isExamining({} as ClipView)).toBe(false)
  })

  it('suggests a recipe, which is the same whatever the order of its settings', () => {
    const recipe = suggested(condition)
    expect(recipe.steps).toEqual([{ step: 'enlarge', on: true, settings: { factor: 2, model: 'worn' } }])
    const turned = {
      awlsmith: 1 as const,
      steps: [{ step: 'enlarge', on: true, settings: { model: 'worn', factor: 2 } }],
    }
    expect(holdsSteps(recipe, turned)).toBe(true)
    const more = { ...turned, steps: [{ step: 'crop', on: false, settings: {} }, ...turned.steps] }
    expect(holdsSteps(more, recipe)).toBe(true)
    expect(holdsSteps({ ...turned, steps: [] }, recipe)).toBe(false)
    expect(holdsSteps(recipe, { ...turned, steps: [] })).toBe(true)
  })
})

describe('a file made from a damaged one', () => {
  const made = (rescue: unknown, damaged: number[] = []) =>
    ({ facts: { rescue, damaged, errors: 0 } }) as unknown as ClipView

  it('says how many frames were made, which, and what is missing', () => {
    expect(rescueWords(made({ filled: true, made: [30, 31], missing: 61 }))).toBe(
      '2 frames were made of their neighbours: 30, 31; 61 are missing at the end',
    )
    expect(rescueWords(made({ filled: true, made: [4], missing: 0 }))).toBe(
      '1 frame was made of its neighbours: 4',
    )
    expect(rescueWords(made({ filled: true, made: [1, 2, 3, 4, 5, 6, 7, 8, 9], missing: 0 }))).toContain(
      '8 …',
    )
    expect(rescueWords(made({ filled: true, made: [], missing: 0 }))).toBe('no frame had to be made up')
    expect(rescueWords(made({ filled: false, made: [], missing: 0 }))).toContain('rebuilt')
    expect(rescueWords(made(undefined))).toBe('')
  })

  it('is not offered to be mended once it was', () => {
    expect(canBeMended(made(undefined, [3]))).toBe(true)
    expect(canBeMended(made({ filled: false, made: [], missing: 0 }, [3]))).toBe(true)
    expect(canBeMended(made({ filled: true, made: [], missing: 0 }, [3]))).toBe(false)
    expect(canBeMended(made(undefined))).toBe(false)
  })
})
