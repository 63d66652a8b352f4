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
    stop: (id: string) => attempt(() => api.stopProof(id)),
    remove: (id: string) => attempt(() => api.removeProof(id)),
  }
}

/** Whether a proof is being made or waits for it. */
export function isOpen(proof: ProofView): boolean {
  return proof.state === 'WAITING' || proof.state === 'RUNNING'
}
