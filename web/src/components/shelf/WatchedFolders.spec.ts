import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type PresetDescription, type WatchedView } from '@/api/client'
import { vuetify } from '@/vuetify'
import WatchedFolders from './WatchedFolders.vue'

const deliverable = { codec: 'h264', settings: {}, container: 'mp4', sound: 'kept' }
const watch: PresetDescription = {
  key: 'watch',
  label: 'To watch',
  purpose: 'plays nearly everywhere',
  deliverable,
  isDefault: false,
}
const inbox: WatchedView = {
  id: 'i',
  path: '/footage/inbox',
  way: { how: 'SUGGESTED' },
  deliverables: [deliverable],
  active: true,
  arriving: 1,
  taken: 0,
  sent: 3,
  failed: 1,
  failures: [{ file: 'words.mkv', problem: 'holds no video' }],
}

beforeEach(() => {
  setActivePinia(createPinia())
  vi.spyOn(api, 'watched').mockResolvedValue([inbox])
  vi.spyOn(api, 'presets').mockResolvedValue([watch])
  vi.spyOn(api, 'codecs').mockResolvedValue([])
  vi.spyOn(api, 'recipes').mockResolvedValue([])
  vi.spyOn(api, 'folder').mockResolvedValue({
    entries: [{ name: 'new reels', path: 'new reels', folder: true, bytes: 0 }],
    series: [],
    more: false,
  })
})
afterEach(() => {
  vi.restoreAllMocks()
  document.body.innerHTML = ''
})

async function dialog() {
  const one = mount(WatchedFolders, {
    props: { modelValue: false, roots: ['/footage'] },
    global: { plugins: [vuetify] },
    attachTo: document.body,
  })
  await one.setProps({ modelValue: true })
  await flushPromises()
  return one
}
const button = (text: string) =>
  [...document.querySelectorAll('button')].find((one) => one.textContent?.trim() === text)!

describe('watched folders', () => {
  it('tell what they do, how far they are and why files failed', async () => {
    const one = await dialog()
    const text = () => document.body.textContent!.replace(/\s+/g, ' ')
    expect(text()).toContain('/footage/inbox')
    expect(text()).toContain('each by its condition, goes out as To watch')
    expect(text()).toContain('1 arriving · 3 sent to Dispatch')
    expect(text()).not.toContain('holds no video')
    button('Why').click()
    await flushPromises()
    expect(text()).toContain('words.mkv: holds no video')
    const retry = vi.spyOn(api, 'retryWatched').mockResolvedValue({} as Response)
    button('Try those again').click()
    const rest = vi.spyOn(api, 'activateWatched').mockResolvedValue({} as Response)
    button('Let it rest').click()
    await flushPromises()
    expect(retry).toHaveBeenCalledWith('i')
    expect(rest).toHaveBeenCalledWith('i', false)
    one.unmount()
  })

  it('are added by folder, recipe and presets; a refusal is shown', async () => {
    const one = await dialog()
    button('Watch a folder…').click()
    await flushPromises()
    button('new reels').click()
    await flushPromises()
    const add = vi.spyOn(api, 'watch').mockRejectedValue(new Error('it is watched already'))
    document.querySelector<HTMLButtonElement>('[data-test=watch]')!.click()
    await flushPromises()
    expect(add).toHaveBeenCalledWith({
      root: 0,
      path: 'new reels',
      way: { how: 'SUGGESTED' },
      deliverables: [deliverable],
      pattern: '{clip} {size}',
    })
    expect(document.body.textContent).toContain('it is watched already')
    one.unmount()
  })
})
