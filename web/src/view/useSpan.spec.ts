import { ref } from 'vue'
import { describe, expect, it, vi } from 'vitest'
import { useSpan } from './useSpan'

function made(at: number, inFrame?: number, outFrame?: number) {
  const change = vi.fn()
  return { change, ...useSpan(100, ref(at), ref({ inFrame, outFrame }), change) }
}

describe('the span that is treated', () => {
  it('is marked where one is, the frame that is seen included', () => {
    const { change, spanKeys } = made(20)
    spanKeys.i()
    expect(change).toHaveBeenLastCalledWith({ inFrame: 20, outFrame: undefined })
    spanKeys.o()
    expect(change).toHaveBeenLastCalledWith({ inFrame: undefined, outFrame: 21 })
  })

  it('lets go of an end that would lie before its start', () => {
    const late = made(60, 10, 50)
    late.spanKeys.i()
    expect(late.change).toHaveBeenLastCalledWith({ inFrame: 60, outFrame: undefined })
    const early = made(5, 10, 50)
    early.spanKeys.o()
    expect(early.change).toHaveBeenLastCalledWith({ inFrame: undefined, outFrame: 6 })
  })

  it("takes the clip's own ends for none, and clears one end alone", () => {
    const { change, setSpan, spanKeys } = made(0, 10, 50)
    setSpan(0, 100)
    expect(change).toHaveBeenLastCalledWith({ inFrame: undefined, outFrame: undefined })
    spanKeys.I()
    expect(change).toHaveBeenLastCalledWith({ inFrame: undefined, outFrame: 50 })
    spanKeys.O()
    expect(change).toHaveBeenLastCalledWith({ inFrame: 10, outFrame: undefined })
  })
})
