<script setup lang="ts">
import { computed, onMounted, ref, shallowRef } from 'vue'
import {
  api,
  type MachineView,
  type ModelView,
  type SavedRecipe,
  type StepDescription,
  type TakeView,
  type Way,
} from '@/api/client'
import WayPicker from '@/components/common/WayPicker.vue'
import { useNotices } from '@/stores/notices'
import { useModels } from '@/stores/models'
import { saveFile } from '@/view/sheetPicture'
import { recipeWords } from '@/view/sheetWords'
import { modelSpeed } from '@/view/words'

const models = useModels()
const notices = useNotices()
const recipes = shallowRef<SavedRecipe[]>([])
const kinds = shallowRef<StepDescription[]>([])
const machine = shallowRef<MachineView>()

const first = ref<Way>()
const from = ref<string>()
async function begin(way: Way) {
  try {
    first.value = await api.setFirstRecipe(way)
    notices.say('New clips begin with that')
  } catch (error) {
    notices.fail(error)
  }
}

const families = computed(() => {
  const grouped = new Map<string, ModelView[]>()
  for (const model of models.all) {
    grouped.set(model.id, [...(grouped.get(model.id) ?? []), model])
  }
  return [...grouped.values()]
})
const unmeasured = computed(() => models.all.some((one) => one.pixelsASecond === undefined))

onMounted(models.load)
onMounted(() => api.machine().then((view) => (machine.value = view), notices.fail))

onMounted(async () => {
  try {
    ;[recipes.value, kinds.value, first.value] = await Promise.all([
      api.recipes(),
      api.steps(),
      api.firstRecipe(),
    ])
  } catch (error) {
    notices.fail(error)
  }
})

const words = (one: SavedRecipe) => recipeWords({ recipe: one.recipe } as unknown as TakeView, kinds.value)

async function remove(one: SavedRecipe) {
  try {
    await api.removeRecipe(one.id)
    recipes.value = recipes.value.filter((other) => other.id !== one.id)
  } catch (error) {
    notices.fail(error)
  }
}

/** In its open form, as the command line takes it. */
function download(one: SavedRecipe) {
  saveFile(new Blob([JSON.stringify(one.recipe, null, 2)], { type: 'application/json' }), `${one.name}.json`)
}
</script>

<template>
  <section aria-label="Library">
    <div class="top">
      <h1>Library</h1>
      <span class="label">models, trained here, nothing fetched</span>
      <span v-if="machine" class="label" data-test="machine"
        >they run on {{ machine.nets }}, {{ machine.cores }} at once</span
      >
      <v-btn data-test="measure" @click="models.measured === undefined ? models.measure() : models.stop()">
        <template v-if="models.measured !== undefined">
          Measuring {{ models.measured + 1 }} of {{ models.all.length }}, stop
        </template>
        <template v-else>{{ unmeasured ? 'Measure speeds' : 'Measure speeds again' }}</template>
      </v-btn>
    </div>
    <article data-test="recipes">
      <div class="name">
        <h2>Recipes</h2>
        <p class="quiet">kept from takes, to begin others with</p>
      </div>
      <div class="list">
        <p v-if="recipes.length === 0" class="label faint">None yet: “save recipe” on the bench keeps one.</p>
        <div v-for="one in recipes" :key="one.id" class="recipe">
          <b>{{ one.name }}</b>
          <span :class="one.unreadable ? 'fault' : 'quiet'">{{ one.unreadable ?? words(one) }}</span>
          <v-btn class="link" variant="plain" @click="download(one)">file</v-btn>
          <v-btn class="link" variant="plain" @click="remove(one)">throw away</v-btn>
        </div>
        <div v-if="first" class="recipe first" data-test="first-recipe">
          <span class="label">New clips begin with</span>
          <WayPicker
            v-model:from="from"
            :model-value="first"
            label="recipe"
            usual
            @update:model-value="begin"
          />
        </div>
      </div>
    </article>
    <article v-for="family in families" :key="family[0]?.id" :data-test="`card-${family[0]?.id}`">
      <div class="name">
        <h2>{{ family[0]?.label }}</h2>
        <p class="quiet">{{ family[0]?.purpose }}</p>
      </div>
      <div v-for="model in family" :key="model.mode" class="mode">
        <div class="figures">
          <span class="label">{{ model.mode }}</span>
          <span class="figure"
            ><template v-if="model.job === 'enlarge'">{{ model.factor }}× · </template
            >{{ model.weights.toLocaleString('en') }} weights<template v-if="model.frames > 1">
              · reads {{ model.frames }} frames</template
            ></span
          >
          <span class="figure treated">{{ modelSpeed(model.pixelsASecond) }}</span>
        </div>
        <dl>
          <template v-for="(text, heading) in model.training" :key="heading">
            <dt class="label">{{ heading }}</dt>
            <dd>{{ text }}</dd>
          </template>
        </dl>
      </div>
    </article>
  </section>
</template>

<style scoped>
.top {
  display: flex;
  align-items: baseline;
  gap: 14px;
  padding: 14px 20px;
}

.list {
  grid-column: 2 / -1;
}

.recipe {
  display: flex;
  gap: 12px;
  align-items: baseline;
  padding: 4px 0;
}

.first {
  align-items: center;
  padding-top: 10px;
}

.top button {
  margin-left: auto;
}

article {
  display: grid;
  grid-template-columns: 150px repeat(3, minmax(0, 1fr));
  gap: 8px 28px;
  padding: 16px 20px 20px;
  border-top: 1px solid var(--rule);
}

/* beside all modes, so that none of a second row comes under it */
.name {
  grid-row: 1 / span 2;
}

.name p {
  margin: 4px 0 0;
}

.figures {
  display: grid;
  gap: 2px;
  padding-bottom: 8px;
}

.figures .label {
  color: var(--ink);
  font-weight: 600;
}

dl {
  margin: 0;
  display: grid;
  grid-template-columns: 76px 1fr;
  gap: 4px 10px;
  font-size: 13px;
}

dd {
  margin: 0;
  color: var(--quiet);
  overflow-wrap: anywhere;
}

@media (width <= 1100px) {
  article {
    grid-template-columns: 1fr;
  }

  .name {
    grid-row: auto;
  }
}
</style>
