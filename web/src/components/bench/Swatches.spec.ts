import { mount } from '@vue/test-utils'
import { expect, it } from 'vitest'
import type { Swatch, SwatchRow } from '@/view/swatches'
import Swatches from './Swatches.vue'

const swatch = (model: string, mode: string): Swatch => ({
  model,
  mode,
  label: mode,
  effect: `what ${mode} does`,
  speed: 230_400,
  gain: '+1 dB',
  step: { step: 'enlarge', on: true, settings: { model, mode } },
})
const rows: SwatchRow[] = [
  { model: 'worn', label: 'worn', purpose: 'noisy footage', swatches: [swatch('worn', 'quality')] },
  {
    model: 'drawn',
    label: 'drawn',
    purpose: 'drawn footage',
    swatches: [swatch('drawn', 'quality'), swatch('drawn', 'fast')],
  },
]

function mounted(change = {}) {
  return mount(Swatches, {
    props: {
      rows,
      model: 'worn',
      mode: 'quality',
      suggestion: { model: 'drawn', reason: 'flat colours' },
      look: undefined,
      picture: { width: 640, height: 360 },
      ...change,
    },
  })
}

it('show the suggested kind first, with its reason', () => {
  const all = mounted()
  expect(all.findAll('.row').map((row) => row.attributes('data-test'))).toEqual(['row-drawn', 'row-worn'])
  expect(all.find('[data-test=row-drawn]').text()).toContain('suggested: flat colours')
  expect(mounted({ suggestion: undefined }).findAll('.row')[0]?.attributes('data-test')).toBe('row-worn')
})

it('mark what is chosen, and choose another', async () => {
  const all = mounted()
  expect(all.findAll('[aria-checked=true]')).toHaveLength(1)
  expect(all.find('[data-test=swatch-worn-quality]').attributes('aria-checked')).toBe('true')
  await all.find('[data-test=swatch-drawn-fast]').trigger('click')
  expect(all.emitted('choose')?.[0]?.[0]).toMatchObject({ model: 'drawn', mode: 'fast' })
})

it('tell speed on this machine, and what each is for', () => {
  const one = mounted().find('[data-test=swatch-worn-quality]')
  expect(one.text()).toContain('1.0/s')
  expect(one.attributes('title')).toBe('noisy footage; what quality does. +1 dB')
  expect(one.attributes('aria-label')).toBe('worn, quality')
})
