import { computed, ref, type Ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { PinView, Recipe } from '@/api/client'
import { pinAround, usePins } from '@/stores/usePins'
import type { Point, Rect, Size } from './glass'

/** Pins on the bench: dropped where one points, suggested, gone to. */
export function useBenchPins(bench: {
  readonly clip: string
  readonly frame: Ref<number>
  readonly source: Ref<Size>
  readonly recipe: () => Recipe | undefined
  /** The glass, once there is one. */
  readonly glass: () => { pointed(): Point; goTo(rect: Rect): void } | undefined
  readonly dropped: () => void
  /** A pin is about to be gone to: what plays ends. */
  readonly leaving: () => void
  readonly goTo: (frame: number) => void
  readonly failed: (error: unknown) => void
}) {
  const route = useRoute()
  const { pins, load, suggest, drop, change, remove } = usePins(bench.clip, bench.failed)
  const searching = ref(false)
  const pinsHere = computed(() => pins.value.filter((pin) => pin.frame === bench.frame.value))

  function addPin(box: Rect, name?: string) {
    void drop({ ...box, frame: bench.frame.value, ...(name ? { name } : {}) })
    bench.dropped()
  }

  function dropPin() {
    const at = bench.glass()?.pointed()
    if (at) {
      addPin(pinAround(at, bench.source.value))
    }
  }

  function goToPin(pin: PinView) {
    bench.leaving()
    bench.goTo(pin.frame)
    bench.glass()?.goTo(pin)
  }

  async function suggestPins() {
    const recipe = bench.recipe()
    if (recipe) {
      searching.value = true
      await suggest(recipe, bench.frame.value, bench.source.value)
      searching.value = false
    }
  }

  // a pin of the proof sheet that was clicked: gone to once there is a glass
  const stopGoing = watch(
    () => [bench.glass(), pins.value] as const,
    ([there, all]) => {
      const pin = all.find((one) => one.id === route.query['pin'])
      if (there && pin) {
        stopGoing()
        requestAnimationFrame(() => goToPin(pin))
      }
    },
  )

  return { pins, pinsHere, searching, load, addPin, dropPin, goToPin, suggestPins, change, remove }
}
