import type { ConditionFacts, Recipe, RecipeStep, StepDescription } from '@/api/client'

/** In the order in which one usually works; groups that are not among them come last. */
const ORDER = ['prepare', 'clean', 'enlarge', 'detail', 'motion', 'colour', 'finish']

export interface PickerRow {
  kind: StepDescription
  /** Its purpose, or why it is suggested. */
  words: string
  /** What it is added with. */
  settings: RecipeStep['settings']
  /** Key that adds it at once, or none. */
  key: string
}

export interface PickerGroup {
  title: string
  rows: PickerRow[]
}

/**
 * The kinds of steps by what they are for; first those that the clip's condition speaks for and the recipe has not yet.
 *
 * @param typed only kinds with all these words in name, purpose or reason
 */
export function pickerGroups(
  kinds: StepDescription[],
  condition: ConditionFacts | undefined,
  recipe: Recipe,
  typed: string,
): PickerGroup[] {
  const had = new Set(recipe.steps.filter((step) => step.on).map((step) => step.step))
  const wanted = (condition?.suggestion.steps ?? []).flatMap((one) => {
    const kind = kinds.find((step) => step.id === one.step)
    return kind && !had.has(one.step)
      ? [{ kind, words: one.reason, settings: one.settings as RecipeStep['settings'] }]
      : []
  })
  const rank = (group: string) => (ORDER.includes(group) ? ORDER.indexOf(group) : ORDER.length)
  const titles = [...new Set(kinds.map((kind) => kind.group))].sort((a, b) => rank(a) - rank(b))
  const groups: PickerGroup[] = [
    {
      title: 'suggested by this clip',
      rows: wanted.map((row, i) => ({ ...row, key: i < 9 ? String(i + 1) : '' })),
    },
    ...titles.map((title) => ({
      title,
      rows: kinds
        .filter((kind) => kind.group === title)
        .map((kind) => ({ kind, words: kind.purpose, settings: {}, key: '' })),
    })),
  ]
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const has = (text: string) => words.every((word) => text.toLowerCase().includes(word))
  const found = groups
    .map((group) => ({
      ...group,
      rows: group.rows.filter((row) => has(`${row.kind.name} ${row.words} ${group.title}`)),
    }))
    .filter((group) => group.rows.length > 0)
  return words.length > 0 ? namedFirst(found, has) : found
}

/** What is called so comes before what only speaks of it, once, in the way in which it is suggested if it is. */
function namedFirst(groups: PickerGroup[], has: (text: string) => boolean): PickerGroup[] {
  const rows = groups.flatMap((group) => group.rows).filter((row) => has(row.kind.name))
  const named = rows.filter((row, i) => rows.findIndex((one) => one.kind.id === row.kind.id) === i)
  if (named.length === 0) {
    return groups
  }
  const others = groups
    .map((group) => ({ ...group, rows: group.rows.filter((row) => !has(row.kind.name)) }))
    .filter((group) => group.rows.length > 0)
  return [{ title: 'called so', rows: named }, ...others]
}
