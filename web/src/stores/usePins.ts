import { onScopeDispose, shallowRef } from 'vue'
import { api, type PinView, type Recipe } from '@/api/client'
import { clamp, type Point, type Rect, type Size } from '@/view/glass'
import { useFeed } from './feed'
import { useNotices } from './notices'

/** A loupe's shape. */
const SHAPE = 74 / 133

/** The usual pin: a loupe's shape around a point, larger on larger pictures, moved inside of the picture. */
export function pinAround(at: Point, source: Size): Rect {
  const width = Math.max(34, source.width / 14)
  const height = width * SHAPE
  const inside = (v: number, size: number, all: number) => clamp(v - size / 2, 0, Math.max(0, all - size))
  return { x: inside(at.x, width, source.width), y: inside(at.y, height, source.height), width, height }
}

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

  /** Pins the places of a frame that tell most about a treatment, where none is pinned yet. */
  async function suggest(recipe: Recipe, frame: number, source: Size) {
    try {
      const places = await api.places(clip, recipe, frame)
      const here = pins.value.filter((pin) => pin.frame === frame).map((pin) => pin as Rect)
      let dropped = 0
      for (const one of places) {
        const box = pinAround(one, source)
        // a place may stand out for several reasons, and may be pinned already
        if (here.some((other) => overlap(other, box))) {
          continue
        }
        here.push(box)
        dropped++
        await api.dropPin(clip, { ...box, name: one.why, frame: one.frame })
      }
      if (dropped === 0) {
        useNotices().say('No other place of this frame stands out.')
      }
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
    suggest,
    drop: (pin: Rect & { name?: string; frame: number }) => attempt(() => api.dropPin(clip, pin)),
    change: (id: string, change: Partial<Rect & { name: string; frame: number }>) =>
      attempt(() => api.changePin(id, change)),
    remove: (id: string) => attempt(() => api.removePin(id)),
  }
}

function overlap(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height
}
