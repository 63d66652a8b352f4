import { computed, ref, type Ref } from 'vue'
import { api, type ClipFacts, type PlanView, type Recipe, type StepDescription } from '@/api/client'
import { USUAL } from '@/stores/useTake'
import { sidesOf } from './sides'
import { useOneStep } from './useOneStep'
import { usePlacement } from './usePlacement'

/** What is shown on the two sides of the bench's glass: the source and the take, or what one step makes of what reaches it. */
export function useBenchSides(bench: {
  readonly clip: string
  readonly facts: Ref<ClipFacts>
  readonly plan: Ref<PlanView | undefined>
  /** The recipe whose plan is at hand: only that one is shown, so sizes and pixels agree. */
  readonly planned: Ref<Recipe | undefined>
  readonly kinds: Ref<StepDescription[]>
  readonly frame: Ref<number>
  readonly later: Ref<number>
  readonly failed: (error: unknown) => void
}) {
  const { clip, facts, plan, planned, failed } = bench
  /** The step whose settings are being tried, or -1. */
  const opened = ref(-1)
  const atRest = computed(() =>
    plan.value && planned.value ? sidesOf(planned.value, plan.value) : undefined,
  )
  const shown = usePlacement(clip, atRest, bench.frame, bench.later, failed)
  const sides = computed(() => shown.value && { ...shown.value.sides, held: Math.max(0, opened.value) })
  const source = computed(
    () => sides.value?.source ?? { width: facts.value.width, height: facts.value.height },
  )

  /** Width to height of a pixel of what is shown as the source; turned pictures have turned pixels. */
  const pixelShape = computed(() => {
    const [across, down] = facts.value.sar.split('/').map(Number)
    const own = (across ?? 1) / (down ?? 1)
    const { width, height } = source.value
    const isTurned = facts.value.width > facts.value.height !== width > height && facts.value.width === height
    return own > 0 ? (isTurned ? 1 / own : own) : 1
  })

  const oneStep = useOneStep(
    () => (plan.value && planned.value ? { ...planned.value } : undefined),
    (recipe) => api.plan(clip, { recipe, deliverable: USUAL }),
    failed,
  )
  /** What one step makes, against what reaches it, in place of the whole recipe against the source. */
  const alone = computed(() => {
    const one = oneStep.shown.value
    const name = (bench.kinds.value.find((kind) => kind.id === one?.step.step)?.name ?? '').toLowerCase()
    return one
      ? {
          sides: one.after,
          against: { sides: one.before, name: '', reference: false },
          named: { left: `before ${name}`, right: `after ${name}` },
        }
      : undefined
  })

  return { opened, shown, sides, source, pixelShape, aloneAt: oneStep.index, alone }
}
