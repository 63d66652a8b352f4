import { afterEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { api, type StillRequest } from '@/api/client'
import { useStill, type StillWish } from './useStill'

const bitmap = (width = 200) => ({ width, height: 160, close: vi.fn() }) as unknown as ImageBitmap

const wish = (change: Partial<StillWish> = {}): StillWish => {
  const part = { x: 20, y: 10, width: 200, height: 160 }
  return {
    clip: 'c',
    frame: 3,
    recipe: undefined,
    source: { width: 320, height: 240 },
    size: { width: 640, height: 480 },
    place: { x: 0, y: 0, width: 640, height: 480 },
    need: { part: { x: 40, y: 30, width: 100, height: 90 }, reduce: 1 },
    fetch: { part, reduce: 1 },
    ...change,
  }
}

/** Answers that come when the test says so. */
function answers() {
  const waiting: {
    request: StillRequest
    signal: AbortSignal
    give: (b: ImageBitmap) => void
    fail: (e: unknown) => void
  }[] = []
  vi.spyOn(api, 'still').mockImplementation(
    (_clip, request, signal) =>
      new Promise((give, fail) => waiting.push({ request, signal: signal!, give, fail })),
  )
  return waiting
}

function still(failed = vi.fn()) {
  const scope = effectScope()
  const made = scope.run(() => useStill('left', failed))!
  return { ...made, scope, failed }
}

const settle = () => new Promise((done) => setTimeout(done))

afterEach(() => vi.restoreAllMocks())

describe('one side’s picture', () => {
  it('covers the place of the source that its pixels were asked for', async () => {
    const waiting = answers()
    const { piece, pending, wish: ask } = still()
    ask(wish())
    expect(pending.value).toBe(true)
    expect(waiting[0]?.request).toMatchObject({ frame: 3, reduce: 1, viewer: 'left', part: { x: 20, y: 10 } })
    waiting[0]?.give(bitmap())
    await settle()
    expect(pending.value).toBe(false)
    expect(piece.value?.covers).toEqual({ x: 10, y: 5, width: 100, height: 80 })
  })

  it('counts from where the source lies in a frame of another shape', async () => {
    const waiting = answers()
    const { piece, wish: ask } = still()
    ask(wish({ place: { x: 160, y: 0, width: 320, height: 240 } }))
    waiting[0]?.give(bitmap())
    await settle()
    expect(piece.value?.covers).toEqual({ x: -140, y: 10, width: 200, height: 160 })
  })

  it('asks for nothing that it has or is getting', async () => {
    const waiting = answers()
    const { wish: ask } = still()
    ask(wish())
    ask(wish())
    expect(waiting).toHaveLength(1)
    waiting[0]?.give(bitmap())
    await settle()
    ask(wish())
    expect(waiting).toHaveLength(1)
    ask(wish({ frame: 4 }))
    expect(waiting).toHaveLength(2)
  })

  it('stops an older request and shows nothing of it', async () => {
    const waiting = answers()
    const { piece, wish: ask } = still()
    ask(wish())
    ask(wish({ frame: 4 }))
    expect(waiting[0]?.signal.aborted).toBe(true)
    const late = bitmap()
    waiting[0]?.give(late)
    await settle()
    expect(piece.value).toBeUndefined()
    expect(late.close).toHaveBeenCalled()
    const right = bitmap(90)
    waiting[1]?.give(right)
    await settle()
    expect(piece.value?.bitmap).toBe(right)
  })

  it('keeps the old piece until the new one is there, and tells of a failure once', async () => {
    const waiting = answers()
    const { piece, pending, failed, wish: ask } = still()
    ask(wish())
    const first = bitmap()
    waiting[0]?.give(first)
    await settle()
    ask(wish({ frame: 4 }))
    expect(piece.value?.bitmap).toBe(first)
    waiting[1]?.fail(new Error('gone'))
    await settle()
    expect(failed).toHaveBeenCalledTimes(1)
    expect(pending.value).toBe(false)
    expect(piece.value?.bitmap).toBe(first)
  })

  it('lets go of everything when it is not needed any more', async () => {
    const waiting = answers()
    const { scope, wish: ask } = still()
    ask(wish())
    const shown = bitmap()
    waiting[0]?.give(shown)
    await settle()
    ask(wish({ frame: 9 }))
    scope.stop()
    expect(waiting[1]?.signal.aborted).toBe(true)
    expect(shown.close).toHaveBeenCalled()
  })

  it('tells what it has and what it asks for, and gives up', async () => {
    const waiting = answers()
    const { wish: ask, has, asks, stop, pending } = still()
    ask(wish())
    expect([has(wish()), asks(wish()), asks(wish({ frame: 9 }))]).toEqual([false, true, false])
    stop()
    expect(waiting[0]?.signal.aborted).toBe(true)
    expect([asks(wish()), pending.value]).toEqual([false, false])
    ask(wish())
    waiting[1]?.give(bitmap())
    await settle()
    expect([has(wish()), asks(wish())]).toEqual([true, false])
  })
})
