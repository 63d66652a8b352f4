import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type ClipView } from '@/api/client'
import { useFeed } from './feed'

class FakeSource {
  static last: FakeSource
  static readonly CLOSED = 2
  readyState = 1
  onerror: (() => void) | undefined
  readonly listeners = new Map<string, (event: { data: string }) => void>()
  constructor() {
    FakeSource.last = this
  }
  addEventListener(name: string, act: (event: { data: string }) => void) {
    this.listeners.set(name, act)
  }
  say(name: string, state: unknown) {
    this.listeners.get(name)?.({ data: JSON.stringify(state) })
  }
  close() {}
}

const clip = (id: string, title: string): ClipView => ({
  id,
  title,
  fileName: title,
  state: 'READY',
  progress: 1,
  linked: false,
  bytes: 1,
  addedAt: '',
  takes: 1,
  sentOut: 0,
  hasReference: false,
  hadReference: false,
})

beforeEach(() => {
  setActivePinia(createPinia())
  vi.stubGlobal('EventSource', FakeSource)
  vi.spyOn(api, 'renders').mockResolvedValue([])
  vi.spyOn(api, 'demo').mockResolvedValue({ label: '', share: 1 })
})

describe('the feed', () => {
  it('reads the lists at every connection and folds events by id', async () => {
    const clips = vi.spyOn(api, 'clips').mockResolvedValue([clip('1', 'old')])
    const feed = useFeed()
    feed.connect()
    FakeSource.last.say('hello', {})
    await vi.waitFor(() => expect(feed.loaded).toBe(true))
    FakeSource.last.say('clip', clip('1', 'new'))
    FakeSource.last.say('clip', clip('2', 'other'))
    expect([...feed.clips.values()].map((one) => one.title)).toEqual(['new', 'other'])
    FakeSource.last.say('clip-removed', { id: '1' })
    expect(feed.clips.size).toBe(1)

    clips.mockResolvedValue([clip('3', 'after a restart')])
    FakeSource.last.onerror?.()
    expect(feed.link).toBe('lost')
    FakeSource.last.say('hello', {})
    await vi.waitFor(() => expect([...feed.clips.keys()]).toEqual(['3']))
    expect(feed.link).toBe('open')
  })

  it('tells listeners what they listen for, until they stop', () => {
    const feed = useFeed()
    const heard: string[] = []
    const stop = feed.listen('take-removed', ({ id }) => heard.push(id))
    feed.listen('again', () => heard.push('again'))
    feed.connect()
    FakeSource.last.say('hello', {})
    FakeSource.last.say('take-removed', { id: 't1', clipId: 'c' })
    FakeSource.last.say('proof-removed', { id: 'p1', clipId: 'c' })
    stop()
    FakeSource.last.say('take-removed', { id: 't2', clipId: 'c' })
    expect(heard).toEqual(['again', 't1'])
  })
})
