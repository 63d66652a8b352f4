import { describe, expect, it } from 'vitest'
import type { CodecDescription, PlanView } from '@/api/client'
import { handlesOf, handleWords, planLine, takingOf, withHandles } from './sending'

const plan = {
  width: 1918,
  height: 960,
  ratePerSecond: 25,
  depth: 8,
  fileBytes: 3_700_000,
  sar: '1',
} as PlanView

describe('what is sent out', () => {
  it('is told by what a file takes of the frames', () => {
    expect(planLine(plan, 'H.264')).toBe('1918×960 · 25 fps · H.264 8 bit · roughly 3.7 MB')
    expect(planLine(plan, 'Contact sheet', undefined, 'FEW')).toBe(
      '1918×960 · Contact sheet 8 bit · roughly 3.7 MB',
    )
    expect(planLine(plan, 'Sound alone', 900_000, 'SOUND')).toBe('Sound alone · about 900 kB')
    const codecs = [
      {
        id: 'png',
        containers: [
          { ending: 'zip', taking: 'ALL' },
          { ending: 'png', taking: 'FEW' },
        ],
      },
    ] as CodecDescription[]
    const choice = { codec: 'png', settings: {}, sound: 'none' }
    expect(takingOf({ ...choice, container: 'png' }, codecs)).toBe('FEW')
    expect(takingOf({ ...choice, container: 'zip' }, codecs)).toBe('ALL')
  })

  it('has handles as far as the clip reaches', () => {
    expect(withHandles({ inFrame: 30, outFrame: 60 }, 12, 100)).toEqual({ inFrame: 18, outFrame: 72 })
    expect(withHandles({ inFrame: 5, outFrame: 95 }, 12, 100)).toEqual({ inFrame: 0, outFrame: 100 })
    expect(withHandles({ outFrame: 60 }, 12, 100)).toEqual({ outFrame: 72 })
    expect(withHandles({ inFrame: 30 }, handlesOf(NaN), 100)).toEqual({ inFrame: 30 })
    expect([handlesOf(''), handlesOf(-3), handlesOf(2.5), handlesOf(7)]).toEqual([0, 0, 0, 7])
    expect(handleWords({ inFrame: 30, outFrame: 60 }, 12, 100)).toBe('')
    expect(handleWords({ inFrame: 5, outFrame: 60 }, 12, 100)).toBe(
      ': 5 before, 12 behind; the clip has no more',
    )
  })
})
