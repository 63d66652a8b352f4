import type { Ref } from 'vue'

interface Span {
  readonly inFrame: number | undefined
  readonly outFrame: number | undefined
}

/** The span of a clip that is treated, and the keys that mark it: I and O here, with Shift none. */
export function useSpan(
  frames: number,
  frame: Ref<number>,
  state: Ref<Span | undefined>,
  change: (span: Span) => void,
) {
  /** The clip's own ends are no marks. */
  function setSpan(inFrame: number | undefined, outFrame: number | undefined) {
    change({
      inFrame: inFrame === 0 ? undefined : inFrame,
      outFrame: outFrame === frames ? undefined : outFrame,
    })
  }

  const spanKeys = {
    i: () => {
      const out = state.value?.outFrame
      setSpan(frame.value, out !== undefined && out > frame.value ? out : undefined)
    },
    o: () => {
      const from = state.value?.inFrame
      setSpan(from !== undefined && from <= frame.value ? from : undefined, frame.value + 1)
    },
    I: () => setSpan(undefined, state.value?.outFrame),
    O: () => setSpan(state.value?.inFrame, undefined),
  }

  return { setSpan, spanKeys }
}
