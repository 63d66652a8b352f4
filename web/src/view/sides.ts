import type { PlanView, Recipe } from '@/api/client'
import { type Glass, type Rect, type Size, wanted } from './glass'
import { plainly, sourceRecipe } from './recipe'
import type { StillWish } from './useStill'

/** A recipe with what the plan says of its pictures: all that is needed to show one of its sides. */
export interface Sides {
  readonly recipe: Recipe
  /** How many of the recipe's first steps turn the picture; what they make is shown as the source. */
  readonly turning: number
  /** Size of the source's picture and of the treated one. */
  readonly source: Size
  readonly treated: Size
  /** Where the source's picture lies in the treated one, in its pixels. */
  readonly placement: Rect
  /** Whether that differs from frame to frame. */
  readonly moves: boolean
  /** What steps still wait for: once it is known the same recipe makes other pictures. */
  readonly waits: string
  /** How many of the first steps are not being changed now, so that what they make is worth keeping. */
  readonly held?: number
}

export function sidesOf(recipe: Recipe, plan: PlanView): Sides {
  const last = plan.steps.at(-1)
  const source = { width: plan.base.width, height: plan.base.height }
  return {
    recipe,
    turning: plan.base.steps,
    source,
    treated: last ? { width: last.width, height: last.height } : source,
    placement: plan.placement,
    moves: plan.moving,
    waits: plan.waiting.map((one) => `${one.step} ${one.doing}`).join(', '),
  }
}

/** A moment and a place of a clip that is looked at. */
export interface Spot {
  readonly clip: string
  readonly frame: number
  readonly later: number
  readonly glass: Glass
  readonly screen: Size
  /** Share of the screen fetched around what is seen. */
  readonly margin: number
  /** Paints what lies beyond black and white in colours of its own. */
  readonly marked?: boolean
}

function wish(spot: Spot, sides: Sides, size: Size, place: Rect, recipe: Recipe | undefined): StillWish {
  const { glass, screen } = spot
  return {
    need: wanted(glass, screen, sides.source, size, place, 0),
    fetch: wanted(glass, screen, sides.source, size, place, spot.margin),
    source: sides.source,
    size,
    place,
    clip: spot.clip,
    frame: spot.frame,
    later: spot.later,
    marked: spot.marked === true,
    recipe,
    waits: sides.waits,
  }
}

export function treatedWish(spot: Spot, sides: Sides): StillWish {
  return {
    ...wish(spot, sides, sides.treated, sides.placement, sides.recipe),
    ...(sides.held ? { held: sides.held } : {}),
  }
}

/** Treated pixels beyond which a model takes so long that the middle is worth seeing first. */
const MUCH = 700_000

/** Whether a model must make so much for this wish that it takes longer than one likes to wait. */
export function isMuch(wish: StillWish): boolean {
  const { width, height } = wish.fetch.part
  const models = wish.recipe?.steps.some(
    (step) => step.on && step.settings['model'] !== undefined && step.settings['model'] !== 'none',
  )
  return models === true && width * height > MUCH
}

/** The middle of what is seen, half as wide and high, which is made in a quarter of the time: the same pixels. */
export function middleOf(wish: StillWish): StillWish {
  const { part, reduce } = wish.need
  const step = Math.max(2, reduce)
  const inner = (from: number, length: number) => {
    const start = Math.ceil((from + length / 4) / step) * step
    return { start, length: Math.max(step, Math.floor(length / 2 / step) * step) }
  }
  const x = inner(part.x, part.width)
  const y = inner(part.y, part.height)
  const middle = { reduce, part: { x: x.start, y: y.start, width: x.length, height: y.length } }
  return { ...wish, need: middle, fetch: middle }
}

/** Whether the treated picture has the source's own size, so that nothing need be enlarged to show both. */
export function isSameSize(sides: Sides): boolean {
  const { source, placement } = sides
  return source.width === placement.width && source.height === placement.height
}

/** Pixels of the screen to one of the source's, up to which the source need not be enlarged first. */
const MANY_TO_ONE = 0.5

/** @param own shows the source's own pixels; otherwise it is enlarged plainly to the treated picture's size */
export function sourceWish(spot: Spot, sides: Sides, own: boolean): StillWish {
  const { recipe, turning, source, placement } = sides
  // where many of its pixels become one of the screen's, enlarging it first would change nothing one could see
  if (own || isSameSize(sides) || spot.glass.scale <= MANY_TO_ONE) {
    const alone = turning > 0 ? sourceRecipe(recipe, turning) : undefined
    return wish(spot, sides, source, { x: 0, y: 0, ...source }, alone)
  }
  // as large as in the treated picture, without what its frame adds or cuts off
  const size = { width: Math.round(placement.width), height: Math.round(placement.height) }
  return wish(spot, sides, size, { x: 0, y: 0, ...size }, sourceRecipe(recipe, turning, size))
}

/** The clip's reference, made as large as the source is in the treated picture. */
export function referenceWish(spot: Spot, sides: Sides): StillWish {
  const { placement } = sides
  const size = { width: Math.round(placement.width), height: Math.round(placement.height) }
  const plain = plainly(size.width, size.height)
  return { ...wish(spot, sides, size, { x: 0, y: 0, ...size }, plain), reference: true }
}

/** Whether any of a rectangle of the source is left in the treated picture. */
export function isInTreated(sides: Sides, rect: Rect): boolean {
  const perX = sides.placement.width / sides.source.width
  const perY = sides.placement.height / sides.source.height
  const x = sides.placement.x + rect.x * perX
  const y = sides.placement.y + rect.y * perY
  return (
    x < sides.treated.width &&
    y < sides.treated.height &&
    x + rect.width * perX > 0 &&
    y + rect.height * perY > 0
  )
}
