import { computed, onScopeDispose, shallowRef } from 'vue'
import { api, type Recipe, type TakeView } from '@/api/client'
import { useFeed } from './feed'

/** All takes of a clip, kept by the stream of events. */
export function useClipTakes(clip: string, fail: (error: unknown) => void) {
  const feed = useFeed()
  const all = shallowRef<TakeView[]>([])

  async function load() {
    try {
      all.value = await api.takes(clip)
    } catch (error) {
      fail(error)
    }
  }

  function fold(next: TakeView) {
    if (next.clipId === clip) {
      const known = all.value.some((one) => one.id === next.id)
      all.value = known ? all.value.map((one) => (one.id === next.id ? next : one)) : [...all.value, next]
    }
  }

  /** @param like the take whose span the new ones get; they are made one change away from it */
  async function add(takes: { name?: string; recipe: Recipe }[], like?: string): Promise<TakeView[]> {
    try {
      const made = await api.addTakes(clip, takes, like)
      made.forEach(fold)
      return made
    } catch (error) {
      fail(error)
      return []
    }
  }

  async function label(id: string, change: { name?: string; verdict?: TakeView['verdict'] }) {
    try {
      fold(await api.labelTake(id, change))
    } catch (error) {
      fail(error)
    }
  }

  async function remove(id: string) {
    try {
      await api.removeTake(id)
      all.value = all.value.filter((one) => one.id !== id)
    } catch (error) {
      fail(error)
    }
  }

  const stops = [
    feed.listen('take', fold),
    feed.listen('take-removed', ({ id }) => (all.value = all.value.filter((one) => one.id !== id))),
    feed.listen('again', () => void load()),
  ]
  onScopeDispose(() => stops.forEach((stop) => stop()))

  return {
    all,
    open: computed(() => all.value.filter((one) => one.verdict !== 'DISCARDED')),
    discarded: computed(() => all.value.filter((one) => one.verdict === 'DISCARDED')),
    load,
    add,
    label,
    remove,
  }
}
