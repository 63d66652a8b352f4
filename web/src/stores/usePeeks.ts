import { onScopeDispose, ref, shallowRef, watch } from 'vue'
import { api, type PeeksView } from '@/api/client'
import type { Size } from '@/view/glass'
import type { Piece } from '@/view/paint'

const ASK_AGAIN_MS = 1500

/** The picture nearest before a frame, or the last there is. */
export function peekOf(peeks: PeeksView, frame: number): number {
  return Math.min(Math.floor(frame / peeks.every), peeks.count - 1)
}

/**
 * A clip's small pictures: where they lie, once they are made, and the one of the frame that is being looked for. A newer
 * wish takes the place of one whose picture has not come yet, and the pictures come one at a time: dragging never builds a
 * queue.
 *
 * @param size of the clip's picture
 */
export function usePeeks(clip: () => string, size: () => Size, failed: (error: unknown) => void) {
  const peeks = ref<PeeksView>()
  const piece = shallowRef<Piece>()
  let wanted: number | undefined
  /** Grows when it is let go, so that what was on its way is not shown any more. */
  let hold = 0
  let loading = false
  let asking: ReturnType<typeof setTimeout> | undefined
  let over = false

  async function ask() {
    const id = clip()
    try {
      const view = await api.peeks(id)
      if (over || id !== clip()) {
        return
      }
      peeks.value = view
      if (view.coming) {
        asking = setTimeout(() => void ask(), ASK_AGAIN_MS)
      }
    } catch (error) {
      failed(error)
    }
  }

  watch(
    clip,
    () => {
      clearTimeout(asking)
      release()
      peeks.value = undefined
      void ask()
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    over = true
    clearTimeout(asking)
    release()
  })

  /** Where the picture of a frame lies, if there is one. */
  function src(frame: number): string | undefined {
    const now = peeks.value
    return now && now.count > 0 ? `/api/clips/${clip()}/peeks/${peekOf(now, frame)}` : undefined
  }

  function seek(frame: number) {
    wanted = frame
    if (!loading) {
      void load()
    }
  }

  /** One at a time, the newest wish next. */
  async function load() {
    loading = true
    try {
      while (wanted !== undefined) {
        const url = src(wanted)
        wanted = undefined
        if (url) {
          const mine = hold
          const bitmap = await api.picture(url)
          if (mine !== hold) {
            bitmap.close()
            continue
          }
          show({ bitmap, covers: { x: 0, y: 0, ...size() } })
        }
      }
    } catch (error) {
      failed(error)
    } finally {
      loading = false
    }
  }

  function show(next: Piece | undefined) {
    const old = piece.value?.bitmap
    piece.value = next
    if (old instanceof ImageBitmap) {
      old.close()
    }
  }

  /** Nothing is looked for any more. */
  function release() {
    hold++
    wanted = undefined
    show(undefined)
  }

  /** Shows small pictures while one drags along, until there is nowhere to look any more. */
  function follow(frame: number | undefined) {
    if (frame === undefined) {
      release()
    } else {
      seek(frame)
    }
  }

  return { peeks, piece, src, seek, release, follow }
}
