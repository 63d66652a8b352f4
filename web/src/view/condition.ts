import type { ClipView, ConditionFacts, Finding, Recipe, RecipeStep } from '@/api/client'

/** The defects every clip shows as bars, always in this order, with these words above the column. */
export const BARS = ['noise', 'blocks', 'blur', 'comb', 'shake', 'repeats']

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

/** Whether a copy of it can be made that is better: one that was mended has nothing left to mend. */
export function canBeMended(clip: ClipView): boolean {
  return isDamaged(clip) && clip.facts?.rescue?.filled !== true
}

/** Numbers that are named one by one. */
const NAMED = 8

/** What was done to make its file from a damaged one; nothing where nothing was. */
export function rescueWords(clip: ClipView): string {
  const rescue = clip.facts?.rescue
  if (!rescue) {
    return ''
  }
  if (!rescue.filled) {
    return 'rebuilt around what could be read; no frame was made up'
  }
  const { made, missing } = rescue
  const named = made.slice(0, NAMED).join(', ') + (made.length > NAMED ? ' …' : '')
  const first =
    made.length === 0
      ? 'no frame had to be made up'
      : `${made.length === 1 ? '1 frame was made of its' : `${made.length} frames were made of their`} neighbours: ${named}`
  return missing > 0 ? `${first}; ${missing} are missing at the end` : first
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
