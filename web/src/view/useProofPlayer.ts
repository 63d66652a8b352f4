import { proofNames } from './proofNames'
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'
import { api, type PlanView, Problem, type ProofView, type Recipe } from '@/api/client'
import { isOpen } from '@/stores/useProofs'
import { inSource, type Size } from './glass'
import type { Piece } from './paint'
import { sidesOf } from './sides'

const ASK_AGAIN_MS = 250
const VIDEO = 'avc1.640033'
const SOUND = 'mp4a.40.2'
const TOO_LARGE =
  'this proof is larger than the browser holds at once; its beginning plays. Prove a shorter span, or zoom in'

/** One frame of a proof as it is played: both sides out of one picture, so they cannot drift apart. */
export interface Moving {
  readonly source: Piece
  readonly treated: Piece
  /** Which of the proof's frames, from 0. */
  readonly frame: number
  /** Take that is seen treated. */
  readonly takeName: string
  /** Take that stands in the source's place, if one does. */
  readonly against: string | undefined
  /** Size of the treated picture that it shows a part of. */
  readonly size: Size
}

/**
 * Plays a proof, also while it grows: its bytes are fetched as they come and handed to one video element whose frames are
 * drawn by others.
 *
 * @param plan of the recipe that made it, which tells where its part lies
 */
export function useProofPlayer(
  proof: Ref<ProofView | undefined>,
  plan: (recipe: Recipe) => Promise<PlanView>,
  fail: (error: unknown) => void,
) {
  const moving = shallowRef<Moving>()
  const playing = ref(false)
  const loop = ref(true)
  const speed = ref(1)
  const video = document.createElement('video')
  video.playsInline = true
  let loading: AbortController | undefined
  let shown: { id: string; sides: ReturnType<typeof sidesOf> } | undefined
  let url = ''
  /** Play was asked for before there was anything to play. */
  let eager = false

  async function open(next: ProofView, resumeAt: number, play: boolean) {
    close()
    const mine = (loading = new AbortController())
    try {
      const sides = sidesOf(next.recipe as unknown as Recipe, await plan(next.recipe as unknown as Recipe))
      if (mine.signal.aborted) {
        return
      }
      shown = { id: next.id, sides }
      const type = `video/mp4; codecs="${next.sound ? `${VIDEO}, ${SOUND}` : VIDEO}"`
      if (typeof MediaSource === 'undefined' || !MediaSource.isTypeSupported(type)) {
        throw new Problem(
          0,
          'this browser cannot play H.264; fetch the proof as a file, or use another browser',
        )
      }
      const media = new MediaSource()
      url = URL.createObjectURL(media)
      video.src = url
      await new Promise((done) => media.addEventListener('sourceopen', done, { once: true }))
      void feed(next.id, media, media.addSourceBuffer(type), mine.signal).catch((error: unknown) => {
        if (!mine.signal.aborted) {
          const full = error instanceof DOMException && error.name === 'QuotaExceededError'
          fail(full ? new Problem(0, TOO_LARGE) : error)
        }
      })
      video.currentTime = resumeAt
      if (play || eager) {
        await start()
      }
    } catch (error) {
      if (!mine.signal.aborted) {
        fail(error)
      }
    }
  }

  async function feed(id: string, media: MediaSource, buffer: SourceBuffer, signal: AbortSignal) {
    let from = 0
    while (!signal.aborted) {
      const { bytes, whole } = await api.proofBytes(id, from, signal)
      if (bytes.byteLength > 0) {
        from += bytes.byteLength
        const ready = new Promise((done) => buffer.addEventListener('updateend', done, { once: true }))
        buffer.appendBuffer(bytes)
        await ready
      } else if (whole) {
        if (media.readyState === 'open') {
          media.endOfStream()
        }
        return
      } else {
        await new Promise((done) => setTimeout(done, ASK_AGAIN_MS))
      }
    }
  }

  function close() {
    pause()
    loading?.abort()
    loading = undefined
    shown = undefined
    moving.value = undefined
    video.removeAttribute('src')
    video.load()
    URL.revokeObjectURL(url)
  }

  function onFrame(_now: number, meta: { mediaTime: number }) {
    const now = proof.value
    if (!now || !shown || !playing.value) {
      return
    }
    const { source, placement } = shown.sides
    const place = inSource(source, source, placement)
    const covers = {
      x: place.x + (now.x * source.width) / placement.width,
      y: place.y + (now.y * source.height) / placement.height,
      width: (now.width * source.width) / placement.width,
      height: (now.height * source.height) / placement.height,
    }
    const part = { x: 0, y: 0, width: now.width, height: now.height }
    moving.value = {
      source: { bitmap: video, covers, part },
      treated: { bitmap: video, covers, part: { ...part, y: now.height } },
      frame: Math.round(meta.mediaTime * now.rate),
      takeName: proofNames(now).right,
      against: proofNames(now).left,
      size: shown.sides.treated,
    }
    awaitFrame()
  }

  /** One at a time, however often it is paused and played again. */
  let awaited = 0
  function awaitFrame() {
    video.cancelVideoFrameCallback(awaited)
    awaited = video.requestVideoFrameCallback(onFrame)
  }

  async function start() {
    if (!shown) {
      eager = true
      return
    }
    eager = false
    video.playbackRate = speed.value
    if (video.ended) {
      video.currentTime = 0
    }
    playing.value = true
    awaitFrame()
    try {
      await video.play()
    } catch {
      // closed, or paused again, before it began
      playing.value = false
    }
  }

  function pause() {
    eager = false
    playing.value = false
    video.pause()
  }

  /** Plays from a moment, in seconds from the proof's start. */
  async function toggle(from?: number) {
    if (playing.value) {
      pause()
      return
    }
    if (from !== undefined) {
      video.currentTime = from
    }
    await start()
  }

  function atEnd() {
    const now = proof.value
    if (!playing.value) {
      return
    }
    if (loop.value || (now && isOpen(now))) {
      video.currentTime = 0
      // it may be paused, or another chosen, before it begins
      video.play().catch(() => undefined)
    } else {
      pause()
    }
  }
  video.addEventListener('ended', atEnd)
  // where a growing file ends for now it begins anew rather than to wait
  video.addEventListener('waiting', () => {
    const now = proof.value
    const there = video.buffered.length > 0 ? video.buffered.end(video.buffered.length - 1) : 0
    if (now && isOpen(now) && there > 0.4 && video.currentTime > there - 0.15) {
      video.currentTime = 0
    }
  })
  watch(speed, (now) => (video.playbackRate = now))
  watch(
    () => proof.value?.id,
    () => {
      const next = proof.value
      const at = video.currentTime
      const play = playing.value
      if (next) {
        void open(next, play ? at : 0, play)
      } else {
        close()
      }
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    video.removeEventListener('ended', atEnd)
    close()
  })

  return { moving, playing, loop, speed, toggle, pause }
}
