import { expect, it } from 'vitest'
import type { ModelView } from '@/api/client'
import { rowsOf, settingsFor, shortSpeed } from './swatches'

const option = (id: string) => ({ id, label: id.toUpperCase(), effect: `what ${id} is` })
const card = (id: string, mode: string, pixelsASecond?: number): ModelView => ({
  job: 'enlarge',
  id,
  mode,
  label: id,
  purpose: '',
  factor: 2,
  frames: 1,
  told: mode !== 'fast',
  weights: 1,
  training: { gain: '+1 dB' },
  ...(pixelsASecond === undefined ? {} : { pixelsASecond }),
})
const all = [card('worn', 'quality', 1e6), card('worn', 'crisp', 2e6), card('drawn', 'fast')]
const at = {
  all,
  modesOf: (id: string) => (id === 'worn' ? ['quality', 'crisp', 'smooth'] : ['fast']),
  isTold: (_: string, mode: string) => mode !== 'fast',
}
const step = {
  step: 'enlarge',
  on: true,
  settings: { factor: 2, model: 'worn', softness: 40, kernel: 'area' },
}

it('lays out every kind with its own modes, and plain sampling last', () => {
  const rows = rowsOf(
    step,
    ['none', 'worn', 'drawn'].map(option),
    ['quality', 'crisp', 'smooth', 'fast'].map(option),
    at,
  )
  expect(rows.map((row) => [row.model, row.swatches.map((one) => one.mode)])).toEqual([
    ['worn', ['quality', 'crisp', 'smooth']],
    ['drawn', ['fast']],
    ['none', ['']],
  ])
  expect(rows[0]?.swatches[2]).toMatchObject({ speed: 2e6, gain: '+1 dB' })
  expect(rows[1]?.swatches[0]?.step.settings).toEqual({
    factor: 2,
    kernel: 'area',
    model: 'drawn',
    mode: 'fast',
  })
  expect(rows[2]?.swatches[0]?.step.settings).toEqual({ factor: 2, kernel: 'area' })
})

it('keeps an amount of made texture only where it is made', () => {
  const settings = { model: 'a', mode: 'made', texture: 50, softness: 10 }
  expect(settingsFor(settings, 'a', 'made', true)).toEqual(settings)
  expect(settingsFor(settings, 'a', 'crisp', true)).toEqual({ model: 'a', mode: 'crisp', softness: 10 })
})

it('says speed in frames of the clip', () => {
  expect(shortSpeed(1e6, { width: 100, height: 1000 })).toBe('10/s')
  expect(shortSpeed(314_159, { width: 100, height: 1000 })).toBe('3.1/s')
  expect(shortSpeed(undefined, { width: 1, height: 1 })).toBe('')
})
