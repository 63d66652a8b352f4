import { describe, expect, it } from 'vitest'
import { learnFromLoading, Line, line, received, SlowLine } from './line'

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

  function answer(parts: number, bytes: number, everyMs: number): Response {
    let sent = 0
    const body = new ReadableStream<Uint8Array>({
      async pull(to) {
        await new Promise((done) => setTimeout(done, everyMs))
        to.enqueue(new Uint8Array(bytes))
        if (++sent === parts) {
          to.close()
        }
      },
    })
    return new Response(body, { headers: { 'Content-Type': 'image/png' } })
  }

  it('is found to be slow while an answer comes, and the waiting given up', async () => {
    const one = new Line()
    await expect(received(answer(20, 4000, 60), true, one)).rejects.toBeInstanceOf(SlowLine)
    expect(one.isSlow()).toBe(true)
    const patient = await received(answer(6, 4000, 5), false, one)
    expect(patient.size).toBe(24_000)
    expect(patient.type).toBe('image/png')
  })

  it('learns from what the page itself took', () => {
    const entry = { transferSize: 500_000, responseStart: 100, responseEnd: 9100 }
    learnFromLoading([entry as unknown as PerformanceEntry])
    expect(line.isSlow()).toBe(true)
    line.saw(50_000_000, 100)
  })
})
