import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type RecipeStep, type StepDescription } from '@/api/client'
import { useModels } from '@/stores/models'
import { vuetify } from '@/vuetify'
import EnlargeControls from './EnlargeControls.vue'

const real = (key: string, kind: string, min: number, max: number) => ({
  key,
  label: key,
  kind,
  unit: 'x',
  min,
  max,
  effect: `what ${key} does`,
  options: [],
})
const description: StepDescription = {
  id: 'enlarge',
  group: 'enlarge',
  name: 'Enlarge',
  purpose: '',
  params: [
    real('factor', 'real', 0.125, 8),
    { ...real('kernel', 'choice', 0, 0), options: [{ id: 'lanczos3', label: 'Lanczos 3', effect: 'sharp' }] },
    {
      ...real('model', 'choice', 0, 0),
      fallback: 'none',
      options: [
        { id: 'none', label: 'None', effect: 'the kernel alone' },
        { id: 'worn', label: 'Worn', effect: 'noisy footage' },
      ],
    },
    {
      ...real('mode', 'choice', 0, 0),
      options: [
        { id: 'quality', label: 'Quality', effect: 'best' },
        { id: 'fast', label: 'Fast', effect: 'faster' },
      ],
    },
    real('strength', 'whole', 0, 150),
    real('width', 'whole', 2, 16384),
    real('height', 'whole', 2, 16384),
  ],
}
const step: RecipeStep = { step: 'enlarge', on: true, settings: { factor: 2, kernel: 'lanczos3' } }

const card = (mode: string) => ({
  job: 'enlarge',
  id: 'worn',
  mode,
  label: 'Worn',
  purpose: '',
  factor: 2,
  frames: 1,
  told: mode === 'quality',
  weights: 1,
  training: {},
})

beforeEach(() => {
  setActivePinia(createPinia())
  vi.spyOn(api, 'models').mockReturnValue(new Promise(() => {}))
  useModels().all = [card('quality'), card('fast')]
})

function mounted() {
  return mount(EnlargeControls, {
    props: {
      step,
      description,
      picture: { width: 640, height: 360 },
      made: { width: 1280, height: 720 },
      problems: [],
      suggestion: { model: 'worn', reason: 'it is old' },
    },
    global: { plugins: [vuetify] },
  })
}

const at = (label: string) => `input[aria-label="${label}"]`

describe('the enlarge card', () => {
  it('shows what the step makes, and lets either side be typed', async () => {
    const card = mounted()
    const value = (label: string) => (card.find(at(label)).element as HTMLInputElement).value
    expect([value('Factor'), value('width'), value('height')]).toEqual(['2', '1280', '720'])
    await card.find(at('width')).setValue('1000')
    await card.find(at('width')).trigger('change')
    expect(card.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { width: 1000, kernel: 'lanczos3' } })
    expect(card.emitted('change')?.[0]?.[0]).not.toMatchObject({ settings: { factor: 2 } })
    await card.setProps({ step: { ...step, settings: { width: 1000 } } })
    await card.find(at('height')).setValue('500')
    await card.find(at('height')).trigger('change')
    expect(card.emitted('change')?.at(-1)?.[0]).toMatchObject({ settings: { width: 1000, height: 500 } })
  })

  it('takes a usual frame by a click on its outline, and by its key', async () => {
    const card = mounted()
    await card.find('[data-test=frame-1080p]').trigger('click')
    expect(card.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { target: '1080p' } })
    await card.find('[data-test=frame-1440p]').trigger('keydown.enter')
    expect(card.emitted('change')?.[1]?.[0]).toMatchObject({ settings: { target: '1440p' } })
  })

  it('takes the factor from the corner by arrows', async () => {
    const card = mounted()
    await card.find('[data-test=corner]').trigger('keydown', { key: 'ArrowUp' })
    expect(card.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { factor: 2.25 } })
    await card.find('[data-test=corner]').trigger('keydown', { key: 'a' })
    expect(card.emitted('change')).toHaveLength(1)
  })

  it('marks the suggested kind and chooses by swatch', async () => {
    const card = mounted()
    expect(card.find('[data-test=row-worn]').text()).toContain('suggested: it is old')
    expect(card.find('[data-test=swatch-none-]').attributes('aria-checked')).toBe('true')
    expect(card.text()).not.toContain('what strength does')
    await card.find('[data-test=swatch-worn-fast]').trigger('click')
    const changed = card.emitted('change')?.[0]?.[0] as RecipeStep
    expect(changed.settings).toMatchObject({ model: 'worn', mode: 'fast' })
    await card.setProps({ step: changed })
    expect(card.find('[data-test=swatch-worn-fast]').attributes('aria-checked')).toBe('true')
    expect(card.text()).toContain('what strength does')
  })

  it('takes the first mode for chosen where none is set', async () => {
    const card = mounted()
    await card.setProps({ step: { ...step, settings: { factor: 2, model: 'worn' } } })
    expect(card.find('[data-test=swatch-worn-quality]').attributes('aria-checked')).toBe('true')
  })

  it('keeps the kernel behind "more" without a model', async () => {
    const card = mounted()
    expect(card.text()).not.toContain('Lanczos 3')
    await card.find('[data-test=more]').trigger('click')
    expect(card.text()).toContain('Lanczos 3')
  })

  it('asks how soft footage is where the model can be told, and forgets it where not', async () => {
    const softness = real('softness', 'whole', 0, 100)
    const controls = mounted()
    await controls.setProps({
      description: { ...description, params: [...description.params, softness] },
      step: { ...step, settings: { factor: 2, model: 'worn' } },
    })
    await controls.find('[data-test=more]').trigger('click')
    const button = (label: string) => controls.findAll('button').find((b) => b.text() === label)
    expect(button('Not told')?.attributes('aria-pressed')).toBe('true')
    await button('Soft')?.trigger('click')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { softness: 80 } })
    await controls.setProps({ step: { ...step, settings: { factor: 2, model: 'worn', softness: 80 } } })
    expect(controls.text()).toContain('what softness does')
    await button('Not told')?.trigger('click')
    expect((controls.emitted('change')?.[1]?.[0] as RecipeStep).settings).not.toHaveProperty('softness')
    await controls.find('[data-test=swatch-worn-fast]').trigger('click')
    const fast = controls.emitted('change')?.[2]?.[0] as RecipeStep
    expect(fast.settings).toEqual({ factor: 2, model: 'worn', mode: 'fast' })
    await controls.setProps({ step: fast })
    expect(button('Not told')).toBeUndefined()
  })

  it('offers a fit only where the frame has another shape, says what it loses and what is wrong with it', async () => {
    const fit = {
      ...real('fit', 'choice', 0, 0),
      fallback: 'shape',
      options: [
        { id: 'shape', label: 'Keep shape', effect: '' },
        { id: 'fill', label: 'Fill', effect: '' },
      ],
    }
    const controls = mounted()
    await controls.setProps({
      description: {
        ...description,
        params: [...description.params, fit, real('offset', 'whole', -100, 100)],
      },
    })
    expect(controls.text()).not.toContain('Keep shape')
    await controls.setProps({ step: { ...step, settings: { width: 640, height: 480 } } })
    expect(controls.text()).toContain('Keep shape')
    expect(controls.text()).not.toContain('what offset does')
    await controls
      .findAll('button')
      .find((b) => b.text() === 'Fill')
      ?.trigger('click')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { fit: 'fill' } })
    await controls.setProps({
      made: { width: 640, height: 480 },
      step: { ...step, settings: { width: 640, height: 480, fit: 'fill' } },
      problems: [{ step: 0, key: 'fit', sentence: 'fit is gone' }],
    })
    expect(controls.find('[data-test=fitted]').text()).toBe('25 % of the picture is cut off')
    expect(controls.text()).toContain('what offset does')
    expect(controls.text()).toContain('fit is gone')
  })

  it('sends a typed factor only when it is allowed, and says the range when not', async () => {
    const controls = mounted()
    const field = controls.find(at('Factor'))
    await field.setValue('9')
    await field.trigger('change')
    expect(controls.emitted('change')).toBeUndefined()
    expect(controls.text()).toContain('allowed: 0.125..8 ×')
    await field.setValue('3')
    await field.trigger('change')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { factor: 3 } })
  })
})
