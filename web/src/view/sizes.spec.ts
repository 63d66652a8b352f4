import { describe, expect, it } from 'vitest'
import { drawingScale, framesAround, lost, placed, roundFactor, sameShape } from './sizes'

const small = { width: 320, height: 240 }
const ids = (picture: typeof small, chosen: typeof small) =>
  framesAround(picture, chosen).map((one) => one.id)

describe('the frames around a picture', () => {
  it('are those up to ultra-high definition, and one beyond what is chosen', () => {
    const usual = ['576p', '720p', '1080p', '1440p', '2160p']
    expect(ids(small, { width: 640, height: 480 })).toEqual(usual)
    expect(ids(small, { width: 2880, height: 2160 })).toEqual(usual)
    expect(ids(small, { width: 3840, height: 2880 })).toEqual([...usual, '4320p'])
  })

  it('leave out those much smaller than the picture, and end with the largest', () => {
    const large = { width: 3840, height: 2160 }
    expect(ids(large, large)).toEqual(['2160p', 'cinema'])
    expect(ids(large, { width: 7680, height: 4320 })).toEqual(['2160p', 'cinema', '4320p'])
  })

  it('stand upright for upright pictures', () => {
    const [first] = framesAround({ width: 240, height: 320 }, { width: 480, height: 640 })
    expect(first).toMatchObject({ id: '576p', width: 576, height: 1024 })
  })

  it('all fit in the drawing', () => {
    expect(drawingScale([{ width: 1920, height: 1080 }, small], { width: 192, height: 120 })).toBeCloseTo(0.1)
  })
})

describe('a picture in a frame of another shape', () => {
  const frame = { width: 1920, height: 1080 }

  it('lies between bars, or beyond the frame', () => {
    expect(placed(small, frame, 'letterbox', 0)).toEqual({ x: 240, y: 0, width: 1440, height: 1080 })
    expect(placed(small, frame, 'fill', 0)).toEqual({ x: 0, y: -180, width: 1920, height: 1440 })
  })

  it('is moved by the offset: its top edge is seen at -100, its bottom edge at 100', () => {
    expect(placed(small, frame, 'fill', -100).y).toBeCloseTo(0)
    expect(placed(small, frame, 'fill', 100).y).toBeCloseTo(-360)
    expect(placed(small, frame, 'letterbox', -100).x).toBeCloseTo(0)
    expect(placed(small, frame, 'letterbox', 100).x).toBeCloseTo(480)
  })

  it('loses a quarter either way', () => {
    expect(lost(small, frame, 'letterbox')).toBeCloseTo(25)
    expect(lost(small, frame, 'fill')).toBeCloseTo(25)
    expect(lost(small, frame, 'shape')).toBe(0)
  })

  it('is of one shape with what only rounding made another', () => {
    expect(sameShape({ width: 641, height: 361 }, { width: 1280, height: 720 })).toBe(true)
    expect(sameShape(small, frame)).toBe(false)
  })
})

it('rounds a dragged factor to twentieths, or to a frame that is near', () => {
  expect(roundFactor(2.013, small, [])).toBe(2)
  expect(roundFactor(4.4, small, [{ width: 1920, height: 1080 }])).toBe(4.5)
  expect(roundFactor(4.2, small, [{ width: 1920, height: 1080 }])).toBe(4.2)
})
