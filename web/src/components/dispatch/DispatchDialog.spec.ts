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

const codecs: CodecDescription[] = [
  {
    id: 'h265',
    label: 'H.265',
    purpose: 'smaller',
    containers: ['MP4'],
    lossless: false,
    transparency: false,
    params: [],
  },
  {
    id: 'h264',
    label: 'H.264',
    purpose: 'plays nearly everywhere',
    containers: ['MP4', 'MOV'],
    lossless: false,
    transparency: false,
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

beforeEach(() => {
  vi.spyOn(api, 'codecs').mockResolvedValue(codecs)
  vi.spyOn(api, 'presets').mockResolvedValue([
    { id: 'watch', label: 'To watch', purpose: 'plays nearly everywhere', codec: 'h264', settings: {} },
    { id: 'small', label: 'To send', purpose: 'small enough', codec: 'h265', settings: { quality: 26 } },
  ])
  setActivePinia(createPinia())
  document.body.innerHTML = ''
})
afterEach(() => {
  vi.restoreAllMocks()
  vi.unstubAllGlobals()
})

async function opened() {
  const dialog = mount(DispatchDialog, {
    props: { modelValue: false, take, recipe, clipTitle: 'Deck walk' },
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
    expect(text()).toContain('about 4.0 MB')
    expect(text()).toContain('by the last render here')
    expect(text()).toContain('90 MB')
    expect(text()).toContain('beyond what most players show')
    expect(send().disabled).toBe(false)
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
      .mockResolvedValue({} as RenderView)
    const dialog = await opened()
    await vi.waitFor(() => expect(send().disabled).toBe(false))
    send().click()
    await vi.waitFor(() => expect(text()).toContain('the disk is too full'))
    expect(dialog.emitted('sent')).toBeUndefined()
    send().click()
    await vi.waitFor(() => expect(dialog.emitted('sent')).toHaveLength(1))
    expect(order).toHaveBeenLastCalledWith({
      takeId: 't',
      wholeClip: false,
      deliverable: { codec: 'h264', settings: {}, sound: true },
    })
    expect(dialog.emitted('update:modelValue')?.at(-1)).toEqual([false])
  })

  it('draws what can be set from the description, and sends only what was set', async () => {
    const ask = vi.spyOn(api, 'plan').mockResolvedValue(plan())
    await opened()
    await vi.waitFor(() => expect(text()).toContain('17 CRF, very fine'))
    expect(text()).toContain('H.264 in MP4: plays nearly everywhere')
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
