import { clamp, type Point, type Rect, type Size } from './glass'

/** Shapes that a box can be held to while it is drawn, width to height; 0 holds none. */
export const SHAPES = [
  { label: 'any shape', ratio: 0 },
  { label: '4:3', ratio: 4 / 3 },
  { label: '16:9', ratio: 16 / 9 },
  { label: '1:1', ratio: 1 },
]

/** An edge or corner by which a rectangle is sized. */
export type Grip = 'n' | 'ne' | 'e' | 'se' | 's' | 'sw' | 'w' | 'nw'

const SMALLEST = 16

/** The rectangle moved, inside the picture. */
export function cropMoved(crop: Rect, by: Point, picture: Size): Rect {
  return {
    ...crop,
    x: clamp(crop.x + by.x, 0, picture.width - crop.width),
    y: clamp(crop.y + by.y, 0, picture.height - crop.height),
  }
}

/**
 * The rectangle sized by one grip; the opposite edge or corner stays.
 *
 * @param shape width to height that is kept, 0 for any
 */
export function cropSized(crop: Rect, grip: Grip, by: Point, picture: Size, shape: number): Rect {
  const west = grip.includes('w')
  const east = grip.includes('e')
  const north = grip.includes('n')
  const south = grip.includes('s')
  const right = crop.x + crop.width
  const bottom = crop.y + crop.height
  const roomX = west ? right : picture.width - crop.x
  const roomY = north ? bottom : picture.height - crop.y
  let width = clamp(crop.width + (east ? by.x : west ? -by.x : 0), SMALLEST, roomX)
  let height = clamp(crop.height + (south ? by.y : north ? -by.y : 0), SMALLEST, roomY)
  if (shape > 0) {
    const across = east || west
    width = across ? width : height * shape
    height = width / shape
    const most = Math.min(1, roomX / width, roomY / height)
    width *= most
    height *= most
  }
  return { x: west ? right - width : crop.x, y: north ? bottom - height : crop.y, width, height }
}

/**
 * The rectangle between two points, inside the picture; none while it is too small to be meant.
 *
 * @param shape width to height that is kept, 0 for any
 */
export function cropDrawn(from: Point, to: Point, picture: Size, shape: number): Rect | undefined {
  const inside = (at: Point) => ({ x: clamp(at.x, 0, picture.width), y: clamp(at.y, 0, picture.height) })
  const a = inside(from)
  const b = inside(to)
  if (Math.abs(a.x - b.x) < SMALLEST / 2 || Math.abs(a.y - b.y) < SMALLEST / 2) {
    return undefined
  }
  const start = { ...a, width: 0, height: 0 }
  const grip: Grip = `${b.y < a.y ? 'n' : 's'}${b.x < a.x ? 'w' : 'e'}`
  return cropSized(start, grip, { x: b.x - a.x, y: b.y - a.y }, picture, shape)
}

/** On whole samples that may be cut apart, inside the picture. */
export function snapped(crop: Rect, picture: Size, step: Size): Rect {
  const place = (at: number, side: number, by: number) =>
    clamp(Math.round(at / by) * by, 0, Math.floor((side - SMALLEST) / by) * by)
  const x = place(crop.x, picture.width, step.width)
  const y = place(crop.y, picture.height, step.height)
  const even = (side: number) => Math.max(SMALLEST, Math.round(side / 2) * 2)
  return {
    x,
    y,
    width: Math.min(even(crop.width), picture.width - x),
    height: Math.min(even(crop.height), picture.height - y),
  }
}
