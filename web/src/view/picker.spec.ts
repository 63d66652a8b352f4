import { describe, expect, it } from 'vitest'
import type { ConditionFacts, Recipe, StepDescription } from '@/api/client'
import { pickerGroups } from './picker'

const kind = (id: string, group: string, name: string, purpose: string): StepDescription => ({
  id,
  group,
  name,
  purpose,
  params: [],
})
const kinds = [
  kind('rate', 'motion', 'Rate', 'brings frames to an even rate'),
  kind('crop', 'prepare', 'Crop', 'keeps a part of the picture'),
  kind('denoise', 'clean', 'Denoise', 'takes noise out'),
  kind('glow', 'elsewhere', 'Glow', 'glows'),
]
const condition = {
  suggestion: {
    steps: [
      { step: 'denoise', settings: { strength: 1 }, reason: 'noise 8.3 of 255' },
      { step: 'rate', settings: {}, reason: 'uneven' },
    ],
    notes: [],
  },
} as unknown as ConditionFacts
const recipe: Recipe = { awlsmith: 1, steps: [{ step: 'rate', on: true, settings: {} }] }

describe('the kinds of steps', () => {
  it('stand in working order, what the clip speaks for first, without what the recipe has', () => {
    const groups = pickerGroups(kinds, condition, recipe, '')
    expect(groups.map((group) => group.title)).toEqual([
      'suggested by this clip',
      'prepare',
      'clean',
      'motion',
      'elsewhere',
    ])
    const [suggested] = groups[0]!.rows
    expect(suggested).toMatchObject({ words: 'noise 8.3 of 255', settings: { strength: 1 }, key: '1' })
    expect(groups[0]!.rows).toHaveLength(1)
  })

  it('suggest again what was switched off', () => {
    const off = { ...recipe, steps: [{ ...recipe.steps[0]!, on: false }] }
    expect(pickerGroups(kinds, condition, off, '')[0]!.rows.map((row) => row.kind.id)).toEqual([
      'denoise',
      'rate',
    ])
  })

  it('are found by all words typed, in name, purpose, reason or group', () => {
    const found = (typed: string) =>
      pickerGroups(kinds, condition, recipe, typed).flatMap((group) => group.rows.map((row) => row.kind.id))
    expect(found('NOISE out')).toEqual(['denoise'])
    expect(found('8.3')).toEqual(['denoise'])
    expect(found('motion')).toEqual(['rate'])
    expect(found('zebra')).toEqual([])
  })

  it('come first where they are called what is typed', () => {
    const cadence = kind('cadence', 'prepare', 'Repeated frames', 'finds the rate again')
    const groups = pickerGroups([cadence, ...kinds], condition, recipe, 'rate')
    expect(groups.map((group) => [group.title, group.rows.map((row) => row.kind.id)])).toEqual([
      ['called so', ['rate']],
      ['prepare', ['cadence']],
    ])
  })

  it('do without a condition', () => {
    expect(pickerGroups(kinds, undefined, recipe, '')[0]!.title).toBe('prepare')
  })
})
