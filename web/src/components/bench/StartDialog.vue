<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import {
  api,
  type ClipView,
  type Recipe,
  type SavedRecipe,
  type StepDescription,
  type TakeView,
} from '@/api/client'
import { useFeed } from '@/stores/feed'
import { useNotices } from '@/stores/notices'
import { suggested } from '@/view/condition'
import { recipeWords } from '@/view/sheetWords'

/** What a new take may begin with: what the condition speaks for, a saved recipe, or a take of another clip. */
const props = defineProps<{ clip: ClipView; kinds: StepDescription[] }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ start: [recipe: Recipe, name?: string] }>()
const feed = useFeed()
const notices = useNotices()

const saved = shallowRef<SavedRecipe[]>([])
const other = shallowRef<{ clip: ClipView; takes: TakeView[] }>()
const others = computed(() =>
  [...feed.clips.values()].filter((one) => one.id !== props.clip.id && one.state === 'READY'),
)
const condition = computed(() => props.clip.examination?.condition)

watch(open, async (is) => {
  if (is) {
    other.value = undefined
    saved.value = await api.recipes().catch((error: unknown) => {
      notices.fail(error)
      return []
    })
  }
})

async function look(id: string | null) {
  const clip = feed.clips.get(id ?? '')
  if (!clip) {
    other.value = undefined
    return
  }
  try {
    const takes = await api.takes(clip.id)
    other.value = { clip, takes: takes.filter((one) => one.verdict !== 'DISCARDED') }
  } catch (error) {
    notices.fail(error)
  }
}

function start(recipe: unknown, name?: string) {
  emit('start', recipe as Recipe, name)
  open.value = false
}
const words = (recipe: unknown) => recipeWords({ recipe } as unknown as TakeView, props.kinds)
</script>

<template>
  <v-dialog v-model="open" aria-label="Start a take" width="560">
    <v-card class="card">
      <h2>A new take begins with</h2>
      <ul>
        <li v-if="condition">
          <v-btn variant="plain" class="bare choice" @click="start(suggested(condition), 'suggested')">
            <b>what the clip’s condition suggests</b>
            <span class="quiet">{{ words(suggested(condition)) }}</span>
          </v-btn>
        </li>
        <li v-for="one in saved" :key="one.id">
          <v-btn
            variant="plain"
            class="bare choice"
            :disabled="!!one.unreadable"
            @click="start(one.recipe, one.name)"
          >
            <b>{{ one.name }}</b> <span class="quiet">{{ one.unreadable ?? words(one.recipe) }}</span>
          </v-btn>
        </li>
      </ul>
      <p v-if="saved.length === 0" class="label faint">
        No recipes are saved yet: “save recipe” beside a take’s name keeps one.
      </p>
      <v-select
        :model-value="other?.clip.id ?? null"
        :items="others"
        item-title="title"
        item-value="id"
        label="or with a take of another clip"
        @update:model-value="look"
      />
      <ul v-if="other">
        <li v-for="take in other.takes" :key="take.id">
          <v-btn
            variant="plain"
            class="bare choice"
            :disabled="!!take.unreadable"
            @click="start(take.recipe)"
          >
            <b>Take {{ take.name }}</b> <span class="quiet">{{ take.unreadable ?? words(take.recipe) }}</span>
          </v-btn>
        </li>
      </ul>
      <v-btn class="end" @click="open = false">Cancel</v-btn>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 36vh;
  overflow: auto;
}

.choice {
  width: 100%;
  padding: 6px 8px;
  border: 0;
  border-bottom: 1px solid var(--rule);
  background: none;
  color: inherit;
  font: 14px var(--label);
  text-align: left;
  cursor: pointer;
}

.choice:hover,
.choice:focus-visible {
  background: var(--raised);
}

.choice b {
  display: block;
  font-weight: 600;
}

.end {
  justify-self: end;
}
</style>
