import { ref, shallowRef, type Ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type ClipView, type PlanView, type Recipe, type TakeView } from '@/api/client'
import { useNotices } from '@/stores/notices'
import { useClipTakes } from '@/stores/useClipTakes'
import { type Sides, sidesOf } from './sides'

/** Another take, or the clean reference, that stands in the source's place. */
export interface Against {
  readonly id: string
  readonly name: string
  readonly sides: Sides
  readonly reference: boolean
}

const REFERENCE = 'reference'

/** What is done with whole takes on the bench: opened, copied, varied, kept, looked at against each other. */
export function useBenchTakes(bench: {
  clip: () => ClipView
  take: Ref<TakeView | undefined>
  state: Ref<{ recipe: Recipe } | undefined>
  sides: Ref<Sides | undefined>
  planOf: (recipe: Recipe) => Promise<PlanView>
  open: (take: TakeView) => Promise<void>
  note: (take: TakeView) => void
  save: () => Promise<void>
  /** A take was opened: what was begun on the last one ends. */
  opened: () => void
}) {
  const notices = useNotices()
  const route = useRoute()
  const router = useRouter()
  const { take, state } = bench
  const id = bench.clip().id
  const takes = useClipTakes(id, notices.fail)
  const against = shallowRef<Against>()
  const isVarying = ref(false)

  async function openTake(next: TakeView) {
    bench.opened()
    await bench.open(next)
    if (against.value?.id === next.id) {
      against.value = undefined
    }
    await router.replace({ query: { ...route.query, take: next.id } })
  }

  async function copyTake() {
    await bench.save()
    const now = state.value
    if (now && take.value) {
      const [made] = await takes.add([{ recipe: now.recipe }], take.value.id)
      if (made) {
        await openTake(made)
      }
    }
  }

  async function vary(made: { name: string; recipe: Recipe }[]) {
    const added = await takes.add(made, take.value?.id)
    if (added.length > 0) {
      await router.push(`/sheet/${id}`)
    }
  }

  async function startTake(recipe: Recipe, name?: string) {
    const taken = takes.all.value.some((one) => one.name === name)
    const [made] = await takes.add([{ recipe, ...(name && !taken ? { name } : {}) }], take.value?.id)
    if (made) {
      await openTake(made)
    }
  }

  async function saveRecipe(name: string) {
    const recipe = state.value?.recipe
    if (recipe) {
      try {
        const kept = await api.saveRecipe(name, recipe)
        notices.say(`The recipe is kept as ${kept.name}; the Library lists it.`)
      } catch (error) {
        notices.fail(error)
      }
    }
  }

  function stepTake(by: number) {
    const all = takes.open.value
    const at = all.findIndex((one) => one.id === take.value?.id)
    const next = all[(at + by + all.length) % all.length]
    if (next && next.id !== take.value?.id) {
      void openTake(next)
    }
  }

  /** In the source's place: the other takes one after another, the reference where there is one, the source again. */
  async function stepAgainst() {
    const others = takes.open.value.filter((one) => one.id !== take.value?.id)
    const all = [...others.map((one) => one.id), ...(bench.clip().hasReference ? [REFERENCE] : [])]
    if (all.length === 0) {
      notices.say('This clip has one take; copy it to have another to look at it against.')
      return
    }
    const nextId = all[all.indexOf(against.value?.id ?? '') + 1]
    const next = others.find((one) => one.id === nextId)
    if (nextId === REFERENCE && bench.sides.value) {
      against.value = { id: nextId, name: '', sides: bench.sides.value, reference: true }
    } else if (!next) {
      against.value = undefined
    } else {
      try {
        const recipe = next.recipe as unknown as Recipe
        const other = sidesOf(recipe, await bench.planOf(recipe))
        against.value = { id: next.id, name: next.name, sides: other, reference: false }
      } catch (error) {
        notices.fail(error)
      }
    }
  }

  // an answer to a label, and the list read anew, tell of the take on the bench too: its event may have been missed
  watch(takes.all, (all) => all.forEach(bench.note))

  function judge() {
    const now = take.value
    if (now) {
      void takes.label(now.id, { verdict: now.verdict === 'KEPT' ? 'OPEN' : 'KEPT' })
    }
  }

  return {
    takes,
    against,
    isVarying,
    openTake,
    copyTake,
    vary,
    startTake,
    saveRecipe,
    stepTake,
    stepAgainst,
    judge,
  }
}
