import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import {
  api,
  type ClipView,
  type PlanView,
  type Recipe,
  type StepDescription,
  type TakeView,
} from '@/api/client'
import { vuetify } from '@/vuetify'
import Ledger from './Ledger.vue'

const clip = {
  id: 'c',
  title: 'Winch',
  facts: { width: 320, height: 240, ratePerSecond: 12.5, scan: 'p', depth: 8, sar: '16/15' },
} as unknown as ClipView
const recipe: Recipe = { awlsmith: 1, steps: [{ step: 'enlarge', on: true, settings: { factor: 2 } }] }
const steps: StepDescription[] = [{ id: 'enlarge', name: 'Enlarge', purpose: '', params: [] }]
const plan = {
  steps: [{ summary: '2x worn', width: 640, height: 480 }],
  seconds: 4,
  clipSeconds: 8,
  wholeClip: false,
  fileBytes: 3_500_000,
  estimateSeconds: 95,
} as unknown as PlanView

beforeEach(() => {
  setActivePinia(createPinia())
  vi.spyOn(api, 'models').mockReturnValue(new Promise(() => {}))
})

function mounted(props: Partial<InstanceType<typeof Ledger>['$props']> = {}) {
  return mount(Ledger, {
    props: {
      clip,
      take: { name: 'A' } as TakeView,
      recipe,
      steps,
      plan,
      problems: [],
      saved: true,
      ...props,
    },
    global: { plugins: [vuetify] },
  })
}

describe('the ledger', () => {
  it('leads from the source to what is sent out', () => {
    const text = mounted().text()
    expect(text).toContain('320×240 · 12.5p')
    expect(text).toContain('pixels 16:15, shown square here')
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
    await ledger.find('.name').trigger('click')
    expect(ledger.find('.inside').exists()).toBe(false)
    expect(ledger.find('.name').attributes('aria-expanded')).toBe('false')
  })

  it('says that it is saving, and sends nothing out without a plan', async () => {
    const ledger = mounted({ saved: false, plan: undefined })
    expect(ledger.find('[role=status]').text()).toBe('saving…')
    expect(ledger.find('.go').attributes('disabled')).toBeDefined()
    await ledger.setProps({ plan })
    await ledger.find('.go').trigger('click')
    expect(ledger.emitted('dispatch')).toHaveLength(1)
  })

  it('tells of fields, which it cannot treat yet', () => {
    const interlaced = { ...clip, facts: { ...clip.facts!, scan: 'i' } } as ClipView
    expect(mounted({ clip: interlaced }).text()).toContain('fields are treated as whole frames')
  })
})
