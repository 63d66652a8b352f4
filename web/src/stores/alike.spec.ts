import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, type ClipView, Problem, type TakeView } from '@/api/client'
import { treatAlike } from './alike'

const clip = (id: string, steps?: string[]) =>
  ({
    id,
    title: id,
    ...(steps
      ? {
          examination: {
            condition: {
              suggestion: { steps: steps.map((step) => ({ step, settings: {}, reason: '' })), notes: [] },
            },
          },
        }
      : {}),
  }) as unknown as ClipView
const recipe = { awlsmith: 1, steps: [{ step: 'crop', on: true, settings: {} }] }

afterEach(() => vi.restoreAllMocks())

function served() {
  vi.spyOn(api, 'takes').mockImplementation(async (id) => [
    { id: `take of ${id}`, version: 3, inFrame: 5, recipe } as unknown as TakeView,
  ])
  return vi.spyOn(api, 'changeTake').mockImplementation(async () => ({}) as TakeView)
}

describe('several clips treated alike', () => {
  it('get one clip’s recipe, and keep their own spans', async () => {
    const change = served()
    expect(await treatAlike([clip('a'), clip('b')], clip('c'))).toEqual([])
    expect(change.mock.calls.map(([id]) => id)).toEqual(['take of a', 'take of b'])
    expect(change.mock.calls[0]![1]).toEqual({ recipe, version: 3, inFrame: 5 })
  })

  it('get what each one’s condition suggests; who has none is named', async () => {
    const change = served()
    expect(await treatAlike([clip('a', ['deinterlace', 'enlarge']), clip('b')], undefined)).toEqual([
      'b has not been examined yet',
    ])
    expect(change).toHaveBeenCalledTimes(1)
    expect(change.mock.calls[0]![1].recipe.steps.map((step) => step.step)).toEqual(['deinterlace', 'enlarge'])
  })

  it('go on when one of them fails', async () => {
    const change = served()
    change.mockRejectedValueOnce(new Problem(409, 'changed elsewhere'))
    expect(await treatAlike([clip('a'), clip('b')], clip('c'))).toEqual(['a: changed elsewhere'])
    expect(change).toHaveBeenCalledTimes(2)
  })
})
