import { describe, expect, it } from 'vitest'
import { learnFromLoading, Line, line } from './line'

describe('the line', () => {
  it('is taken for wide until something came over it', () => {
    expect(new Line().isSlow()).toBe(false)
  })

  it('is slow when much takes long, and recovers', () => {
    const one = new Line()
    one.saw(60_000, 1000)
    expect(one.isSlow()).toBe(true)
    one.saw(900_000, 300)
    expect(one.isSlow()).toBe(false)
  })

  it('learns nothing from small answers', () => {
    const one = new Line()
    one.saw(300, 900)
    expect(one.isSlow()).toBe(false)
  })

  it('learns from what the page itself took', () => {
    const entry = { transferSize: 500_000, responseStart: 100, responseEnd: 9100 }
    learnFromLoading([entry as unknown as PerformanceEntry])
    expect(line.isSlow()).toBe(true)
    line.saw(50_000_000, 100)
  })
})
