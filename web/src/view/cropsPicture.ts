import { type Glass, type Rect, type Size } from './glass'
import { paint, type Piece } from './paint'
import { referenceWish, type Sides, sourceWish, type Spot, treatedWish } from './sides'
import { captioned, type Captions } from './sheetPicture'
import { stillOnce } from './useStill'

/** Of one strip, both sides beside each other. */
const STRIP = { width: 960, height: 300 }
const HALF = { width: STRIP.width / 2, height: STRIP.height }
/** Pixels of the picture to one of the treated picture's. */
const MAGNIFIED = [2, 4, 8]

/**
 * Where crops are taken: the middle of the box that is kept, of a pin, or of what is seen, the first that lies where there is a treated
 * picture; else its middle.
 *
 * @param kept the part of the source that the treated picture shows
 */
export function cropsSpot(box: Rect | undefined, pin: Rect | undefined, seen: Rect, kept: Rect) {
  const middle = (of: Rect) => ({ x: of.x + of.width / 2, y: of.y + of.height / 2 })
  const isKept = (at: { x: number; y: number }) =>
    at.x >= kept.x && at.y >= kept.y && at.x <= kept.x + kept.width && at.y <= kept.y + kept.height
  const spots = [box, pin, seen].flatMap((rect) => (rect ? [middle(rect)] : []))
  return spots.find(isKept) ?? middle(kept)
}

/** The view in which a treated pixel is so many of the screen's. */
export function glassAt(spot: { x: number; y: number }, sides: Sides, times: number): Glass {
  const perY = sides.placement.height / sides.source.height
  const perX = sides.placement.width / sides.source.width
  return { ...spot, scale: perY * times, aspect: perX / perY }
}

/** What crops are taken of. */
export interface Crops {
  readonly spot: Omit<Spot, 'glass' | 'screen' | 'margin'>
  readonly at: { x: number; y: number }
  readonly sides: Sides
  readonly against: { sides: Sides; reference: boolean } | undefined
  readonly frame: Rect
  readonly captions: Captions
}

/** One spot as people show it to customers: both sides beside each other at three true magnifications, each under its captions. */
export async function drawCrops(crops: Crops, signal: AbortSignal): Promise<HTMLCanvasElement> {
  const { sides, against } = crops
  const spot: Spot = {
    ...crops.spot,
    glass: glassAt(crops.at, sides, MAGNIFIED[0]!),
    screen: HALF,
    margin: 0,
  }
  const left = !against
    ? sourceWish(spot, sides, false)
    : against.reference
      ? referenceWish(spot, sides)
      : treatedWish(spot, against.sides)
  const [source, treated] = await Promise.all([
    stillOnce(left, 'crops-source', signal),
    stillOnce(treatedWish(spot, sides), 'crops-treated', signal),
  ])
  const strips = MAGNIFIED.map((times) => strip(crops, source, treated, times))
  return stacked(strips)
}

function strip(crops: Crops, source: Piece, treated: Piece, times: number): HTMLCanvasElement {
  const canvas = sized(STRIP)
  const ctx = canvas.getContext('2d', { alpha: false })
  if (ctx) {
    paint(ctx, {
      glass: glassAt(crops.at, crops.sides, times),
      screen: STRIP,
      picture: crops.sides.source,
      frame: crops.frame,
      source,
      treated,
      look: 'pair',
      edge: { at: 0.5, turn: 0 },
      amplify: 1,
    })
  }
  return captioned(canvas, { ...crops.captions, middle: `${crops.captions.middle} · ${times}:1` })
}

function sized(size: Size): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  canvas.width = size.width
  canvas.height = size.height
  return canvas
}

function stacked(strips: HTMLCanvasElement[]): HTMLCanvasElement {
  const all = sized({ width: STRIP.width, height: strips.reduce((sum, one) => sum + one.height, 0) })
  const ctx = all.getContext('2d', { alpha: false })
  let y = 0
  for (const one of strips) {
    ctx?.drawImage(one, 0, y)
    y += one.height
  }
  return all
}
