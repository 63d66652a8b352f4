import { effectScope, nextTick, ref } from 'vue'
import { describe, expect, it } from 'vitest'
import type { ClipView } from '@/api/client'
import { useBenchTime } from './useBenchTime'

const clip = { frames: 50, facts: { ratePerSecond: 25, seconds: 2 } } as unknown as ClipView

function made(perFrame = ref<number | undefined>(1)) {
  return effectScope().run(() => useBenchTime(clip, () => perFrame.value))!
}

describe('the moment that is seen', () => {
  it('stays inside of the clip', () => {
    const { frame, goBy, goTo } = made()
    goBy(-3)
    expect(frame.value).toBe(0)
    goTo(70)
    expect(frame.value).toBe(49)
    goBy(-Infinity)
    expect(frame.value).toBe(0)
  })

  it('counts the frames between frames, where a recipe makes more of them', () => {
    const time = made(ref(4))
    time.goTo(3)
    time.goBy(5)
    expect([time.frame.value, time.later.value]).toEqual([4, 1])
    expect(time.place.value).toContain('frame 4 + 1/4')
    time.goBy(Infinity)
    expect([time.frame.value, time.later.value]).toEqual([49, 3])
  })

  it('forgets a frame between frames that is no longer made', async () => {
    const per = ref<number | undefined>(2)
    const time = made(per)
    time.goBy(1)
    expect(time.later.value).toBe(1)
    per.value = 1
    await nextTick()
    expect(time.later.value).toBe(0)
  })
})
