import { describe, expect, it } from 'vitest'
import {
  around,
  fitted,
  type Glass,
  held,
  inSource,
  panBy,
  type Rect,
  serves,
  type Size,
  toPicture,
  toScreen,
  wanted as wantedAt,
  zoomAt,
} from './glass'

const screen = { width: 800, height: 600 }
const picture = { x: 0, y: 0, width: 640, height: 360 }
const over = (size: Size): Rect => ({ x: 0, y: 0, ...size })
const wanted = (glass: Glass, on: Size, source: Size, size: Size, margin: number) =>
  wantedAt(glass, on, source, size, over(size), margin)

describe('the view', () => {
  it('fits the whole picture on the screen, centred', () => {
    const glass = fitted(picture, screen)
    expect(glass.scale).toBe(1.25)
    expect(toScreen(glass, screen, picture)).toEqual({
      x: 0,
      y: 75,
      width: 800,
      height: 450,
    })
  })

  it('keeps the point under the pointer where it is while zooming', () => {
    const glass: Glass = { x: 300, y: 100, scale: 1.5 }
    const pointer = { x: 120, y: -80 }
    const onScreen = { x: pointer.x + 400, y: pointer.y + 300 }
    const before = toPicture(glass, screen, onScreen)
    for (const scale of [0.3, 1, 2, 7.3, 40]) {
      const after = toPicture(zoomAt(glass, scale, pointer), screen, onScreen)
      expect(after.x).toBeCloseTo(before.x, 9)
      expect(after.y).toBeCloseTo(before.y, 9)
    }
  })

  it('moves the picture by as many screen pixels as the pointer moved', () => {
    const glass: Glass = { x: 300, y: 100, scale: 4 }
    const moved = panBy(glass, 20, -12)
    const spot = { x: 310, y: 90, width: 1, height: 1 }
    const before = toScreen(glass, screen, spot)
    const after = toScreen(moved, screen, spot)
    expect(after.x - before.x).toBeCloseTo(20, 9)
    expect(after.y - before.y).toBeCloseTo(-12, 9)
  })

  it('never loses the picture', () => {
    expect(held({ x: -500, y: 9000, scale: 1e9 }, picture)).toEqual({ x: 0, y: 360, scale: 64 })
    expect(held({ x: 1, y: 1, scale: 0 }, picture).scale).toBeCloseTo(0.05)
  })
})

describe('a frame of another shape', () => {
  const source = { width: 640, height: 480 }
  const frame = { width: 1920, height: 1080 }

  it('lies around the source with bars', () => {
    const place = { x: 240, y: 0, width: 1440, height: 1080 }
    const rect = inSource(source, frame, place)
    expect(rect.x).toBeCloseTo(-106.667, 2)
    expect(rect.width).toBeCloseTo(853.333, 2)
    expect(rect).toMatchObject({ height: 480 })
    expect(around(source, rect)).toEqual(rect)
    // the source's left edge is 240 pixels into the frame
    const glass: Glass = { x: 0, y: 0, scale: 2.25 }
    const { part } = wantedAt(glass, screen, source, frame, place, 0)
    expect(part).toEqual({ x: 0, y: 0, width: 640, height: 300 })
  })

  it('lies inside the source when it is filled', () => {
    const place = { x: 0, y: -180, width: 1920, height: 1440 }
    expect(inSource(source, frame, place)).toEqual({ x: 0, y: 60, width: 640, height: 360 })
    expect(around(source, inSource(source, frame, place))).toEqual(over(source))
    const glass: Glass = { x: 320, y: 240, scale: 3 }
    const { part } = wantedAt(glass, screen, source, frame, place, 0)
    expect(part).toEqual({ x: 560, y: 240, width: 800, height: 600 })
  })
})

describe('what is fetched', () => {
  it('asks for every pixel above 1:1 and only what is seen', () => {
    const treated = { width: 1280, height: 720 }
    const glass: Glass = { x: 320, y: 180, scale: 4 }
    const need = wanted(glass, screen, picture, treated, 0)
    expect(need.reduce).toBe(1)
    // 800 screen pixels at 2:1 of the treated picture are 400 of its own
    expect(need.part).toEqual({ x: 440, y: 210, width: 400, height: 300 })
  })

  it('asks for a reduced picture when it is seen smaller', () => {
    const treated = { width: 3840, height: 2160 }
    const glass = fitted(picture, screen)
    const need = wanted(glass, screen, picture, treated, 0)
    expect(need.reduce).toBe(4)
    expect(need.part).toEqual({ x: 0, y: 0, width: 3840, height: 2160 })
  })

  it('starts parts on even pixels, where chroma samples begin', () => {
    const glass: Glass = { x: 101.3, y: 77.7, scale: 9.1 }
    const { part } = wanted(glass, screen, picture, { width: 1279, height: 719 }, 0.1)
    expect(part.x % 2).toBe(0)
    expect(part.y % 2).toBe(0)
    expect(part.x + part.width).toBeLessThanOrEqual(1279)
  })

  it('needs nothing new while the fetched margin covers the view', () => {
    const treated = { width: 1280, height: 720 }
    const glass: Glass = { x: 320, y: 180, scale: 4 }
    const have = wanted(glass, screen, picture, treated, 0.12)
    expect(serves(have, wanted(panBy(glass, 60, -40), screen, picture, treated, 0))).toBe(true)
    expect(serves(have, wanted(panBy(glass, 200, 0), screen, picture, treated, 0))).toBe(false)
    expect(serves(have, wanted({ ...glass, scale: 0.4 }, screen, picture, treated, 0))).toBe(false)
  })
})
