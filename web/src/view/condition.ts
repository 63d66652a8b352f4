import type { ClipView, ConditionFacts, Finding, Recipe, RecipeStep } from '@/api/client'

/** The defects every clip shows as bars, always in this order, and their short names above the column. */
export const BARS = ['noise', 'blocks', 'blur', 'comb', 'shake', 'repeats']
export const BAR_HEADS = ['noise', 'blocks', 'blur', 'comb', 'shake', 'repeats']

/** What is most wrong with a clip, in words. */
export function mostWrong(condition: ConditionFacts): string {
  return finding(condition, condition.worst)?.words ?? 'nothing anyone would notice'
}

export function finding(condition: ConditionFacts | undefined, id: string | undefined): Finding | undefined {
  return condition?.findings.find((one) => one.id === id)
}

export function isExamining(clip: ClipView): boolean {
  return clip.examination?.state === 'WAITING' || clip.examination?.state === 'RUNNING'
}

/** Whether parts of its file cannot be read, are missing or wrong. */
export function isDamaged(clip: ClipView): boolean {
  const facts = clip.facts
  return (
    facts !== undefined && ((facts.damaged?.length ?? 0) > 0 || (facts.missing ?? 0) > 0 || facts.errors > 0)
  )
}

/** The suggestion as a recipe. */
export function suggested(condition: ConditionFacts): Recipe {
  return {
    awlsmith: 1,
    steps: condition.suggestion.steps.map((one) => ({
      step: one.step,
      on: true,
      settings: one.settings as RecipeStep['settings'],
    })),
  }
}

/** Whether a recipe has every step of another with the same settings; what is switched off counts as not there. */
export function holdsSteps(recipe: Recipe, wanted: Recipe): boolean {
  const plain = (steps: RecipeStep[]) =>
    steps
      .filter((step) => step.on)
      .map((step) =>
        JSON.stringify([step.step, Object.entries(step.settings).sort(([x], [y]) => x.localeCompare(y))]),
      )
  const had = plain(recipe.steps)
  return plain(wanted.steps).every((step) => had.includes(step))
}
