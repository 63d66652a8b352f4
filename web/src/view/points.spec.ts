import { describe, expect, it } from 'vitest'
import { pointsOf, smooth, straight, textOf, withPoint } from './points'

describe('points', () => {
  it('are read and written as recipes have them', () => {
    const points = pointsOf('0:0,0.5:0.6,1:1')
    expect(points).toEqual([
      { x: 0, y: 0 },
      { x: 0.5, y: 0.6 },
      { x: 1, y: 1 },
    ])
    expect(textOf(points)).toBe('0:0,0.5:0.6,1:1')
    expect(textOf([{ x: 1 / 3, y: -2 / 3 }])).toBe('0.333:-0.667')
  })

  it.each(['', 'a:b', '1:2:3', '0:0,1'])('are none where the text is %j', (text) => {
    expect(pointsOf(text)).toEqual([])
  })

  // the same values as the server's own test of its curve
  it('meet with the weighted harmonic mean of their slopes', () => {
    const points = pointsOf('0:0,1:1,2:4')
    expect((smooth(points, 1 + 1e-6) - smooth(points, 1 - 1e-6)) / 2e-6).toBeCloseTo(1.5, 3)
    expect(smooth(points, -1)).toBeCloseTo(-1)
    expect(smooth(points, 3)).toBeCloseTo(7)
    expect(smooth(points, 1)).toBeCloseTo(1)
  })

  it('go straight where they are values over time', () => {
    const points = pointsOf('1:10,2:20,4:0')
    expect([0, 1.5, 3, 9].map((x) => straight(points, x))).toEqual([10, 15, 10, 0])
  })

  it('make way for one that is set on them', () => {
    expect(textOf(withPoint(pointsOf('0:1,2:3'), { x: 2.01, y: 5 }, 0.02))).toBe('0:1,2.01:5')
    expect(textOf(withPoint(pointsOf('0:1,2:3'), { x: 1, y: 5 }, 0.02))).toBe('0:1,1:5,2:3')
  })
})
