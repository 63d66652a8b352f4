import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type RenderView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { vuetify } from '@/vuetify'
import RenderRow from './RenderRow.vue'

const render = (change: Partial<RenderView>): RenderView => ({
  id: 'r',
  clipId: 'c',
  clipTitle: 'Deck walk',
  takeName: 'B',
  fileName: 'Deck walk B.mp4',
  codec: 'H.264',
  deliverable: { codec: 'h264', container: 'mp4' },
  wholeClip: true,
  spanSeconds: 8,
  clipSeconds: 8,
  width: 1280,
  height: 720,
  state: 'WAITING',
  frames: 200,
  framesDone: 0,
  createdAt: '',
  place: 0,
  ...change,
})

function row(change: Partial<RenderView>) {
  return mount(RenderRow, { props: { render: render(change) }, global: { plugins: [vuetify] } })
}
const acts = (change: Partial<RenderView>) =>
  row(change)
    .findAll('.acts > *')
    .map((one) => one.text())

beforeEach(() => setActivePinia(createPinia()))
afterEach(() => vi.restoreAllMocks())

describe('a render', () => {
  it('waits, with what an earlier start made of it', () => {
    expect(row({}).text()).toContain('waits its turn')
    expect(row({ framesDone: 48 }).text()).toContain('waits its turn; 48 frames are done already')
    expect(acts({})).toEqual(['Rest', 'Cancel'])
  })

  it('rests and goes on, or begins when it was told to', async () => {
    expect(row({ state: 'PAUSED', framesDone: 48 }).text()).toContain('rests; 48 frames are done already')
    expect(acts({ state: 'PAUSED' })).toEqual(['Go on', 'Cancel'])
    const at = new Date(Date.now() + 3_600_000)
    const held = { notBefore: at.toISOString() }
    expect(row(held).text()).toContain(`begins at ${String(at.getHours()).padStart(2, '0')}:`)
    expect(acts(held)).toEqual(['Begin now', 'Cancel'])
    const resume = vi.spyOn(api, 'resumeRender').mockResolvedValue({} as never)
    await row({ state: 'PAUSED' }).find('.acts button').trigger('click')
    expect(resume).toHaveBeenCalledWith('r')
  })

  it('tells of sound alone and of one picture what there is to tell', () => {
    const result = {
      codec: 'FLAC',
      width: 0,
      height: 0,
      rate: '',
      ratePerSecond: 0,
      frames: 0,
      seconds: 8,
      bytes: 1000,
      depth: 0,
      matrix: '',
      range: '',
      transfer: '',
      primaries: '',
      sound: ['FLAC'],
      errors: 0,
    }
    const sound = { codec: 'Sound alone', deliverable: { codec: 'sound', container: 'flac' } }
    expect(row(sound).text()).toContain('Sound alone in FLAC')
    const told = row({ ...sound, state: 'DONE', result }).text()
    expect(told).toContain('Sound alone · FLAC · 8.0 s')
    expect(told).toContain('decodes to its end · one track')
    const one = { ...result, codec: 'PNG', width: 640, height: 360, frames: 1, sound: [], depth: 8 }
    expect(row({ state: 'DONE', result: one }).text()).toContain('640×360 · PNG · one picture')
  })

  it('tells where it is, how fast, and where the time goes', () => {
    const live = {
      on: '2 cores',
      elsewhere: 0,
      framesASecond: 3.25,
      secondsLeft: 40,
      decode: 0.05,
      treat: 0.9,
      encode: 0.05,
    }
    const running = row({ state: 'RUNNING', framesDone: 70, live })
    expect(running.text()).toContain('frame 70 of 200 · 3.3 fps')
    expect(running.text()).toContain('decode 5 % treat 90 % encode 5 %')
    expect(running.text()).toContain('35 %')
    expect(running.text()).toContain('left')
  })

  it('shows what was read back from the finished file', () => {
    const result = {
      codec: 'H.264 High',
      width: 1280,
      height: 720,
      rate: '25',
      ratePerSecond: 25,
      frames: 200,
      seconds: 8,
      bytes: 2_000_000,
      depth: 8,
      matrix: 'bt709',
      range: 'limited',
      transfer: '',
      primaries: '',
      sound: ['AAC'],
      errors: 0,
    }
    const done = row({ state: 'DONE', framesDone: 200, result })
    expect(done.text()).toContain('1280×720 · 25p · H.264 High · 200 frames · 8.0 s')
    expect(done.text()).toContain('all frames decode · bt709, limited range · 8 bit · sound AAC')
    expect(done.find('a').attributes('href')).toBe('/api/renders/r/file')
    const flawed = row({ state: 'DONE', result: { ...result, errors: 2, sound: [] } })
    expect(flawed.text()).toContain('2 decoding faults')
    expect(flawed.text()).toContain('no sound')
  })

  it('that failed says why and can be tried again', async () => {
    const retry = vi.spyOn(api, 'retryRender').mockResolvedValue(render({}))
    const failed = row({ state: 'FAILED', problem: 'the disk is full; free some and try again' })
    expect(failed.text()).toContain('the disk is full')
    await failed.findAll('.acts button')[0]!.trigger('click')
    expect(retry).toHaveBeenCalledWith('r')
    expect(acts({ state: 'CANCELLED', framesDone: 12 })).toEqual(['Try again', 'Remove'])
  })

  it('asks before much that is done is left unfinished', async () => {
    const cancelled = vi.spyOn(api, 'cancelRender').mockResolvedValue(render({}))
    const little = row({ state: 'RUNNING', framesDone: 3 })
    await little.find('[data-test=cancel]').trigger('click')
    expect(cancelled).toHaveBeenCalledTimes(1)
    const much = row({ state: 'RUNNING', framesDone: 150 })
    await much.find('[data-test=cancel]').trigger('click')
    expect(cancelled).toHaveBeenCalledTimes(1)
    expect(much.find('[data-test=cancel-sure]').text()).toContain('150 frames')
    await much.find('[data-test=cancel-sure]').trigger('click')
    expect(cancelled).toHaveBeenCalledTimes(2)
  })

  it('may go before another that waits, and gets another name', async () => {
    const earlier = vi.spyOn(api, 'earlierRender').mockResolvedValue(render({}))
    const named = vi.spyOn(api, 'nameRender').mockResolvedValue(render({}))
    const one = row({})
    expect(one.text()).not.toContain('Earlier')
    await one.setProps({ hasBefore: true })
    await one.find('[data-test=earlier]').trigger('click')
    expect(earlier).toHaveBeenCalledWith('r')
    await one.find('.file').trigger('click')
    const field = one.find('.naming input')
    expect((field.element as HTMLInputElement).value).toBe('Deck walk B')
    await field.setValue('For the museum')
    await field.trigger('keydown.enter')
    expect(named).toHaveBeenCalledWith('r', 'For the museum')
  })

  it('that cannot be cancelled says so at the foot of the page', async () => {
    vi.spyOn(api, 'cancelRender').mockRejectedValue(new Problem(404, 'this render is not here any more'))
    await row({ state: 'RUNNING' }).find('[data-test=cancel]').trigger('click')
    await vi.waitFor(() => expect(useNotices().text).toContain('not here any more'))
  })
})
