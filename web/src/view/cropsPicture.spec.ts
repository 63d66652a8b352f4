import { expect, it } from 'vitest'
import { cropsSpot, glassAt } from './cropsPicture'
import { toScreen } from './glass'
import type { Sides } from './sides'

const kept = { x: 100, y: 50, width: 200, height: 100 }

it('takes crops of the kept box, else of a pin, else of what is seen, where there is a treated picture', () => {
  const pin = { x: 150, y: 60, width: 20, height: 20 }
  expect(cropsSpot(kept, pin, kept, kept)).toEqual({ x: 200, y: 100 })
  expect(cropsSpot(undefined, pin, kept, kept)).toEqual({ x: 160, y: 70 })
  // the middle of what is seen lies outside of the crop
  expect(cropsSpot(undefined, undefined, { x: 0, y: 0, width: 40, height: 40 }, kept)).toEqual({
    x: 200,
    y: 100,
  })
  // and a pin that does is no reason to look beside it
  expect(cropsSpot(undefined, { x: 0, y: 0, width: 10, height: 10 }, { ...pin, x: 120 }, kept)).toEqual({
    x: 130,
    y: 70,
  })
})

it('shows a treated pixel as so many of the screen, both ways, where pixels were made square too', () => {
  const sides = {
    source: { width: 720, height: 576 },
    placement: { x: 0, y: 0, width: 1536, height: 1152 },
  } as unknown as Sides
  const glass = glassAt({ x: 0, y: 0 }, sides, 4)
  const one = { x: 0, y: 0, width: 720 / 1536, height: 576 / 1152 }
  const place = toScreen(glass, { width: 100, height: 100 }, one)
  expect(place.width).toBeCloseTo(4)
  expect(place.height).toBeCloseTo(4)
})
