import { onScopeDispose, ref, shallowRef } from 'vue'
import { api, type Recipe } from '@/api/client'
import { type Rect, serves, type Size, type Wanted } from './glass'
import type { Piece } from './paint'
import { line, SlowLine } from './line'
import type { Queue } from './queue'

export interface StillWish {
  readonly clip: string
  readonly frame: number
  /** Output frames after the first one made of that frame. */
  readonly later?: number
  readonly recipe: Recipe | undefined
  /** What the recipe's steps wait for; see Sides. */
  readonly waits?: string
  /** How many of the recipe's first steps are kept as they are while others are tried. */
  readonly held?: number
  /** Shows the clip's reference instead of the clip. */
  readonly reference?: boolean
  /** Paints what lies beyond black and white in colours of its own. */
  readonly marked?: boolean
  /** Size of the clip's own picture. */
  readonly source: Size
  /** Size of the picture fetched, and where the clip's own lies in it. */
  readonly size: Size
  readonly place: Rect
  /** What the screen shows, and the same with a margin around it, which is what is fetched. */
  readonly need: Wanted
  readonly fetch: Wanted
}

/**
 * Keeps one side's picture up to date: a wish that the piece at hand serves costs nothing, a newer wish stops an older
 * request, and the old piece stays until the new one is there.
 *
 * @param queue where requests wait for their turn, if they can
 */
export function useStill(viewer: string, failed: (error: unknown) => void, queue?: Queue) {
  const piece = shallowRef<Piece>()
  const pending = ref(false)
  /** The piece at hand came with loss, as the line is slow; the exact one is on its way. */
  const rough = ref(false)
  let have: { wish: StillWish; key: string } | undefined
  let asked: { key: string; fetch: Wanted; stop: AbortController } | undefined

  /** Whether the piece at hand shows what is wished for. */
  function has(next: StillWish): boolean {
    return have?.key === keyOf(next) && serves(have.wish.fetch, next.need)
  }

  /** Whether it is on its way already. */
  function asks(next: StillWish): boolean {
    return asked?.key === keyOf(next) && serves(asked.fetch, next.need)
  }

  /** Gives up what is on its way; the piece at hand stays. */
  function stop() {
    asked?.stop.abort()
    asked = undefined
    pending.value = false
  }

  function wish(next: StillWish) {
    const key = keyOf(next)
    if (has(next) || asks(next)) {
      return
    }
    asked?.stop.abort()
    const stop = new AbortController()
    const mine = { key, fetch: next.fetch, stop }
    asked = mine
    pending.value = true
    rough.value = false
    const request = requestOf(next, viewer)
    const show = (bitmap: ImageBitmap): boolean => {
      if (asked !== mine) {
        bitmap.close()
        return false
      }
      drop(piece.value)
      piece.value = pieceOf(bitmap, next)
      return true
    }
    const fetch = async () => {
      if (!line.isSlow()) {
        try {
          return await api.still(next.clip, request, stop.signal, true)
        } catch (error) {
          if (!(error instanceof SlowLine)) {
            throw error
          }
        }
      }
      rough.value = show(await api.still(next.clip, { ...request, quick: true }, stop.signal))
      return api.still(next.clip, request, stop.signal)
    }
    const answer = queue ? queue.add(fetch, stop.signal) : fetch()
    answer.then(
      (bitmap) => {
        if (show(bitmap)) {
          have = { wish: next, key }
          asked = undefined
          pending.value = false
          rough.value = false
        }
      },
      (error: unknown) => {
        if (asked === mine) {
          asked = undefined
          pending.value = false
          failed(error)
        }
      },
    )
  }

  onScopeDispose(() => {
    asked?.stop.abort()
    drop(piece.value)
  })

  return { piece, pending, rough, wish, has, asks, stop }
}

function requestOf(wish: StillWish, viewer: string) {
  const { part, reduce } = wish.fetch
  return {
    frame: wish.frame,
    later: wish.later ?? 0,
    part,
    reduce,
    viewer,
    ...(wish.recipe ? { recipe: wish.recipe } : {}),
    ...(wish.held ? { held: wish.held } : {}),
    ...(wish.reference ? { reference: true } : {}),
    ...(wish.marked ? { marked: true } : {}),
  }
}

function pieceOf(bitmap: ImageBitmap, wish: StillWish): Piece {
  const { part, reduce } = wish.fetch
  const perX = wish.source.width / wish.place.width
  const perY = wish.source.height / wish.place.height
  return {
    bitmap,
    covers: {
      x: (part.x - wish.place.x) * perX,
      y: (part.y - wish.place.y) * perY,
      // the last pixel of a reduced picture may stand for less than a whole block
      width: bitmap.width * reduce * perX,
      height: bitmap.height * reduce * perY,
    },
  }
}

/** One still, fetched once. */
export async function stillOnce(wish: StillWish, viewer: string, signal: AbortSignal): Promise<Piece> {
  return pieceOf(await api.still(wish.clip, requestOf(wish, viewer), signal), wish)
}

function keyOf(wish: StillWish): string {
  const { clip, frame, later, recipe, waits, size, place, reference, marked } = wish
  return JSON.stringify([clip, frame, later, recipe, waits, size, place, reference, marked])
}

function drop(piece: Piece | undefined) {
  if (piece && 'close' in piece.bitmap) {
    piece.bitmap.close()
  }
}
