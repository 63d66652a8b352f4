import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type RenderView } from '@/api/client'
import { useFeed } from '@/stores/feed'
import StorageUse from './StorageUse.vue'

const DAY = 86_400_000
function done(id: string, daysAgo: number, size: number, clearedAt?: string): RenderView {
  return {
    id,
    state: 'DONE',
    clearedAt,
    finishedAt: new Date(Date.now() - daysAgo * DAY - 60_000).toISOString(),
    result: { bytes: size },
  } as RenderView
}

describe('what lies on the disk', () => {
  beforeEach(() => {
    vi.restoreAllMocks()
    setActivePinia(createPinia())
    vi.spyOn(api, 'storage').mockResolvedValue({
      clips: 4.2e9,
      renders: 1.5e9,
      passing: 0,
      free: 72e9,
      kept: 2e9,
    })
    const feed = useFeed()
    for (const one of [
      done('new', 0, 1e6),
      done('old', 8, 2e9),
      done('older', 40, 3e9),
      done('gone', 50, 9e9, '2026-01-01T00:00:00Z'),
    ]) {
      feed.renders.set(one.id, one)
    }
  })

  it('is told in a line, and goes by its age', async () => {
    const page = mount(StorageUse)
    await flushPromises()
    expect(page.get('h2 .label').text()).toBe(
      'sent out 1.5 GB in 3 files · clips and proofs 4.2 GB · 70.0 GB may still be used',
    )
    await page.get('[data-test=clean-up]').trigger('click')
    expect(page.get('[data-test=clear]').text()).toBe('Take 2 files, 5.0 GB, off the disk')
    await page
      .findAll('dl button')
      .find((one) => one.text() === 'a month and more')!
      .trigger('click')
    expect(page.get('[data-test=clear]').text()).toBe('Take one file, 3.0 GB, off the disk')
    const clear = vi.spyOn(api, 'clearStorage').mockResolvedValue({ files: 1 })
    await page.get('[data-test=clear]').trigger('click')
    await flushPromises()
    expect(clear).toHaveBeenCalledExactlyOnceWith(30)
    expect(api.storage).toHaveBeenCalledTimes(2)
  })
})
