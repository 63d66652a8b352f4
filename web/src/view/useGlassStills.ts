import { computed, onScopeDispose, reactive, ref, shallowRef, watch } from 'vue'
import type { Piece } from './paint'
import { behindTheGlass } from './queue'
import { isMuch, middleOf, type Spot } from './sides'
import { type StillWish, useStill } from './useStill'

const TELL_AFTER_MS = 180
const EXPLAIN_AFTER_MS = 3000

/** What the glass wishes for at a spot. */
interface Wishes {
  /** None while nothing is to be fetched. */
  readonly spot: () => Spot | undefined
  readonly left: (spot: Spot) => StillWish
  /** None while only the left side is seen. */
  readonly right: (spot: Spot) => StillWish | undefined
  /** Whether both sides must be whole, as for their difference. */
  readonly whole: () => boolean
  /** Told when something was asked for. */
  readonly asked: () => void
  readonly failed: (error: unknown) => void
}

/** Both sides' stills of the glass: fetched once the view rests, the middle first where much must be made. */
export function useGlassStills(wishes: Wishes) {
  const left = reactive(useStill('source', wishes.failed))
  const right = reactive(useStill('treated', wishes.failed))
  /** What takes long shows its middle first. */
  const middle = reactive(useStill('middle', wishes.failed))
  const focus = shallowRef<Piece>()
  let rest: StillWish | undefined
  /** What is to be shown has changed and is about to be asked for. */
  const due = ref(false)
  const late = ref(false)
  /** One has waited so long that it wants an explanation. */
  const long = ref(false)
  const pending = computed(() => left.pending || middle.pending || right.pending)
  const rough = computed(() => left.rough || right.rough)
  let resting: ReturnType<typeof setTimeout> | undefined
  let telling: ReturnType<typeof setTimeout> | undefined
  let release: (() => void) | undefined

  function fetchSoon(delay: number) {
    due.value = true
    clearTimeout(resting)
    resting = setTimeout(fetchNow, delay)
  }

  function fetchNow() {
    due.value = false
    const spot = wishes.spot()
    if (!spot) {
      return
    }
    const treated = wishes.right(spot)
    if (treated) {
      wishTreated(treated)
    }
    left.wish(wishes.left(spot))
    wishes.asked()
  }

  function wishTreated(wish: StillWish) {
    rest = undefined
    const quick = !isMuch(wish) || wishes.whole()
    if (quick || right.has(wish) || right.asks(wish)) {
      middle.stop()
      right.wish(wish)
      return
    }
    right.stop()
    rest = wish
    middle.wish(middleOf(wish))
    if (!middle.pending) {
      showRest()
    }
  }

  function showRest() {
    if (rest) {
      const wish = rest
      // it may have failed, and then an older one is still at hand
      focus.value = middle.has(middleOf(wish)) ? middle.piece : undefined
      rest = undefined
      right.wish(wish)
    }
  }

  // a piece that is replaced must not be drawn any more
  watch([() => middle.piece, () => right.piece], () => (focus.value = undefined), { flush: 'sync' })
  watch(
    () => middle.pending,
    (is) => {
      if (!is) {
        showRest()
      }
    },
    { flush: 'sync' },
  )
  watch(pending, (is) => {
    clearTimeout(telling)
    release?.()
    release = is ? behindTheGlass.hold() : undefined
    if (is) {
      telling = setTimeout(() => {
        late.value = true
        telling = setTimeout(() => (long.value = true), EXPLAIN_AFTER_MS)
      }, TELL_AFTER_MS)
    } else {
      late.value = false
      long.value = false
    }
  })
  onScopeDispose(() => {
    clearTimeout(resting)
    clearTimeout(telling)
    release?.()
  })

  return { left, right, focus, pending, rough, due, late, long, fetchSoon }
}
