import { mount, RouterLinkStub } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { ClipView } from '@/api/client'
import { useFresh } from '@/stores/fresh'
import { router } from '@/router'
import ClipRow from './ClipRow.vue'

const clip = (change: Partial<ClipView> = {}, facts = {}): ClipView =>
  ({
    id: 'c',
    title: 'Winch',
    state: 'READY',
    progress: 1,
    bytes: 1e6,
    takes: 1,
    sentOut: 0,
    linked: false,
    facts: {
      codec: 'H.264',
      width: 320,
      height: 240,
      ratePerSecond: 25,
      steady: true,
      scan: 'p',
      order: '',
      depth: 8,
      layout: '4:2:0',
      sar: '1',
      seconds: 8,
      errors: 0,
      damaged: [],
      colour: { matrix: 'bt709', range: 'limited', takenAs: 'bt709' },
      sound: [],
      ...facts,
    },
    ...change,
  }) as unknown as ClipView

function row(one: ClipView) {
  return mount(ClipRow, {
    props: { clip: one },
    global: { plugins: [router], stubs: { RouterLink: RouterLinkStub } },
  })
}

beforeEach(() => {
  localStorage.clear()
  setActivePinia(createPinia())
})

describe('a clip on the shelf', () => {
  it('leads to its bench, and is marked until somebody looked at it', async () => {
    const one = row(clip())
    expect(one.find('[aria-label="Treat Winch"]').exists()).toBe(true)
    expect(one.find('[data-test=new]').exists()).toBe(false)
    useFresh().arrived('c')
    await one.vm.$nextTick()
    expect(one.find('[data-test=new]').text()).toBe('new')
  })

  it('tells what was sent out only when something was', () => {
    expect(row(clip()).text()).not.toContain('sent out')
    expect(row(clip({ sentOut: 2 })).text()).toContain('2 sent out')
  })

  it('offers both ways to mend a damaged file, of a rebuilt one the better, of a mended one none', () => {
    const damaged = { damaged: [12], errors: 3 }
    const words = (rescue?: unknown) => row(clip({ problem: 'it ends early' }, { ...damaged, rescue })).text()
    expect(words()).toContain('Repair a copy')
    expect(words()).toContain('Mend a copy')
    const rebuilt = words({ filled: false, made: [], missing: 0 })
    expect(rebuilt).not.toContain('Repair a copy')
    expect(rebuilt).toContain('Mend a copy')
    const mended = words({ filled: true, made: [12], missing: 4 })
    expect(mended).not.toContain('Mend a copy')
    expect(mended).toContain('1 frame was made of its neighbours: 12; 4 are missing at the end')
  })
})
