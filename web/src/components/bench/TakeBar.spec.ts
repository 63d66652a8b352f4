import { mount, type VueWrapper } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { VListItem } from 'vuetify/components'
import type { ProofView, TakeView } from '@/api/client'
import { isBeside, lanes } from '@/stores/useProofs'
import ProofLane from './ProofLane.vue'
import ProofLine from './ProofLine.vue'
import TakeBar from './TakeBar.vue'

const take = (id: string, name: string, verdict: TakeView['verdict'] = 'OPEN'): TakeView => ({
  id,
  clipId: 'c',
  name,
  recipe: { steps: [] },
  version: 1,
  verdict,
  undos: 0,
  redos: 1,
  updatedAt: '',
})
const a = take('1', 'A')
const b = take('2', 'B', 'KEPT')
const gone = take('3', 'C', 'DISCARDED')

function bar(saved = true) {
  return mount(TakeBar, { props: { take: a, takes: [a, b], discarded: [gone], saved } })
}

const button = (on: ReturnType<typeof mount>, text: string) =>
  on.findAll('button').find((one) => one.text() === text)!

describe('the takes above the ledger', () => {
  it('tells which of how many is open, and what can be undone', () => {
    const on = bar()
    expect(on.find('[data-test=takes]').text()).toContain('Take A of 2')
    expect(button(on, 'undo').attributes('disabled')).toBeDefined()
    expect(button(on, 'redo').attributes('disabled')).toBeUndefined()
    expect(on.find('[role=status]').text()).toBe('saved')
    // what is not saved yet can be taken back all the same
    expect(button(bar(false), 'undo').attributes('disabled')).toBeUndefined()
  })

  it('opens others, and takes a discarded one back', async () => {
    const on = bar()
    await on.find('[data-test=takes]').trigger('click')
    expect(on.text()).toContain('B kept')
    await button(on, 'C discarded').trigger('click')
    expect(on.emitted('label')).toEqual([[gone, { verdict: 'OPEN' }]])
    expect(on.emitted('open')).toEqual([[gone]])
  })

  it('leaves a take that is discarded for another one', async () => {
    const on = bar()
    await on.find('[data-test=takes]').trigger('click')
    await on.find('[aria-label="Discard take A"]').trigger('click')
    expect(on.emitted('label')).toEqual([[a, { verdict: 'DISCARDED' }]])
    expect(on.emitted('open')).toEqual([[b]])
  })

  it('names takes and recipes, but not with nothing', async () => {
    const on = bar()
    await button(on, 'name').trigger('click')
    await on.find('input').setValue('  ')
    await on.find('input').trigger('keydown.enter')
    expect(on.emitted('label')).toBeUndefined()
    await button(on, 'save recipe').trigger('click')
    await on.find('input').setValue('winches')
    await on.find('input').trigger('blur')
    expect(on.emitted('saveRecipe')).toBeUndefined()
    await button(on, 'save recipe').trigger('click')
    await on.find('input').trigger('keydown.enter')
    expect(on.emitted('saveRecipe')).toEqual([['A']])
  })
})

const proof = (change: Partial<ProofView>): ProofView => ({
  id: 'p',
  clipId: 'c',
  takeName: 'A',
  recipe: { n: 1, steps: [] },
  fromFrame: 10,
  endFrame: 60,
  x: 0,
  y: 0,
  width: 320,
  height: 240,
  state: 'DONE',
  frames: 50,
  framesDone: 50,
  rate: 25,
  sound: false,
  madeAt: '',
  ...change,
})

/** Opens a menu and takes one of what it offers. */
async function choose(of: VueWrapper, menu: string, item: string) {
  await of.find(`[aria-label="${menu}"]`).trigger('click')
  const items = of.findAllComponents(VListItem)
  await items.find((one) => one.props('title') === item)?.trigger('click')
}

describe('proofs', () => {
  it('can be laid beside each other where they show the same', () => {
    const one = proof({})
    expect(isBeside(one, proof({ id: 'q', takeName: 'B' }))).toBe(true)
    expect(isBeside(one, one)).toBe(false)
    for (const differs of [{ fromFrame: 9 }, { x: 1 }, { width: 300 }, { rate: 50 }, { framesDone: 0 }]) {
      expect(isBeside(one, proof({ id: 'q', ...differs }))).toBe(false)
    }
    expect(isBeside(one, proof({ id: 'q', state: 'RUNNING' }))).toBe(false)
    const both = { treated: 'p', proof: 'r', takeName: 'B', recipe: { steps: [] } }
    expect(isBeside(one, proof({ id: 'q', against: both }))).toBe(false)
  })

  it('that overlap lie below each other, in the last row when there are too many', () => {
    const span = (fromFrame: number, endFrame: number) => ({ fromFrame, endFrame })
    expect(lanes([span(0, 10), span(10, 20), span(5, 8), span(9, 12), span(6, 7)], 3)).toEqual([
      0, 0, 1, 1, 2,
    ])
    expect(lanes([span(0, 9), span(0, 9), span(0, 9)], 2)).toEqual([0, 1, 1])
    expect(lanes([], 3)).toEqual([])
  })

  it('lie on the time axis where they were made, grey once the recipe has changed', async () => {
    const lane = mount(ProofLane, {
      props: {
        proofs: [
          proof({}),
          proof({ id: 'q', recipe: { n: 2, steps: [] }, state: 'RUNNING', framesDone: 25, secondsLeft: 3 }),
        ],
        frames: 100,
        chosen: 'q',
        present: JSON.stringify({ n: 1, steps: [] }),
      },
    })
    const [first, second] = lane.findAll('[data-test=proof]')
    expect(first?.attributes('style')).toContain('left: 10%; width: 50%')
    expect(first?.classes()).not.toContain('old')
    expect(second?.classes()).toEqual(expect.arrayContaining(['old', 'on', 'open']))
    expect(second?.attributes('aria-label')).toContain('25 of 50 frames, 3 s left')
    await first?.trigger('click')
    expect(lane.emitted('choose')?.[0]).toMatchObject([{ id: 'p' }])
  })

  it('tell how far they are, can be stopped, and say what went wrong', async () => {
    const props = { playing: false, loop: true, speed: 1, besides: [], old: false }
    const line = mount(ProofLine, {
      props: {
        ...props,
        proof: proof({ state: 'RUNNING', framesDone: 7, framesASecond: 3.2, secondsLeft: 13 }),
      },
    })
    expect(line.find('[data-test=proof-state]').text()).toContain('7/50')
    expect(line.text()).toContain('13 s left')
    await button(line, 'stop').trigger('click')
    expect(line.emitted('stop')).toHaveLength(1)
    await line.setProps({
      proof: proof({ state: 'FAILED', framesDone: 0, problem: 'the file is damaged there' }),
    })
    expect(line.text()).toContain('the file is damaged there')
    expect(line.find('.play').attributes('disabled')).toBeDefined()
    await line.setProps({ proof: proof({}) })
    await choose(line, 'Save it as a file', 'both beside each other')
    expect(line.emitted('compare')?.[0]?.[1]).toBe('pair')
    await line.setProps({ proof: proof({ comparison: { look: 'pair', framesDone: 9, ready: false } }) })
    expect(line.text()).toContain('pair 9/50')
    const other = proof({ id: 'q', takeName: 'B' })
    await line.setProps({ proof: proof({}), besides: [other], old: true })
    await choose(line, 'Beside another proof', 'B')
    expect(line.emitted('beside')?.[0]?.[1]).toMatchObject({ id: 'q' })
    await button(line, 'prove again').trigger('click')
    expect(line.emitted('again')?.[0]?.[0]).toMatchObject({ id: 'p' })
    const both = { treated: 'p', proof: 'q', takeName: 'B', recipe: { steps: [] } }
    await line.setProps({ proof: proof({ against: both }) })
    expect(line.find('[data-test=proof-state]').text()).toContain('B | A')
    expect(line.text()).not.toContain('prove again')
  })
})
