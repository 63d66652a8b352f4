import type { ParamDescription, Recipe, StepDescription } from '@/api/client'
import { stepWith, withStep } from './recipe'

export const MOST_VARIED = 24

/** One setting of one step of a recipe that can be varied. */
export interface Variable {
  readonly step: number
  readonly param: ParamDescription
  readonly label: string
}

/** All that can be varied in a recipe: the settings of the steps that are on. */
export function variables(recipe: Recipe, kinds: StepDescription[]): Variable[] {
  return recipe.steps.flatMap((step, index) => {
    const kind = kinds.find((one) => one.id === step.step)
    return !kind || !step.on
      ? []
      : kind.params.map((param) => ({ step: index, param, label: `${kind.name}: ${param.label}` }))
  })
}

/** What a setting is now, as text; empty when the step itself decides. */
export function present(recipe: Recipe, variable: Variable): string {
  const value = recipe.steps[variable.step]?.settings[variable.param.key] ?? variable.param.fallback
  return value === undefined ? '' : String(value)
}

/** Values typed with commas between, checked against what is allowed. */
export function values(
  param: ParamDescription,
  text: string,
): { values: (number | string)[]; wrong: string } {
  const parts = text
    .split(/[,;\s]+/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
  if (param.kind === 'choice') {
    const unknown = parts.find((part) => !param.options.some((option) => option.id === part))
    return { values: [...new Set(parts)], wrong: unknown ? `${unknown} is not among the choices` : '' }
  }
  const numbers = [...new Set(parts.map(Number))]
  const bad = numbers.some(
    (n) =>
      Number.isNaN(n) ||
      (param.kind === 'whole' && !Number.isInteger(n)) ||
      n < (param.min ?? -Infinity) ||
      n > (param.max ?? Infinity),
  )
  const unit = param.unit ? ` ${param.unit}` : ''
  return {
    values: numbers,
    wrong: bad ? `allowed: ${param.min}..${param.max}${unit}, with commas between` : '',
  }
}

/** Recipes for every value, or every pair of values, with names that tell them apart. */
export function varied(
  recipe: Recipe,
  one: Variable,
  firsts: (number | string)[],
  other?: Variable,
  seconds: (number | string)[] = [],
): { name: string; recipe: Recipe }[] {
  const put = (into: Recipe, variable: Variable, value: number | string) => {
    const step = into.steps[variable.step]
    return step ? withStep(into, variable.step, stepWith(step, variable.param.key, value)) : into
  }
  const told = (variable: Variable, value: number | string) =>
    variable.param.options.find((option) => option.id === value)?.label ?? `${variable.param.label} ${value}`
  return firsts.flatMap((first) => {
    const made = put(recipe, one, first)
    return other && seconds.length > 0
      ? seconds.map((second) => ({
          name: `${told(one, first)}, ${told(other, second)}`.slice(0, 60),
          recipe: put(made, other, second),
        }))
      : [{ name: told(one, first).slice(0, 60), recipe: made }]
  })
}
