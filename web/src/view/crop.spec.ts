import { describe, expect, it } from 'vitest'
import { cropDrawn, cropMoved, cropSized, snapped } from './crop'

const picture = { width: 720, height: 576 }
const crop = { x: 100, y: 80, width: 200, height: 100 }

describe('a crop', () => {
  it('moves inside the picture only', () => {
    expect(cropMoved(crop, { x: 10, y: -20 }, picture)).toEqual({ ...crop, x: 110, y: 60 })
    expect(cropMoved(crop, { x: 9999, y: -9999 }, picture)).toEqual({ ...crop, x: 520, y: 0 })
  })

  it('is sized by an edge, the opposite one staying', () => {
    expect(cropSized(crop, 'w', { x: -30, y: 50 }, picture, 0)).toEqual({
      x: 70,
      y: 80,
      width: 230,
      height: 100,
    })
    expect(cropSized(crop, 'se', { x: 5, y: 6 }, picture, 0)).toEqual({ ...crop, width: 205, height: 106 })
    expect(cropSized(crop, 'n', { x: 0, y: 500 }, picture, 0)).toEqual({ ...crop, y: 164, height: 16 })
  })

  it('is drawn between two points any way round, inside the picture', () => {
    const box = { x: 300, y: 200, width: 100, height: 50 }
    expect(cropDrawn({ x: 300, y: 200 }, { x: 400, y: 250 }, picture, 0)).toEqual(box)
    expect(cropDrawn({ x: 400, y: 250 }, { x: 300, y: 200 }, picture, 0)).toEqual(box)
    expect(cropDrawn({ x: 700, y: 500 }, { x: 900, y: 900 }, picture, 0)).toEqual({
      x: 700,
      y: 500,
      width: 20,
      height: 76,
    })
    expect(cropDrawn({ x: 300, y: 200 }, { x: 302, y: 290 }, picture, 0)).toBeUndefined()
    expect(cropDrawn({ x: 300, y: 200 }, { x: 400, y: 290 }, picture, 2)).toEqual({
      ...box,
      width: 100,
      height: 50,
    })
  })

  it('keeps a shape and stays inside while it does', () => {
    const wide = cropSized(crop, 'e', { x: 100, y: 0 }, picture, 2)
    expect(wide).toEqual({ ...crop, width: 300, height: 150 })
    const most = cropSized(crop, 'se', { x: 2000, y: 0 }, picture, 1)
    expect(most.width).toBeCloseTo(496)
    expect(most.height).toBeCloseTo(496)
  })

  it('lies on samples that may be cut apart', () => {
    expect(
      snapped({ x: 101.4, y: 83, width: 201.2, height: 99.7 }, picture, { width: 2, height: 4 }),
    ).toEqual({
      x: 102,
      y: 84,
      width: 202,
      height: 100,
    })
    expect(snapped({ x: 700, y: 570, width: 40, height: 40 }, picture, { width: 2, height: 2 })).toEqual({
      x: 700,
      y: 560,
      width: 20,
      height: 16,
    })
  })
})
