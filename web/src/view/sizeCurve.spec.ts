import { describe, expect, it } from 'vitest'
import type { CurvePoint } from '@/api/client'
import { likeness, ordered, places, qualityFor, share } from './sizeCurve'

const point = (quality: number, fileBytes: number, worst: number): CurvePoint => ({
  curve: 'c',
  quality,
  fileBytes,
  sourceBytes: 1_000_000,
  ssim: worst + 0.005,
  worst,
  psnr: 40,
  frames: 72,
})
const POINTS = [point(28, 200_000, 0.94), point(18, 800_000, 0.99), point(23, 400_000, 0.97)]

describe('size against quality', () => {
  it('goes from fine to coarse', () => {
    expect(ordered(POINTS).map((one) => one.quality)).toEqual([18, 23, 28])
  })
  it('finds the quality of a size, and never a larger file than asked for', () => {
    expect(qualityFor(POINTS, 400_000)).toBe(23)
    // halves with every five steps: the geometric mean lies in the middle
    expect(qualityFor(POINTS, 800_000 / Math.SQRT2)).toBe(21)
    expect(qualityFor(POINTS, 390_000)).toBe(24)
    expect(qualityFor(POINTS, 900_000)).toBeUndefined()
    expect(qualityFor(POINTS, 10)).toBeUndefined()
    expect(qualityFor([POINTS[0]!], 200_000)).toBeUndefined()
  })
  it('says what is seen of it', () => {
    expect(POINTS.map(likeness)).toEqual([
      'seen to be coarser',
      'hardly to be told apart',
      'told apart where one looks for it',
    ])
    const bare = { ...point(0, 9, 1) }
    delete bare.worst
    expect(likeness(bare)).toBe('too small a picture to tell')
    delete bare.psnr
    expect(likeness(bare)).toBe('nothing is lost')
  })
  it('tells its share of the source', () => {
    expect(share(point(1, 310_000, 1))).toBe('31 % of the source')
    expect(share(point(1, 2_540_000, 1))).toBe('2.5 times the source')
    expect(share(point(1, 10, 1))).toBe('1 % of the source')
  })
  it('draws the largest at the right and the most alike on top', () => {
    const [fine, , coarse] = places(ordered(POINTS))
    expect([fine!.x, fine!.y]).toEqual([1, 0])
    expect([coarse!.x, coarse!.y]).toEqual([0, 1])
    expect(places([POINTS[0]!])[0]).toMatchObject({ x: 0, y: 1 })
  })
})
