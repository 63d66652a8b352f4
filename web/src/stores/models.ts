import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, type ModelView } from '@/api/client'
import { useNotices } from './notices'

/** The models at hand; they are the same for as long as the server runs, but their speeds become known with use. */
export const useModels = defineStore('models', () => {
  const all = ref<ModelView[]>([])
  let asked = false

  /** Reads them, and their speeds again; what is known stays until then. */
  async function load() {
    if (asked) {
      return
    }
    asked = true
    try {
      all.value = await api.models()
    } catch (error) {
      useNotices().fail(error)
    } finally {
      asked = false
    }
  }

  /** How many have been measured anew, while that is going on. */
  const measured = ref<number>()

  /** Measures one after another, until all are done or somebody stops it. */
  async function measure() {
    measured.value = 0
    try {
      for (const model of [...all.value]) {
        if (measured.value === undefined) {
          return
        }
        const fresh = await api.measureModel(model.id, model.mode)
        all.value = all.value.map((one) => (one.id === fresh.id && one.mode === fresh.mode ? fresh : one))
        measured.value = measured.value === undefined ? undefined : measured.value + 1
      }
    } catch (error) {
      useNotices().fail(error)
    } finally {
      measured.value = undefined
    }
  }

  function stop() {
    measured.value = undefined
  }

  /** What enlarging with a model can aim at: its own modes, and smooth, which is one of them with surfaces calmed. */
  function modesOf(id: string): string[] {
    const own = all.value.filter((one) => one.id === id).map((one) => one.mode)
    return own.includes('quality') ? [...own, 'smooth'] : own
  }

  /** Whether it can be told how soft the footage is. */
  function isTold(id: string, mode: string): boolean {
    // what smooth calms is made by crisp, where a model has it
    const own = mode !== 'smooth' ? mode : modesOf(id).includes('crisp') ? 'crisp' : 'quality'
    return all.value.some((one) => one.id === id && one.mode === own && one.told)
  }

  return { all, load, measure, measured, stop, modesOf, isTold }
})
