import { computed, onScopeDispose, type Ref, shallowRef, watch } from 'vue'
import { api, type PinView, type Recipe } from '@/api/client'
import type { Point, Rect, Size } from './glass'
import { behindTheGlass } from './queue'
import { firstSteps } from './recipe'
import type { Sides } from './sides'

const REST_MS = 500

const middle = (box: Rect): Point => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 })

/** Where swatches look: where one last pointed, else at the frame's first pin, else at the place that tells most, else in the middle. */
export function useSwatchSpot(
  clip: string,
  frame: Ref<number>,
  hover: Ref<Point | undefined>,
  pins: Ref<PinView[]>,
  source: Ref<Size>,
  /** What makes the picture that is shown as the source: no more is computed to look where most detail is. */
  base: () => Recipe | undefined,
) {
  const pointed = shallowRef<Point>()
  const telling = shallowRef<{ frame: number; at: Point; why: string }>()
  let pointing: ReturnType<typeof setTimeout> | undefined
  let asking: ReturnType<typeof setTimeout> | undefined
  const stop = new AbortController()

  watch(hover, (at) => {
    clearTimeout(pointing)
    if (at) {
      pointing = setTimeout(() => (pointed.value = at), REST_MS)
    }
  })

  async function ask() {
    const now = base()
    if (!now || pointed.value || pins.value.length > 0 || telling.value?.frame === frame.value) {
      return
    }
    const at = frame.value
    try {
      const [first] = await behindTheGlass.add(() => api.places(clip, now, at), stop.signal)
      if (first) {
        telling.value = { frame: at, at: { x: first.x, y: first.y }, why: first.why }
      }
    } catch {
      // the middle does as well; what is wrong is told by what is shown
    }
  }
  watch(
    [frame, () => JSON.stringify(base())],
    () => {
      clearTimeout(asking)
      asking = setTimeout(() => void ask(), REST_MS)
    },
    { immediate: true },
  )
  onScopeDispose(() => {
    clearTimeout(pointing)
    clearTimeout(asking)
    stop.abort()
  })

  return computed(() => {
    const pin = pins.value[0]
    if (pointed.value) {
      return { spot: pointed.value, named: 'where you pointed' }
    }
    if (pin) {
      return { spot: middle(pin), named: `at pin ${pin.name}` }
    }
    return telling.value?.frame === frame.value
      ? { spot: telling.value.at, named: telling.value.why }
      : { spot: middle({ x: 0, y: 0, ...source.value }), named: 'in the middle' }
  })
}

/** What swatches show: a spot of the frame that is seen; while something plays, of the one they showed before. */
export function useSwatchLook(bench: {
  readonly clip: string
  readonly frame: Ref<number>
  readonly hover: Ref<Point | undefined>
  readonly pins: Ref<PinView[]>
  readonly source: Ref<Size>
  readonly sides: Ref<Sides | undefined>
  readonly plays: () => boolean
}) {
  const { clip, frame, hover, pins, source, sides } = bench
  const base = () => sides.value && firstSteps(sides.value.recipe, sides.value.turning)
  const spot = useSwatchSpot(clip, frame, hover, pins, source, base)
  const look = shallowRef<SwatchLook>()
  watch(
    () =>
      sides.value && !bench.plays()
        ? { clip, sides: sides.value, frame: frame.value, ...spot.value }
        : undefined,
    (now) => {
      if (now) {
        look.value = now
      }
    },
    { immediate: true },
  )
  return look
}

interface SwatchLook {
  readonly clip: string
  readonly sides: Sides
  readonly frame: number
  readonly spot: Point
  readonly named: string
}
