import { flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import { api, type PeeksView } from '@/api/client'
import { peekOf, usePeeks } from './usePeeks'

const made: PeeksView = { count: 50, every: 2, width: 480, height: 270, progress: 1, coming: false }

class Bitmap {
  closed = false
  constructor(readonly url: string) {}
  close() {
    this.closed = true
  }
}

vi.stubGlobal('ImageBitmap', Bitmap)

function started() {
  const come: (() => void)[] = []
  const pictures: Bitmap[] = []
  vi.spyOn(api, 'picture').mockImplementation(
    (url) =>
      new Promise((resolve) =>
        come.push(() => {
          const bitmap = new Bitmap(url)
          pictures.push(bitmap)
          resolve(bitmap as unknown as ImageBitmap)
        }),
      ),
  )
  const scope = effectScope()
  const clip = ref('a')
  const failed = vi.fn()
  const use = scope.run(() =>
    usePeeks(
      () => clip.value,
      () => ({ width: 1920, height: 1080 }),
      failed,
    ),
  )!
  return { use, scope, clip, come, pictures, failed }
}

describe('small pictures', () => {
  afterEach(() => {
    vi.restoreAllMocks()
    vi.useRealTimers()
  })

  it('tells which picture stands for a frame', () => {
    expect([0, 1, 2, 99, 100].map((n) => peekOf(made, n))).toEqual([0, 0, 1, 49, 49])
  })

  it('skips what was passed while a picture was on its way', async () => {
    vi.spyOn(api, 'peeks').mockResolvedValue(made)
    const { use, come, pictures } = started()
    await flushPromises()
    use.seek(10)
    use.seek(12)
    use.seek(40)
    come[0]?.()
    await flushPromises()
    come[1]?.()
    await flushPromises()
    expect(pictures.map((p) => p.url)).toEqual(['/api/clips/a/peeks/5', '/api/clips/a/peeks/20'])
    expect(pictures[0]?.closed).toBe(true)
    expect(use.piece.value).toEqual({
      bitmap: pictures[1],
      covers: { x: 0, y: 0, width: 1920, height: 1080 },
    })
    use.release()
    expect(use.piece.value).toBeUndefined()
    expect(pictures[1]?.closed).toBe(true)
  })

  it('shows nothing that comes after it was let go', async () => {
    vi.spyOn(api, 'peeks').mockResolvedValue(made)
    const { use, come, pictures } = started()
    await flushPromises()
    use.seek(10)
    use.release()
    come[0]?.()
    await flushPromises()
    expect(use.piece.value).toBeUndefined()
    expect(pictures[0]?.closed).toBe(true)
  })

  it('asks again while they are being made, and not for ever', async () => {
    vi.useFakeTimers()
    const ask = vi
      .spyOn(api, 'peeks')
      .mockResolvedValueOnce({ ...made, count: 0, coming: true })
      .mockResolvedValue(made)
    const { use, scope } = started()
    await vi.advanceTimersByTimeAsync(10)
    expect(use.src(4)).toBeUndefined()
    await vi.advanceTimersByTimeAsync(2000)
    expect(use.src(4)).toBe('/api/clips/a/peeks/2')
    await vi.advanceTimersByTimeAsync(20_000)
    expect(ask).toHaveBeenCalledTimes(2)
    scope.stop()
  })
})
