import { onScopeDispose, shallowRef } from 'vue'
import { api, type PinView, type Rect } from '@/api/client'
import { useFeed } from './feed'

/** The pins of a clip, kept by the stream of events. */
export function usePins(clip: string, fail: (error: unknown) => void) {
  const feed = useFeed()
  const pins = shallowRef<PinView[]>([])

  async function load() {
    try {
      pins.value = await api.pins(clip)
    } catch (error) {
      fail(error)
    }
  }

  async function attempt(act: () => Promise<unknown>) {
    try {
      await act()
    } catch (error) {
      fail(error)
    }
  }

  const stops = [
    feed.listen('pins', (told) => {
      if (told.clipId === clip) {
        pins.value = told.pins
      }
    }),
    feed.listen('again', () => void load()),
  ]
  onScopeDispose(() => stops.forEach((stop) => stop()))

  return {
    pins,
    load,
    drop: (pin: Rect & { name?: string; frame: number }) => attempt(() => api.dropPin(clip, pin)),
    change: (id: string, change: Partial<Rect & { name: string; frame: number }>) =>
      attempt(() => api.changePin(id, change)),
    remove: (id: string) => attempt(() => api.removePin(id)),
  }
}
