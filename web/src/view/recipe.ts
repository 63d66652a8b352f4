import type { Recipe, RecipeStep } from '@/api/client'

/** The recipe with one step replaced. */
export function withStep(recipe: Recipe, index: number, step: RecipeStep): Recipe {
  return { ...recipe, steps: recipe.steps.map((old, i) => (i === index ? step : old)) }
}

/** The recipe with a fresh step put where its kind belongs, and the place it got. */
export function withNewStep(
  recipe: Recipe,
  kind: string,
  order: string[],
  settings: RecipeStep['settings'] = {},
): { recipe: Recipe; index: number } {
  const rank = (step: string) => order.indexOf(step)
  const after = recipe.steps.findIndex((step) => rank(step.step) > rank(kind))
  const index = after < 0 ? recipe.steps.length : after
  const steps = [...recipe.steps]
  steps.splice(index, 0, { step: kind, on: true, settings })
  return { recipe: { ...recipe, steps }, index }
}

export function withoutStep(recipe: Recipe, index: number): Recipe {
  return { ...recipe, steps: recipe.steps.filter((_, i) => i !== index) }
}

/** The recipe with a step in the place of the one before (-1) or behind it (1). */
export function withSteppedAside(recipe: Recipe, index: number, by: -1 | 1): Recipe {
  const steps = [...recipe.steps]
  const [step] = steps.splice(index, 1)
  if (step) {
    steps.splice(index + by, 0, step)
  }
  return { ...recipe, steps }
}

/** The first so many steps. */
export function firstSteps(recipe: Recipe, count: number): Recipe {
  return { ...recipe, steps: recipe.steps.slice(0, count) }
}

/** The first steps, those that turn the picture, and behind them the source made as large as the treated one is. */
export function sourceRecipe(
  recipe: Recipe,
  turning: number,
  size?: { width: number; height: number },
): Recipe {
  return {
    ...recipe,
    steps: [...recipe.steps.slice(0, turning), ...(size ? plainly(size.width, size.height).steps : [])],
  }
}

/** A step with one setting changed; undefined takes it out. */
export function stepWith(step: RecipeStep, key: string, value: number | string | undefined): RecipeStep {
  const settings = { ...step.settings }
  if (value === undefined) {
    delete settings[key]
  } else {
    settings[key] = value
  }
  return { ...step, settings }
}

/** Shows the source at the treated picture's size by plain resampling, so that both sides lie on one grid. */
export function plainly(width: number, height: number): Recipe {
  return {
    awlsmith: 1,
    steps: [{ step: 'enlarge', on: true, settings: { width, height, kernel: 'bilinear' } }],
  }
}
