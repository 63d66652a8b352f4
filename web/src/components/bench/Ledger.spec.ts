import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type ClipView, type PlanView, type Recipe, type StepDescription } from '@/api/client'
import { vuetify } from '@/vuetify'
import Ledger from './Ledger.vue'

const clip = {
  id: 'c',
  title: 'Winch',
  facts: { width: 320, height: 240, ratePerSecond: 12.5, scan: 'p', depth: 8, sar: '16/15' },
} as unknown as ClipView
const recipe: Recipe = { awlsmith: 1, steps: [{ step: 'enlarge', on: true, settings: { factor: 2 } }] }
const steps: StepDescription[] = [
  { id: 'enlarge', group: 'enlarge', name: 'Enlarge', purpose: '', params: [] },
]
const plan = {
  waiting: [],
  steps: [{ summary: '2x worn', width: 640, height: 480, ratePerSecond: 12.5, scan: 'p', curves: [] }],
  frames: 50,
  ratePerSecond: 12.5,
  seconds: 4,
  clipSeconds: 8,
  wholeClip: false,
  fileBytes: 3_500_000,
  estimateSeconds: 95,
} as unknown as PlanView

beforeEach(() => {
  setActivePinia(createPinia())
  document.body.innerHTML = ''
  vi.spyOn(api, 'models').mockReturnValue(new Promise(() => {}))
})

function mounted(props: Partial<InstanceType<typeof Ledger>['$props']> = {}) {
  return mount(Ledger, {
    props: {
      clip,
      recipe,
      steps,
      plan,
      problems: [],
      figures: undefined,
      cropping: -1,
      seconds: 0,
      alone: -1,
      look: undefined,
      ...props,
    },
    global: { plugins: [vuetify] },
  })
}

describe('the ledger', () => {
  it('leads from the source to what is sent out', () => {
    const text = mounted().text()
    expect(text).toContain('320×240 · 12.5p')
    expect(text).toContain('pixels 16:15')
    expect(text).toContain('2x worn')
    expect(text).toContain('640×480 · 12.5p')
    expect(text).toContain('4.0 s · 3.5 MB')
    expect(text).toContain('only 4.0 s of 8.0 s')
  })

  it('leaves a step out and takes it in again', async () => {
    const ledger = mounted()
    await ledger.find('[role=switch]').trigger('click')
    expect(ledger.emitted('change')?.[0]?.[0]).toMatchObject({ steps: [{ on: false }] })
    const off = { ...recipe, steps: [{ ...recipe.steps[0]!, on: false }] }
    await ledger.setProps({ recipe: off })
    expect(ledger.text()).toContain('off')
    expect(ledger.text()).not.toContain('2x worn')
    expect(ledger.find('[data-test=size]').exists()).toBe(false)
  })

  it('opens and closes a step', async () => {
    const ledger = mounted()
    expect(ledger.find('.inside').exists()).toBe(true)
    await ledger.find('.name:not(.clip-title)').trigger('click')
    expect(ledger.find('.inside').exists()).toBe(false)
    expect(ledger.find('.name:not(.clip-title)').attributes('aria-expanded')).toBe('false')
  })

  it('tells what each step measured to change, and what it made worse', () => {
    const source = { noise: 7.9, edges: 4.1, halo: 0, blocks: 1, light: 0.4 }
    const figures = {
      source,
      steps: [{ noise: 2.1, edges: 4.0, halo: 0.12, blocks: 1, light: 0.4 }],
      taken: [],
    }
    const ledger = mounted({ figures })
    expect(ledger.find('[data-test=did]').text()).toBe('noise 7.9→2.1')
    expect(ledger.find('[data-test=worse]').text()).toBe('haloes of 12 %')
    expect(
      mounted({ figures: { source, steps: [], taken: [] } })
        .find('[data-test=did]')
        .exists(),
    ).toBe(false)
  })

  it('sends nothing out without a plan', async () => {
    const ledger = mounted({ plan: undefined })
    expect(ledger.find('.bg-primary').attributes('disabled')).toBeDefined()
    await ledger.setProps({ plan })
    await ledger.find('.bg-primary').trigger('click')
    expect(ledger.emitted('dispatch')).toHaveLength(1)
  })

  const examined = {
    ...clip,
    examination: {
      state: 'DONE',
      progress: 1,
      condition: {
        findings: [
          {
            id: 'comb',
            label: 'Comb',
            value: 97,
            unit: '%',
            severity: 0.97,
            noticed: true,
            words: 'fields woven',
            method: '',
          },
        ],
        worst: 'comb',
        scan: 'top_first',
        cuts: 0,
        suggestion: {
          steps: [
            { step: 'deinterlace', settings: {}, reason: 'fields woven, top field first' },
            { step: 'enlarge', settings: { factor: 2, model: 'worn' }, reason: 'worn: MPEG-2' },
          ],
          notes: ['Shake: shakes by 0.50 % of the width'],
        },
      },
    },
  } as unknown as ClipView
  const more: StepDescription[] = [
    { id: 'deinterlace', group: 'prepare', name: 'Deinterlace', purpose: 'makes whole frames', params: [] },
    { id: 'crop', group: 'prepare', name: 'Crop', purpose: 'keeps a part', params: [] },
    ...steps,
  ]

  it('suggests steps with their reasons and takes them at one click', async () => {
    const ledger = mounted({ clip: examined, steps: more })
    const suggested = ledger.find('[data-test=suggested]')
    expect(suggested.text()).toContain('2 steps suggested, 1 found without')
    expect(suggested.text()).not.toContain('fields woven')
    await suggested.find('.fold').trigger('click')
    expect(suggested.text()).toContain('Deinterlace fields woven, top field first')
    expect(ledger.text()).toContain('Shake: shakes by 0.50 %')
    await suggested.findAll('button').at(-1)!.trigger('click')
    const [taken] = ledger.emitted('change')!.at(-1) as [Recipe]
    expect(taken.steps.map((step) => step.step)).toEqual(['deinterlace', 'enlarge'])
    await ledger.setProps({ recipe: taken })
    // it stays where it is, so that nothing moves
    expect(ledger.find('[data-test=suggested]').text()).toContain('taken')
  })

  it('shows all that was measured when the clip is opened', async () => {
    const ledger = mounted({ clip: examined })
    expect(ledger.find('[data-test=condition]').exists()).toBe(false)
    await ledger.find('.clip-title').trigger('click')
    expect(ledger.find('[data-test=condition]').text()).toContain('Comb')
    expect(ledger.find('[data-test=condition]').text()).toContain('Examine again')
  })

  it('adds a step where its kind belongs, and takes it out again', async () => {
    const ledger = mounted({ steps: more })
    await ledger.find('.add button').trigger('click')
    // the picker lies over the page
    await vi.waitFor(() => expect(document.querySelectorAll('.kind')).toHaveLength(3))
    document.querySelectorAll<HTMLElement>('.kind')[1]!.click()
    const [added] = ledger.emitted('change')!.at(-1) as [Recipe]
    expect(added.steps.map((step) => step.step)).toEqual(['crop', 'enlarge'])
    expect(ledger.emitted('crop')!.at(-1)).toEqual([0])
    await ledger.setProps({ recipe: added })
    await ledger.find('.remove').trigger('click')
    const [without] = ledger.emitted('change')!.at(-1) as [Recipe]
    expect(without.steps.map((step) => step.step)).toEqual(['enlarge'])
  })
})
