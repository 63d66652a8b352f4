import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import {
  api,
  type ClipView,
  type CodecDescription,
  type PlanView,
  Problem,
  type Recipe,
  type RenderView,
  type TakeView,
} from '@/api/client'
import { useFeed } from '@/stores/feed'
import { vuetify } from '@/vuetify'
import DispatchDialog from './DispatchDialog.vue'

const take: TakeView = {
  id: 't',
  clipId: 'c',
  name: 'A',
  recipe: {},
  inFrame: 10,
  outFrame: 60,
  version: 4,
  verdict: 'OPEN',
  undos: 0,
  redos: 0,
  updatedAt: '',
}
const recipe: Recipe = { awlsmith: 1, steps: [] }
const plan = (change: Partial<PlanView> = {}): PlanView => ({
  steps: [],
  base: { steps: 0, width: 640, height: 480 },
  ratePerSecond: 25,
  framesToOne: 1,
  waiting: [],
  moving: false,
  placement: { x: 0, y: 0, width: 640, height: 480 },
  width: 1280,
  height: 960,
  sar: '1',
  depth: 8,
  frames: 50,
  seconds: 2,
  clipSeconds: 8,
  wholeClip: false,
  memoryBytes: 90_000_000,
  fileBytes: 4_000_000,
  refusals: [],
  warnings: [],
  ...change,
})

const container = (ending: string) => ({
  ending,
  label: ending.toUpperCase(),
  taking: 'ALL' as const,
  subtitles: [],
  sounds: ['kept', 'aac', 'none'].map((id) => ({ id, label: `${id} sound`, effect: '' })),
})
const codecs: CodecDescription[] = [
  {
    id: 'h265',
    label: 'H.265',
    purpose: 'smaller',
    containers: [container('mp4')],
    lossless: false,
    transparency: false,
    qualities: [],
    params: [],
  },
  {
    id: 'h264',
    label: 'H.264',
    purpose: 'plays nearly everywhere',
    containers: [container('mp4'), container('mov')],
    lossless: false,
    transparency: false,
    qualities: [],
    params: [
      {
        key: 'quality',
        label: 'Quality',
        kind: 'whole',
        unit: 'CRF',
        min: 0,
        max: 51,
        fallback: '17',
        effect: '',
        options: [],
      },
      {
        key: 'depth',
        label: 'Depth',
        kind: 'choice',
        unit: '',
        effect: '',
        options: ['8', '10'].map((id) => ({ id, label: `${id} bit`, effect: '' })),
      },
    ],
  },
]
const press = (name: string) =>
  [...document.querySelectorAll('button')].find((button) => button.textContent?.trim() === name)!.click()

const preset = (
  key: string,
  label: string,
  purpose: string,
  codec: string,
  settings: Record<string, unknown>,
  isDefault = false,
) => ({
  key,
  label,
  purpose,
  isDefault,
  deliverable: { codec, settings, container: 'mp4', sound: 'kept' },
})

beforeEach(() => {
  vi.spyOn(api, 'trial').mockRejectedValue(new Problem(409, 'later'))
  vi.spyOn(api, 'nameOf').mockResolvedValue({ fileName: 'Deck walk A 1280x960.mp4' })
  vi.spyOn(api, 'codecs').mockResolvedValue(codecs)
  vi.spyOn(api, 'presets').mockResolvedValue([
    preset('watch', 'To watch', 'plays nearly everywhere', 'h264', {}),
    preset('small', 'To send', 'small enough', 'h265', { quality: 26 }),
  ])
  setActivePinia(createPinia())
  document.body.innerHTML = ''
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

async function opened(targets = [{ take, recipe, title: 'Deck walk' }]) {
  const dialog = mount(DispatchDialog, {
    props: { modelValue: false, targets },
    global: { plugins: [vuetify] },
    attachTo: document.body,
  })
  await dialog.setProps({ modelValue: true })
  await vi.waitFor(() => expect(document.querySelector('[data-test=send]')).not.toBeNull())
  await nextTick()
  return dialog
}
const text = () => document.body.textContent
const send = () => document.querySelector<HTMLButtonElement>('[data-test=send]')!

describe('sending out', () => {
  it('says plainly that only the marked span goes, and offers the whole clip', async () => {
    const asked = vi
      .spyOn(api, 'plan')
      .mockImplementation(async (_clip, request) =>
        plan(request.inFrame === undefined ? { wholeClip: true, seconds: 8, frames: 200 } : {}),
      )
    await opened()
    await vi.waitFor(() => expect(text()).toContain('2.0 s of 8.0 s (in/out set), 50 frames'))
    expect(asked.mock.calls[0]?.[1]).toMatchObject({ inFrame: 10, outFrame: 60 })
    document.querySelector<HTMLButtonElement>('button.treated')!.click()
    await vi.waitFor(() => expect(text()).toContain('the whole clip, 8.0 s, 200 frames'))
    expect(text()).toContain('Send only the marked span')
  })

  it('tells size, weight, time and memory before anything starts', async () => {
    vi.spyOn(api, 'plan').mockResolvedValue(
      plan({ estimateSeconds: 125, warnings: ['beyond what most players show'] }),
    )
    await opened()
    await vi.waitFor(() => expect(text()).toContain('1280×960'))
    expect(text()).toContain('roughly 4.0 MB')
    expect(text()).toContain('about 2 min on this machine, done at')
    expect(text()).toContain('90 MB')
    expect(text()).toContain('beyond what most players show')
    expect(send().disabled).toBe(false)
  })

  it('tells time and size by trying a few frames, once nothing changes any more', async () => {
    vi.spyOn(api, 'plan').mockResolvedValue(plan({ estimateSeconds: 125 }))
    vi.mocked(api.trial).mockResolvedValue({ seconds: 40, fileBytes: 5_500_000, frames: 24 })
    await opened()
    await vi.waitFor(() => expect(text()).toContain('roughly 4.0 MB'))
    await vi.waitFor(() => expect(text()).toContain('about 5.5 MB'), 3000)
    expect(text()).toContain('about 40 s on this machine')
  })

  it('sends nothing that is refused', async () => {
    vi.spyOn(api, 'plan').mockResolvedValue(
      plan({ refusals: ['this needs more memory; choose a smaller size'] }),
    )
    await opened()
    await vi.waitFor(() => expect(text()).toContain('choose a smaller size'))
    expect(send().disabled).toBe(true)
  })

  it('orders what was planned and closes, or says why not and stays', async () => {
    vi.spyOn(api, 'plan').mockResolvedValue(plan())
    const order = vi
      .spyOn(api, 'order')
      .mockRejectedValueOnce(new Problem(507, 'the disk is too full'))
      .mockResolvedValue([{} as RenderView])
    const dialog = await opened()
    await vi.waitFor(() => expect(send().disabled).toBe(false))
    send().click()
    await vi.waitFor(() => expect(text()).toContain('the disk is too full'))
    expect(dialog.emitted('sent')).toBeUndefined()
    send().click()
    await vi.waitFor(() => expect(dialog.emitted('sent')).toHaveLength(1))
    expect(order).toHaveBeenLastCalledWith({
      takes: [{ takeId: 't', wholeClip: false }],
      deliverables: [{ codec: 'h264', settings: {}, container: 'mp4', sound: 'kept' }],
      pattern: '{clip} {take} {size}',
    })
    expect(dialog.emitted('update:modelValue')?.at(-1)).toEqual([false])
  })

  it('draws what can be set from the description, and sends only what was set', async () => {
    const ask = vi.spyOn(api, 'plan').mockResolvedValue(plan())
    await opened()
    await vi.waitFor(() => expect(text()).toContain('17 CRF, very fine'))
    expect(text()).toContain('plays nearly everywhere')
    expect(ask.mock.lastCall?.[1].deliverable.settings).toEqual({})
    press('8 bit')
    await vi.waitFor(() => expect(ask.mock.lastCall?.[1].deliverable.settings).toEqual({ depth: '8' }))
    press('as it is')
    await vi.waitFor(() => expect(ask.mock.lastCall?.[1].deliverable.settings).toEqual({}))
  })

  it('offers no sound where there is none, and says when it will be stretched', async () => {
    vi.spyOn(api, 'plan').mockResolvedValue(
      plan({
        steps: [{ summary: '', width: 1, height: 1, ratePerSecond: 25, scan: 'p', speed: 0.5, curves: [] }],
      }),
    )
    await opened()
    await vi.waitFor(() => expect(text()).toContain('stretched to the picture'))
    const feed = useFeed()
    feed.clips.set('c', { facts: { sound: [] } } as unknown as ClipView)
    await vi.waitFor(() => expect(text()).not.toContain('Sound'))
  })

  it('makes several files of one treatment, and of several clips, later', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: new Date(2026, 10, 28, 15, 0) })
    vi.spyOn(api, 'plan').mockResolvedValue(plan({ warnings: ['may show bands'] }))
    const order = vi.spyOn(api, 'order').mockResolvedValue([])
    await opened([
      { take, recipe, title: 'Deck walk' },
      { take: { ...take, id: 'u', clipId: 'd' }, recipe, title: 'Regatta' },
    ])
    await vi.waitFor(() => expect(text()).toContain('Send out 2 clips'))
    await vi.waitFor(() => expect(text()).toContain('2 clips: may show bands'))
    document.querySelector<HTMLElement>('[data-test=another]')!.click()
    await nextTick()
    document.querySelector<HTMLInputElement>('[data-test=later] input')!.click()
    await vi.waitFor(() => expect(send().textContent).toContain('Send out then'))
    await vi.waitFor(() => expect(send().disabled).toBe(false))
    send().click()
    await vi.waitFor(() => expect(order).toHaveBeenCalled())
    const sent = order.mock.lastCall![0]
    expect(sent.takes.map((one) => one.takeId)).toEqual(['t', 'u'])
    expect(sent.deliverables.map((one) => one.codec)).toEqual(['h264', 'h265'])
    expect(new Date(sent.notBefore!)).toEqual(new Date(2026, 10, 28, 22, 0))
    vi.useRealTimers()
  })

  it('begins with the preset that is the first choice, and keeps what was set as another', async () => {
    vi.spyOn(api, 'plan').mockResolvedValue(plan())
    vi.mocked(api.presets).mockResolvedValue([
      preset('watch', 'To watch', 'plays nearly everywhere', 'h264', {}),
      preset('own', 'Museum', 'your own', 'h265', { quality: 18 }, true),
    ])
    const save = vi.spyOn(api, 'savePreset').mockResolvedValue({} as never)
    await opened()
    await vi.waitFor(() =>
      expect(document.querySelector('[data-test=preset-own]')?.getAttribute('aria-pressed')).toBe('true'),
    )
    document.querySelector<HTMLElement>('[data-test=sound-aac]')!.click()
    await vi.waitFor(() => expect(text()).toContain('as you set it'))
    press('Save as a preset')
    await nextTick()
    const field = document.querySelector<HTMLInputElement>('.own .naming input')!
    field.value = 'Museum, AAC'
    field.dispatchEvent(new Event('input', { bubbles: true }))
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
    await vi.waitFor(() => expect(save).toHaveBeenCalled())
    expect(save.mock.lastCall?.[0]).toBe('Museum, AAC')
    expect(save.mock.lastCall?.[1]).toMatchObject({ codec: 'h265', sound: 'aac' })
  })

  it('is set by what it is for, and says when it is set otherwise', async () => {
    const asked = vi.spyOn(api, 'plan').mockResolvedValue(plan())
    await opened()
    const preset = (id: string) => document.querySelector<HTMLElement>(`[data-test=preset-${id}]`)!
    expect(preset('watch').getAttribute('aria-pressed')).toBe('true')
    preset('small').click()
    await vi.waitFor(() =>
      expect(asked.mock.calls.at(-1)![1].deliverable).toMatchObject({
        codec: 'h265',
        settings: { quality: 26 },
      }),
    )
    await nextTick()
    expect(preset('small').getAttribute('aria-pressed')).toBe('true')
    expect(document.body.textContent).toContain('small enough')
    preset('watch').click()
    await nextTick()
    press('10 bit')
    await nextTick()
    expect(document.body.textContent).toContain('as you set it')
  })
})
