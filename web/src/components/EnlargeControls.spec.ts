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
      width: 1280,
      height: 720,
      problems: [],
      suggestion: { model: 'worn', reason: 'it is old' },
    },
    global: { plugins: [vuetify] },
  })
}

describe('the enlarge controls', () => {
  it('switch to pixels at the size the step has now', async () => {
    const controls = mounted()
    await controls
      .findAll('button')
      .find((b) => b.text() === 'pixels')
      ?.trigger('click')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({
      settings: { width: 1280, height: 720, kernel: 'lanczos3' },
    })
  })

  it('show the kernel without a model, and mode and strength with one', async () => {
    const controls = mounted()
    expect(controls.text()).toContain('Lanczos 3')
    expect(controls.find('[data-test=model-worn]').text()).toContain('suggested: it is old')
    expect(controls.text()).not.toContain('what strength does')
    await controls.find('[data-test=model-worn]').trigger('click')
    const changed = controls.emitted('change')?.[0]?.[0] as RecipeStep
    expect(changed.settings['model']).toBe('worn')
    await controls.setProps({ step: changed })
    expect(controls.text()).toContain('what strength does')
    expect(controls.text()).not.toContain('Lanczos 3')
    await controls
      .findAll('button')
      .find((b) => b.text() === 'Fast')
      ?.trigger('click')
    expect(controls.emitted('change')?.[1]?.[0]).toMatchObject({ settings: { model: 'worn', mode: 'fast' } })
  })

  it('ask how soft footage is where the model can be told, and forget it where not', async () => {
    const softness = real('softness', 'whole', 0, 100)
    const controls = mounted()
    await controls.setProps({
      description: { ...description, params: [...description.params, softness] },
      step: { ...step, settings: { factor: 2, model: 'worn' } },
    })
    const button = (label: string) => controls.findAll('button').find((b) => b.text() === label)
    expect(button('Not told')?.attributes('aria-pressed')).toBe('true')
    await button('Soft')?.trigger('click')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { softness: 80 } })
    await controls.setProps({ step: { ...step, settings: { factor: 2, model: 'worn', softness: 80 } } })
    expect(controls.text()).toContain('what softness does')
    expect(button('Soft')?.attributes('aria-pressed')).toBe('true')
    await button('Not told')?.trigger('click')
    expect((controls.emitted('change')?.[1]?.[0] as RecipeStep).settings).not.toHaveProperty('softness')
    await button('Fast')?.trigger('click')
    const fast = controls.emitted('change')?.[2]?.[0] as RecipeStep
    expect(fast.settings).toEqual({ factor: 2, model: 'worn', mode: 'fast' })
    await controls.setProps({ step: fast })
    expect(button('Not told')).toBeUndefined()
  })

  it('offer a fit only where the frame has a shape of its own, and say what is wrong with it', async () => {
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
    await controls.setProps({ step: { ...step, settings: { width: 640, height: 360 } } })
    expect(controls.text()).toContain('Keep shape')
    expect(controls.text()).not.toContain('what offset does')
    await controls
      .findAll('button')
      .find((b) => b.text() === 'Fill')
      ?.trigger('click')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { fit: 'fill' } })
    await controls.setProps({
      step: { ...step, settings: { width: 640, height: 360, fit: 'gone' } },
      problems: [{ step: 0, key: 'fit', sentence: 'fit is gone' }],
    })
    expect(controls.text()).toContain('what offset does')
    expect(controls.text()).toContain('fit is gone')
  })

  it('leave a mode behind that another model does not have', async () => {
    useModels().all = [card('fast')]
    const controls = mounted()
    await controls.setProps({ step: { ...step, settings: { factor: 2, mode: 'quality' } } })
    await controls.find('[data-test=model-worn]').trigger('click')
    expect(controls.emitted('change')?.[0]?.[0]).toEqual({ ...step, settings: { factor: 2, model: 'worn' } })
  })

  it('send a typed factor only when it is allowed, and say the range when not', async () => {
    const controls = mounted()
    const field = controls.find('input[inputmode="decimal"]')
    await field.setValue('9')
    await field.trigger('change')
    expect(controls.emitted('change')).toBeUndefined()
    expect(controls.text()).toContain('allowed: 0.125..8 x')
    await field.setValue('3')
    await field.trigger('change')
    expect(controls.emitted('change')?.[0]?.[0]).toMatchObject({ settings: { factor: 3 } })
  })
})
