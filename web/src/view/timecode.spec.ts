import { describe, expect, it } from 'vitest'
import { frameOf, startOf, timecode } from './timecode'

const NTSC = 30000 / 1001

describe('times as people write them', () => {
  it('are read as seconds, clocks, frames and time codes', () => {
    expect(frameOf('12.5', 25)).toBe(313)
    expect(frameOf('1:02.5', 24)).toBe(1500)
    expect(frameOf('1:00:01', 25)).toBe(90025)
    expect(frameOf('f120', 25)).toBe(120)
    expect(frameOf('00:00:04:12', 25)).toBe(112)
  })

  it('are refused when they are none', () => {
    for (const text of ['', 'soon', '1:2:3:4:5', '00:00:61:00', '00:00:00:25', '-3']) {
      expect(frameOf(text, 25), text).toBeUndefined()
    }
  })

  // SMPTE ST 12-1, drop-frame compensation: after 00:00:59;29 comes 00:01:00;02, after 00:09:59;29 comes 00:10:00;00,
  // and an hour has 107892 frames
  it('drop two numbers every minute but the tenth at 29.97', () => {
    expect(timecode(1799, NTSC)).toBe('00:00:59;29')
    expect(timecode(1800, NTSC)).toBe('00:01:00;02')
    expect(timecode(17981, NTSC)).toBe('00:09:59;29')
    expect(timecode(17982, NTSC)).toBe('00:10:00;00')
    expect(timecode(107892, NTSC)).toBe('01:00:00;00')
    expect(frameOf('00:01:00;02', NTSC)).toBe(1800)
    expect(frameOf('01:00:00;00', NTSC)).toBe(107892)
    expect(frameOf('00:01:00;00', NTSC)).toBeUndefined()
  })

  it('count on from the label that the file has', () => {
    const ten = startOf('10:00:00:00', 25)
    expect(timecode(50, 25, ten)).toBe('10:00:02:00')
    expect(frameOf('10:00:02:00', 25, ten)).toBe(50)
    // what lies before the first frame's label is counted from the beginning
    expect(frameOf('00:00:02:00', 25, ten)).toBe(50)
    expect(frameOf('f7', 25, ten)).toBe(7)
    const whole = startOf('01:00:00:00', NTSC)
    expect(timecode(1800, NTSC, whole)).toBe('01:01:00:00')
    expect(startOf('01:00:00;00', NTSC)).toEqual({ frame: 107892, drop: true })
    expect(startOf('no label', 25)).toBeUndefined()
    expect(startOf(undefined, 25)).toBeUndefined()
  })

  it('come back as they were', () => {
    for (const frame of [0, 1, 1799, 1800, 5395, 17982, 53946, 107892, 200001]) {
      expect(frameOf(timecode(frame, NTSC), NTSC)).toBe(frame)
      expect(frameOf(timecode(frame, 25), 25)).toBe(frame)
    }
  })
})
