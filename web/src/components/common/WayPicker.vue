<script setup lang="ts">
import { computed, onMounted, shallowRef } from 'vue'
import { api, type SavedRecipe, type Way } from '@/api/client'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'

/** What clips are treated with where nobody chooses for each: a recipe for all, or what each one's condition says. */
const props = defineProps<{ label: string; usual?: boolean }>()
const way = defineModel<Way>({ required: true })
const feed = useFeed()
const notices = useNotices()
const saved = shallowRef<SavedRecipe[]>([])
onMounted(async () => {
  saved.value = await api.recipes().catch((error) => {
    notices.fail(error)
    return []
  })
})

const SUGGESTED = 'SUGGESTED'
const USUAL = 'USUAL'
/** Whose recipe it was that is given; it is not asked for again. */
const KEPT = 'KEPT'
const from = defineModel<string>('from')
const items = computed(() => [
  { value: SUGGESTED, title: 'what each one’s condition suggests' },
  ...(props.usual ? [{ value: USUAL, title: 'twice as large, as usual' }] : []),
  ...(way.value.recipe && !from.value ? [{ value: KEPT, title: 'the recipe that was chosen' }] : []),
  ...saved.value
    .filter((one) => !one.unreadable)
    .map((one) => ({ value: one.id, title: `the recipe “${one.name}”` })),
  ...[...feed.clips.values()]
    .filter((clip) => clip.state === 'READY')
    .map((clip) => ({ value: clip.id, title: `the recipe of ${clip.title}` })),
])
const chosen = computed(() => (way.value.recipe ? (from.value ?? KEPT) : way.value.how))

async function choose(value: string) {
  if (value === SUGGESTED || value === USUAL) {
    from.value = undefined
    way.value = { how: value }
    return
  }
  const how = way.value.how === 'MEASURED' ? 'MEASURED' : 'SAME'
  const one = saved.value.find((recipe) => recipe.id === value)
  try {
    const recipe = one ? one.recipe : (await api.takes(value))[0]?.recipe
    if (recipe) {
      from.value = value
      way.value = { how, recipe }
    }
  } catch (error) {
    notices.fail(error)
  }
}
</script>

<template>
  <span class="way">
    <v-select
      :model-value="chosen"
      class="giver"
      :label="label"
      aria-label="Which recipe"
      :items="items"
      hide-details
      @update:model-value="choose"
    />
    <v-checkbox
      v-if="way.recipe"
      :model-value="way.how === 'MEASURED'"
      label="values measured of each"
      title="The same steps: sizes and choices as they are, but noise, softness, borders and the like as each clip has them"
      density="compact"
      hide-details
      color="primary"
      data-test="measured"
      @update:model-value="(is) => (way = { ...way, how: is ? 'MEASURED' : 'SAME' })"
    />
  </span>
</template>

<style scoped>
.way {
  display: flex;
  gap: 14px;
  align-items: center;
}

.giver {
  width: 320px;
}
</style>
