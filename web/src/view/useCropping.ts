import { computed, ref, type Ref } from 'vue'
import type { ClipFacts, PlanView, Recipe, StepDescription } from '@/api/client'
import type { Rect, Size } from './glass'
import { withNewStep, withStep } from './recipe'

/** The rectangle of a crop step while it is dragged on the picture. */
export function useCropping(
  facts: Ref<ClipFacts>,
  source: Ref<Size>,
  plan: Ref<PlanView | undefined>,
  state: Ref<{ recipe: Recipe } | undefined>,
  kinds: Ref<StepDescription[]>,
  change: (part: { recipe: Recipe }, gesture?: string) => void,
) {
  /** The crop step whose rectangle is being dragged, or -1. */
  const cropping = ref(-1)

  /** What the step being dragged gets: the picture before it is the source's, as crops come before anything that enlarges. */
  const crop = computed<Rect | undefined>(() => {
    const step = state.value?.recipe.steps[cropping.value]
    if (step?.step !== 'crop' || !plan.value) {
      return undefined
    }
    const { settings } = step
    const x = Number(settings['left'] ?? 0)
    const y = Number(settings['top'] ?? 0)
    return {
      x,
      y,
      width: Number(settings['width'] ?? source.value.width - x),
      height: Number(settings['height'] ?? source.value.height - y),
    }
  })

  /** On whole chroma samples, and in woven pictures on whole lines of both fields. */
  const cropStep = computed(() => {
    const across = ['4:2:0', '4:2:2'].includes(facts.value.layout) ? 2 : 1
    const down = facts.value.layout === '4:2:0' ? 2 : 1
    const before = plan.value?.steps[cropping.value]
    return { width: across, height: down * (before?.scan === 'i' ? 2 : 1) }
  })

  function setCrop(next: Rect) {
    const now = state.value
    const step = now?.recipe.steps[cropping.value]
    if (now && step) {
      const settings = { left: next.x, top: next.y, width: next.width, height: next.height }
      change(
        { recipe: withStep(now.recipe, cropping.value, { ...step, settings }) },
        `crop ${cropping.value}`,
      )
    }
  }

  /** The crop step there is, a new one, or an end of dragging. */
  function toggleCrop() {
    const now = state.value
    if (!now || cropping.value >= 0) {
      cropping.value = -1
      return
    }
    const there = now.recipe.steps.findIndex((step) => step.step === 'crop')
    if (there >= 0) {
      cropping.value = there
      return
    }
    const order = kinds.value.map((step) => step.id)
    const added = withNewStep(now.recipe, 'crop', order)
    change({ recipe: added.recipe })
    cropping.value = added.index
  }

  return { cropping, crop, cropStep, setCrop, toggleCrop }
}
