import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { ClipView } from '@/api/client'
import Run from './Run.vue'

function mounted(props: { frame?: number; inFrame?: number; outFrame?: number } = {}) {
  const run = mount(Run, {
    props: {
      clip: { id: 'c' } as ClipView,
      frames: 100,
      seconds: 8,
      byHand: [],
      peekOf: (frame: number) => `/peek-of-${frame}`,
      frame: props.frame ?? 50,
      inFrame: props.inFrame,
      outFrame: props.outFrame,
    },
  })
  const strip = run.find<HTMLElement>('[data-test=strip]').element
  strip.getBoundingClientRect = () => ({ left: 10, top: 0, width: 200, height: 40 }) as DOMRect
  strip.setPointerCapture = () => {}
  for (const handle of run.findAll<HTMLElement>('[role=slider]')) {
    handle.element.setPointerCapture = () => {}
  }
  return run
}

function pointer(type: string, x: number) {
  return Object.assign(new MouseEvent(type, { clientX: x, bubbles: true }), { pointerId: 1 })
}

beforeEach(() => setActivePinia(createPinia()))

describe('the time axis', () => {
  it('tells where one is', () => {
    const run = mounted()
    expect(run.find('[data-test=frame]').text()).toBe('frame 50 of 100')
    expect(run.find('[data-test=time]').text()).toBe('0:04.00')
    expect(run.find('[data-test=span]').html()).toContain('No span is marked')
  })

  it('goes to the frame under the pointer, and not past the ends', () => {
    const run = mounted()
    const strip = run.find('[data-test=strip]').element
    strip.dispatchEvent(pointer('pointerdown', 60))
    strip.dispatchEvent(pointer('pointermove', 61.9))
    strip.dispatchEvent(pointer('pointermove', 900))
    strip.dispatchEvent(pointer('pointerup', 900))
    strip.dispatchEvent(pointer('pointermove', 20))
    expect(run.emitted('update:frame')?.map((args) => args[0])).toEqual([25, 99])
  })

  it('steps one frame, but not out of the clip', async () => {
    const run = mounted({ frame: 0 })
    expect(run.find('[aria-label="One frame back"]').attributes('disabled')).toBeDefined()
    await run.find('[aria-label="One frame on"]').trigger('click')
    expect(run.emitted('update:frame')?.[0]).toEqual([1])
  })

  it('moves the marks by dragging and keeps in before out', () => {
    const run = mounted({ inFrame: 20, outFrame: 60 })
    expect(run.find('[data-test=span]').text()).toContain('in 0:01.60out 0:04.80')
    const [first, last] = run.findAll('[role=slider]')
    first!.element.dispatchEvent(pointer('pointerdown', 50))
    first!.element.dispatchEvent(pointer('pointermove', 190))
    last!.element.dispatchEvent(pointer('pointerdown', 12))
    expect(run.emitted('span')).toEqual([
      [20, 60],
      [59, 60],
      [20, 21],
    ])
  })

  it('moves the marks by keys, and clears them', async () => {
    const run = mounted({ inFrame: 20, outFrame: 60 })
    const [first, last] = run.findAll('[role=slider]')
    await first!.trigger('keydown', { key: 'ArrowLeft' })
    await last!.trigger('keydown', { key: 'ArrowRight' })
    await last!.trigger('keydown', { key: 'a' })
    await run.find('.clear').trigger('click')
    expect(run.emitted('span')).toEqual([
      [19, 60],
      [20, 61],
      [undefined, undefined],
    ])
    expect(first!.attributes('aria-valuetext')).toBe('0:01.60')
  })

  it('takes marks that are typed as time codes, and says what is allowed', async () => {
    const run = mounted({ inFrame: 20, outFrame: 60 })
    await run.findAll('[data-test=span] .shown')[0]!.trigger('click')
    const field = run.find<HTMLInputElement>('[data-test=span] input')
    await field.setValue('f80')
    await field.trigger('keydown', { key: 'Enter' })
    expect(run.find('[role=alert]').text()).toContain('f0 to f59')
    await field.setValue('00:00:02:05')
    await field.trigger('keydown', { key: 'Enter' })
    // 100 frames in 8 s are counted as 13 a second: two seconds and five
    expect(run.emitted('span')!.at(-1)).toEqual([31, 60])
  })

  it('shows the small picture under the pointer, and tells what is passed while dragging', async () => {
    const run = mounted()
    const strip = run.find<HTMLElement>('[data-test=strip]')
    expect(run.find('[data-test=peek]').exists()).toBe(false)
    strip.element.dispatchEvent(pointer('pointermove', 110))
    await run.vm.$nextTick()
    expect(run.find('[data-test=peek] img').attributes('src')).toBe('/peek-of-50')
    expect(run.find('[data-test=peek]').text()).toContain('frame 50')
    expect(run.emitted('seek')).toBeUndefined()
    strip.element.dispatchEvent(pointer('pointerdown', 30))
    strip.element.dispatchEvent(pointer('pointermove', 50))
    strip.element.dispatchEvent(pointer('pointerup', 50))
    expect(run.emitted('seek')).toEqual([[10], [20], [undefined]])
    strip.element.dispatchEvent(pointer('pointerleave', 50))
    await run.vm.$nextTick()
    expect(run.find('[data-test=peek]').exists()).toBe(false)
  })
})
