import type { ProofView, Recipe, RecipeStep } from '@/api/client'

/** Differences beyond which naming all of them tells nothing. */
const MOST = 2

function parts(recipe: Recipe): Map<string, RecipeStep> {
  const all = new Map<string, RecipeStep>()
  for (const step of recipe.steps.filter((one) => one.on)) {
    const again = [...all.keys()].filter((key) => key.split('#')[0] === step.step).length
    all.set(again > 0 ? `${step.step}#${again + 1}` : step.step, step)
  }
  return all
}

/**
 * What tells two recipes from each other, in few words for each: {@code quality} and {@code crisp}.
 *
 * @return two empty ones where they are the same
 */
export function difference(a: Recipe, b: Recipe): [string, string] {
  const left: string[] = []
  const right: string[] = []
  const first = parts(a)
  const second = parts(b)
  for (const key of new Set([...first.keys(), ...second.keys()])) {
    const one = first.get(key)
    const other = second.get(key)
    if (!one || !other) {
      left.push(one ? key : `no ${key}`)
      right.push(other ? key : `no ${key}`)
      continue
    }
    for (const name of new Set([...Object.keys(one.settings), ...Object.keys(other.settings)])) {
      const was = one.settings[name]
      const is = other.settings[name]
      if (was !== is) {
        left.push(said(name, was))
        right.push(said(name, is))
      }
    }
  }
  const short = (all: string[]) => (all.length > MOST ? `${all.slice(0, MOST).join(', ')} …` : all.join(', '))
  return [short(left), short(right)]
}

function said(name: string, value: number | string | undefined): string {
  if (value === undefined) {
    return `${name} as usual`
  }
  return typeof value === 'number' ? `${name} ${value}` : value
}

/** Names of two proofs beside each other: the takes', or where they are of one take what tells them apart. */
export function besideNames(
  left: { takeName: string; recipe: Recipe },
  right: { takeName: string; recipe: Recipe },
): [string, string] {
  const [a, b] = difference(left.recipe, right.recipe)
  const isSame = left.takeName === right.takeName
  return isSame && a !== b
    ? [`${left.takeName}: ${a}`, `${right.takeName}: ${b}`]
    : [left.takeName, right.takeName]
}

/** A proof's take and recipe, as names are made of them. */
export function named(one: { takeName: string; recipe: unknown }): { takeName: string; recipe: Recipe } {
  return { takeName: one.takeName, recipe: one.recipe as Recipe }
}

/** What a proof shows on its left, where that is another take, and on its right. */
export function proofNames(proof: ProofView): { left: string | undefined; right: string } {
  if (!proof.against) {
    return { left: undefined, right: proof.takeName }
  }
  const [left, right] = besideNames(named(proof.against), named(proof))
  return { left, right }
}
