import { describe, expect, it } from 'vitest'
import { bytes, clock, factsLine, length, modelSpeed, ratio, spanLine, wait } from './words'

describe('words', () => {
  it('writes times', () => {
    expect(clock(4.16)).toBe('0:04.16')
    expect(clock(59.999)).toBe('1:00.00')
    expect(clock(3723.5)).toBe('1:02:03.50')
    expect(length(252)).toBe('4:12')
    expect(wait(12.4)).toBe('12 s')
    expect(wait(840)).toBe('14 min')
    expect(wait(5760)).toBe('1 h 36 min')
  })

  it('writes a model’s speed as frames of a common size', () => {
    expect(modelSpeed(undefined)).toBe('speed here not measured yet')
    expect(modelSpeed(1_175_040)).toBe('5.1 frames/s of 640×360 here')
    expect(modelSpeed(7_603_200)).toBe('33 frames/s of 640×360 here')
  })

  it('writes sizes', () => {
    expect(bytes(51_732)).toBe('52 kB')
    expect(bytes(4_671_488)).toBe('4.7 MB')
    expect(bytes(61_000_000)).toBe('61 MB')
    expect(bytes(3_400_000_000)).toBe('3.4 GB')
  })

  it('writes true scales', () => {
    expect(ratio(4)).toBe('4:1')
    expect(ratio(0.5)).toBe('1:2')
    expect(ratio(1.25)).toBe('1.25:1')
    expect(ratio(0.64)).toBe('1:1.56')
  })

  it('says the span before anything is sent', () => {
    expect(spanLine({ wholeClip: false, spanSeconds: 4.2, clipSeconds: 252 })).toBe(
      '4.2 s of 252.0 s, in/out set',
    )
    expect(spanLine({ wholeClip: true, spanSeconds: 6, clipSeconds: 6 })).toBe('whole clip, 6.0 s')
  })

  it('puts the facts on one line', () => {
    const facts = {
      container: 'mpeg',
      codec: 'MPEG-2',
      width: 720,
      height: 576,
      rate: '25',
      ratePerSecond: 25,
      steady: true,
      scan: 'i',
      order: 'top field first',
      depth: 8,
      layout: '4:2:0',
      sar: '16/15',
      seconds: 6,
      bitRate: 6e6,
      colour: { matrix: 'bt470bg', range: 'limited', transfer: '', primaries: '', takenAs: 'bt470bg' },
      sound: ['MP2 48 kHz mono'],
      errors: 0,
    }
    expect(factsLine(facts)).toBe('720×576 · 25i · 0:06 · MPEG-2 · MP2 48 kHz mono')
    expect(
      factsLine({ ...facts, depth: 10, sound: [], steady: false, scan: 'p', ratePerSecond: 29.97 }),
    ).toBe('720×576 · 29.97p uneven · 0:06 · MPEG-2 · 10 bit · no sound')
  })
})
