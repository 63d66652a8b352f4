import { defineStore } from 'pinia'
import { ref } from 'vue'
import {
  type AnalysisView,
  api,
  type ClipView,
  type DemoMaking,
  type PinView,
  type ProofView,
  type RenderView,
  type TakeView,
  tellSignedOut,
} from '@/api/client'
import { useFresh } from './fresh'
import { useOutcomes } from './outcomes'

/** What else the stream tells, by the event's name; views that show such things listen for them. */
export interface Told {
  take: TakeView
  'take-removed': { id: string; clipId: string }
  pins: { clipId: string; pins: PinView[] }
  proof: ProofView
  'proof-removed': { id: string; clipId: string }
  analysis: AnalysisView
  watched: Record<string, never>
  /** The stream is there again: what is shown may be old. */
  again: undefined
}
type Name = keyof Told

/**
 * The server's state as this page knows it: lists read once at every (re)connection, then kept by the events of one
 * stream, which all views share.
 */
export const useFeed = defineStore('feed', () => {
  const clips = ref(new Map<string, ClipView>())
  const renders = ref(new Map<string, RenderView>())
  const demo = ref<DemoMaking>({ label: '', share: 1 })
  const link = ref<'connecting' | 'open' | 'lost'>('connecting')
  const loaded = ref(false)
  const listeners = new Map<Name, Set<(state: never) => void>>()
  let source: EventSource | undefined

  async function reload() {
    const [someClips, someRenders, making] = await Promise.all([api.clips(), api.renders(), api.demo()])
    clips.value = new Map(someClips.map((clip) => [clip.id, clip]))
    renders.value = new Map(someRenders.map((render) => [render.id, render]))
    demo.value = making
    loaded.value = true
  }

  let again: ReturnType<typeof setTimeout> | undefined
  function later() {
    clearTimeout(again)
    again = setTimeout(connect, 2000)
  }

  /** Hears nothing any more, until connected anew. */
  function disconnect() {
    clearTimeout(again)
    source?.close()
    source = undefined
  }

  function connect() {
    disconnect()
    source = new EventSource('/api/events')
    const on = <T>(name: string, fold: (state: T) => void) =>
      source?.addEventListener(name, (event: MessageEvent<string>) => fold(JSON.parse(event.data) as T))
    source.addEventListener('hello', () => {
      link.value = 'open'
      tell('again', undefined)
      reload().catch(() => (link.value = 'lost'))
    })
    source.onerror = () => {
      link.value = 'lost'
      if (source?.readyState === EventSource.CLOSED) {
        // an answer that is no stream (signed out, or a proxy's page) ends the browser's own tries
        api
          .session()
          .then((session) => (session.signedIn ? later() : tellSignedOut()))
          .catch(later)
      }
    }
    on<ClipView>('clip', (clip) => {
      // the archive's own clips come by themselves
      if (loaded.value && !clips.value.has(clip.id) && !demo.value.label) {
        useFresh().arrived(clip.id)
      }
      clips.value.set(clip.id, clip)
    })
    on<{ id: string }>('clip-removed', ({ id }) => {
      clips.value.delete(id)
      useFresh().looked(id)
    })
    on<RenderView>('render', (render) => {
      useOutcomes().heard(renders.value.get(render.id), render)
      renders.value.set(render.id, render)
    })
    on<{ id: string }>('render-removed', ({ id }) => renders.value.delete(id))
    on<DemoMaking>('demo', (making) => (demo.value = making))
    for (const name of [
      'take',
      'take-removed',
      'pins',
      'proof',
      'proof-removed',
      'analysis',
      'watched',
    ] as const) {
      on(name, (state: never) => tell(name, state))
    }
  }

  function tell<N extends Name>(name: N, state: Told[N]) {
    listeners.get(name)?.forEach((listener) => listener(state as never))
  }

  /** Hears changes made anywhere; returns the way to stop. */
  function listen<N extends Name>(name: N, listener: (state: Told[N]) => void): () => void {
    const some = listeners.get(name) ?? new Set()
    listeners.set(name, some)
    some.add(listener)
    return () => some.delete(listener)
  }

  return { clips, renders, demo, link, loaded, connect, disconnect, reload, listen }
})
