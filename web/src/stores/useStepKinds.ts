import { onMounted, shallowRef } from 'vue'
import { api, type StepDescription } from '@/api/client'

/** All kinds of steps there are, in working order; none until they are known. */
export function useStepKinds(failed: (error: unknown) => void) {
  const kinds = shallowRef<StepDescription[]>([])
  onMounted(async () => {
    try {
      kinds.value = await api.steps()
    } catch (error) {
      failed(error)
    }
  })
  return kinds
}
