import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type ModelView } from '@/api/client'
import { vuetify } from '@/vuetify'
import Library from './Library.vue'

const model = (id: string, mode: string, pixelsASecond?: number): ModelView => ({
  job: 'enlarge',
  id,
  mode,
  label: id === 'worn' ? 'Worn' : 'Drawn',
  purpose: `${id} footage`,
  factor: 2,
  frames: id === 'worn' ? 5 : 1,
  told: false,
  weights: 103204,
  training: { design: `a net for ${mode}`, gain: '+1.5 dB over Lanczos' },
  ...(pixelsASecond === undefined ? {} : { pixelsASecond }),
})

beforeEach(() => {
  setActivePinia(createPinia())
  vi.spyOn(api, 'recipes').mockResolvedValue([])
  vi.spyOn(api, 'firstRecipe').mockResolvedValue({ how: 'USUAL' })
  vi.spyOn(api, 'steps').mockResolvedValue([
    { id: 'crop', group: 'prepare', name: 'Crop', purpose: '', params: [] },
  ])
  vi.spyOn(api, 'machine').mockResolvedValue({
    cores: 4,
    memoryBytes: 1,
    nets: "the processor's cores",
    graphics: false,
    coding: 'the cores',
    there: '0-3',
    mostBytes: 4e9,
    share: { memory: 1, whileWorking: 1 },
  })
})
afterEach(() => vi.restoreAllMocks())

async function library() {
  const page = mount(Library, { global: { plugins: [vuetify] } })
  await flushPromises()
  return page
}

describe('the library', () => {
  it('shows every family once with its modes side by side', async () => {
    vi.spyOn(api, 'models').mockResolvedValue([
      model('worn', 'quality'),
      model('worn', 'crisp'),
      model('drawn', 'fast'),
    ])
    const page = await library()
    expect(page.findAll('article[data-test^=card]')).toHaveLength(2)
    const worn = page.find('[data-test=card-worn]')
    expect(worn.findAll('.mode').map((one) => one.find('.label').text())).toEqual(['quality', 'crisp'])
    expect(worn.text()).toContain('2× · 103,204 weights · reads 5 frames')
    expect(page.find('[data-test=card-drawn]').text()).not.toContain('frames')
    expect(worn.text()).toContain('+1.5 dB over Lanczos')
    expect(page.find('[data-test=machine]').text()).toBe("they run on the processor's cores, 4 at once")
  })

  it('measures speeds one after another when asked to, and again', async () => {
    vi.spyOn(api, 'models').mockResolvedValue([model('worn', 'quality'), model('worn', 'fast')])
    const answers: ((model: ModelView) => void)[] = []
    vi.spyOn(api, 'measureModel').mockImplementation(() => new Promise((done) => answers.push(done)))
    const page = await library()
    const button = page.find('[data-test=measure]')
    expect(page.text()).toContain('not measured yet')
    expect(button.text()).toBe('Measure speeds')
    await button.trigger('click')
    expect(button.text()).toBe('Measuring 1 of 2, stop')
    answers[0]?.(model('worn', 'quality', 640 * 360 * 3.5))
    await flushPromises()
    expect(page.text()).toContain('3.5 frames/s of 640×360 here')
    expect(button.text()).toBe('Measuring 2 of 2, stop')
    answers[1]?.(model('worn', 'fast', 640 * 360 * 40))
    await flushPromises()
    expect(button.text()).toBe('Measure speeds again')
  })

  it('stops measuring when told to', async () => {
    vi.spyOn(api, 'models').mockResolvedValue([model('worn', 'quality'), model('worn', 'fast')])
    let answer: (model: ModelView) => void = () => {}
    const asked = vi.spyOn(api, 'measureModel').mockReturnValue(new Promise((done) => (answer = done)))
    const page = await library()
    const button = page.find('[data-test=measure]')
    await button.trigger('click')
    await button.trigger('click')
    answer(model('worn', 'quality', 640 * 360))
    await flushPromises()
    expect(asked).toHaveBeenCalledTimes(1)
    expect(button.text()).toBe('Measure speeds')
  })

  it('can be opened again when the server was away', async () => {
    const models = vi.spyOn(api, 'models').mockRejectedValueOnce(new Error('away'))
    await library()
    models.mockResolvedValue([model('drawn', 'fast')])
    expect((await library()).findAll('article[data-test^=card]')).toHaveLength(1)
  })

  it('lists kept recipes with what they do, and throws them away', async () => {
    vi.spyOn(api, 'models').mockResolvedValue([])
    const recipe = { awlsmith: 1, steps: [{ step: 'crop', on: true, settings: {} }] }
    vi.spyOn(api, 'recipes').mockResolvedValue([{ id: 'r', name: 'winches', recipe, madeAt: '' }])
    const gone = vi.spyOn(api, 'removeRecipe').mockResolvedValue({} as Response)
    const page = await library()
    const list = page.find('[data-test=recipes]')
    expect(list.text()).toContain('winches')
    expect(list.text()).toContain('crop')
    await list.findAll('button').at(-1)?.trigger('click')
    await flushPromises()
    expect(gone).toHaveBeenCalledWith('r')
    expect(list.text()).toContain('None yet')
  })

  it('sets what new clips begin with', async () => {
    vi.spyOn(api, 'models').mockResolvedValue([])
    const set = vi.spyOn(api, 'setFirstRecipe').mockImplementation(async (way) => way)
    const page = await library()
    const first = page.findComponent({ name: 'WayPicker' })
    expect(first.props('modelValue')).toEqual({ how: 'USUAL' })
    first.vm.$emit('update:modelValue', { how: 'SUGGESTED' })
    await flushPromises()
    expect(set).toHaveBeenCalledWith({ how: 'SUGGESTED' })
    expect(first.props('modelValue')).toEqual({ how: 'SUGGESTED' })
  })
})
