import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { Problem } from '@/api/client'
import * as wire from '@/api/upload'
import { useUploads } from './uploads'

interface Sending {
  name: string
  progress: (sent: number) => void
  signal: AbortSignal
  done: () => void
  fail: (error: unknown) => void
}
const sendings: Sending[] = []

vi.mock('@/api/upload', () => ({ upload: vi.fn(), unfinished: vi.fn(), forget: vi.fn() }))

beforeEach(() => {
  setActivePinia(createPinia())
  sendings.length = 0
  vi.mocked(wire.upload).mockImplementation(
    (file, progress, signal) =>
      new Promise((done, fail) => sendings.push({ name: file.name, progress, signal, done, fail })),
  )
})
afterEach(() => vi.clearAllMocks())

const file = (name: string, size = 10) => new File([new Uint8Array(size)], name)
const settle = () => new Promise((done) => setTimeout(done))

describe('files on their way in', () => {
  it('go one at a time and are forgotten when they have arrived', async () => {
    const store = useUploads()
    store.add([file('a.mp4'), file('b.mp4')])
    await settle()
    expect(sendings.map((one) => one.name)).toEqual(['a.mp4'])
    sendings[0]?.progress(4)
    expect(store.uploads[0]).toMatchObject({ name: 'a.mp4', sent: 4, bytes: 10 })
    sendings[0]?.done()
    await settle()
    expect(sendings.map((one) => one.name)).toEqual(['a.mp4', 'b.mp4'])
    expect(store.uploads.map((one) => one.name)).toEqual(['b.mp4'])
  })

  it('that are too large are never sent, and say how large they may be', async () => {
    const store = useUploads()
    store.largest = 1_000_000
    store.add([file('huge.mov', 2_000_000), file('small.mov')])
    await settle()
    expect(sendings.map((one) => one.name)).toEqual(['small.mov'])
    expect(store.uploads[0]?.problem).toContain('at most 1.0 MB can be taken in here')
    store.dismiss(store.uploads[0]!.key)
    expect(store.uploads.map((one) => one.name)).toEqual(['small.mov'])
  })

  it('can be stopped, the waiting ones too', async () => {
    const store = useUploads()
    store.add([file('a.mp4'), file('b.mp4')])
    await settle()
    store.uploads[1]?.stop()
    store.uploads[0]?.stop()
    expect(sendings[0]?.signal.aborted).toBe(true)
    sendings[0]?.fail(new DOMException('stopped', 'AbortError'))
    await settle()
    expect(store.uploads).toHaveLength(0)
    expect(sendings).toHaveLength(1)
  })

  it('keep the reason when they are refused, and the next one goes', async () => {
    const store = useUploads()
    store.add([file('a.mp4'), file('b.mp4'), file('c.mp4')])
    await settle()
    sendings[0]?.fail(new Problem(507, 'the disk is full'))
    await settle()
    expect(store.uploads[0]?.problem).toBe('the disk is full')
    sendings[1]?.fail(new Error('what'))
    await settle()
    expect(store.uploads[1]?.problem).toBe('b.mp4 could not be sent')
    expect(sendings[2]?.name).toBe('c.mp4')
  })

  it('that broke off with an earlier page are told, and go on when dropped again', async () => {
    vi.mocked(wire.unfinished).mockResolvedValue([
      { key: 'k1', name: 'a.mp4', bytes: 10 },
      { key: 'k2', name: 'b.mp4', bytes: 99 },
    ])
    vi.mocked(wire.forget).mockResolvedValue()
    const store = useUploads()
    await store.findBroken()
    expect(store.broken.map((one) => one.name)).toEqual(['a.mp4', 'b.mp4'])
    store.add([file('a.mp4')])
    expect(store.broken.map((one) => one.name)).toEqual(['b.mp4'])
    await store.forgetBroken('k2')
    expect(store.broken).toEqual([])
    expect(wire.forget).toHaveBeenCalledWith('k2')
  })
})
