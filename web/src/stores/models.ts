import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, type ModelView } from '@/api/client'
import { useNotices } from './notices'

/** The models at hand; they are the same for as long as the server runs. */
export const useModels = defineStore('models', () => {
  const all = ref<ModelView[]>([])
  let asked = false

  async function load() {
    if (asked) {
      return
    }
    asked = true
    try {
      all.value = await api.models()
    } catch (error) {
      asked = false
      useNotices().fail(error)
    }
  }

  async function measure() {
    try {
      all.value = await api.measureModels()
    } catch (error) {
      useNotices().fail(error)
    }
  }

  function modesOf(id: string): string[] {
    return all.value.filter((one) => one.id === id).map((one) => one.mode)
  }

  return { all, load, measure, modesOf }
})
