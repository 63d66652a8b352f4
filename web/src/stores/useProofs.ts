import { onScopeDispose, shallowRef } from 'vue'
import { api, type ProofView } from '@/api/client'
import { useFeed } from './feed'

/** The proofs of a clip, kept by the stream of events. */
export function useProofs(clip: string, fail: (error: unknown) => void) {
  const feed = useFeed()
  const proofs = shallowRef<ProofView[]>([])

  async function load() {
    try {
      proofs.value = await api.proofs(clip)
    } catch (error) {
      fail(error)
    }
  }

  function fold(next: ProofView) {
    if (next.clipId === clip) {
      const known = proofs.value.some((one) => one.id === next.id)
      proofs.value = known
        ? proofs.value.map((one) => (one.id === next.id ? next : one))
        : [...proofs.value, next]
    }
  }

  async function prove(order: Parameters<typeof api.prove>[1]): Promise<ProofView | undefined> {
    try {
      const made = await api.prove(clip, order)
      fold(made)
      return made
    } catch (error) {
      fail(error)
      return undefined
    }
  }

  /** A proof of two: the treated picture of the other in the place of the source. */
  async function beside(one: ProofView, other: ProofView): Promise<ProofView | undefined> {
    try {
      const made = await api.proofAgainst(one.id, other.id)
      fold(made)
      return made
    } catch (error) {
      fail(error)
      return undefined
    }
  }

  async function attempt(act: () => Promise<unknown>) {
    try {
      await act()
    } catch (error) {
      fail(error)
    }
  }

  const stops = [
    feed.listen('proof', fold),
    feed.listen('proof-removed', ({ id }) => (proofs.value = proofs.value.filter((one) => one.id !== id))),
    feed.listen('again', () => void load()),
  ]
  onScopeDispose(() => stops.forEach((stop) => stop()))

  return {
    proofs,
    load,
    prove,
    beside,
    stop: (id: string) => attempt(() => api.stopProof(id)),
    remove: (id: string) => attempt(() => api.removeProof(id)),
  }
}

/** Whether two proofs show the same place and moment, so that one can be laid on the other. */
export function isBeside(one: ProofView, other: ProofView): boolean {
  return (
    one.id !== other.id &&
    [one, other].every((proof) => !isOpen(proof) && proof.framesDone > 0 && proof.against === undefined) &&
    (['fromFrame', 'x', 'y', 'width', 'height', 'rate'] as const).every((key) => one[key] === other[key])
  )
}

/** Rows for spans on the time axis, so that those that overlap lie below each other; at most so many. */
export function lanes(proofs: readonly { fromFrame: number; endFrame: number }[], most: number): number[] {
  const ends: number[] = []
  return proofs.map(({ fromFrame, endFrame }) => {
    const free = ends.findIndex((end) => end <= fromFrame)
    const row = free >= 0 ? free : ends.length < most ? ends.length : most - 1
    ends[row] = Math.max(ends[row] ?? 0, endFrame)
    return row
  })
}

/** Whether a proof is being made or waits for it. */
export function isOpen(proof: ProofView): boolean {
  return proof.state === 'WAITING' || proof.state === 'RUNNING'
}
