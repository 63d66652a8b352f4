<script setup lang="ts">
import SegmentRow from '@/components/common/SegmentRow.vue'
import { computed, ref, watch } from 'vue'
import { api, type FolderListing, Problem } from '@/api/client'
import { bytes } from '@/view/words'
import RateField from '@/components/common/RateField.vue'

/** Picks footage that lies on the machine already, from the folders its operator allows. */
const props = defineProps<{ roots: string[] }>()
const open = defineModel<boolean>({ required: true })

const root = ref(0)
const path = ref('')
const listing = ref<FolderListing>()
const chosen = ref(new Set<string>())
/** Series of pictures to make clips of, by their titles. */
const series = ref(new Set<string>())
const rate = ref('25')
const count = computed(() => chosen.value.size + series.value.size)
const problem = ref('')
const linking = ref(0)

const crumbs = computed(() => {
  const names = path.value === '' ? [] : path.value.split('/')
  return names.map((name, i) => ({ name, path: names.slice(0, i + 1).join('/') }))
})

async function look(next: string) {
  problem.value = ''
  try {
    listing.value = await api.folder(root.value, next)
    path.value = next
    series.value = new Set()
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : String(error)
  }
}

watch([open, root], ([is]) => {
  if (is) {
    chosen.value = new Set()
    void look('')
  }
})

function toggled(of: Set<string>, one: string): Set<string> {
  const next = new Set(of)
  if (!next.delete(one)) {
    next.add(one)
  }
  return next
}

const told = (error: unknown) => (error instanceof Problem ? error.message : String(error))

async function link() {
  problem.value = ''
  const wrong: string[] = []
  linking.value = count.value
  for (const file of chosen.value) {
    await api.link(root.value, file).catch((error: unknown) => wrong.push(told(error)))
    linking.value--
  }
  for (const { name, ending } of listing.value?.series.filter((one) => series.value.has(one.title)) ?? []) {
    await api
      .gather(root.value, { path: path.value, name, ending, rate: rate.value })
      .catch((error: unknown) => wrong.push(told(error)))
    linking.value--
  }
  chosen.value = new Set()
  series.value = new Set()
  problem.value = wrong.join('; ')
  open.value = wrong.length > 0
}
</script>

<template>
  <v-dialog v-model="open" max-width="640">
    <v-card class="link-dialog" data-test="link-dialog">
      <h2>Link footage in place</h2>
      <p class="quiet">The files stay where they are: they are read, never copied and never written to.</p>
      <SegmentRow
        v-if="props.roots.length > 1"
        label="Allowed folders"
        :options="props.roots.map((name, id) => ({ id, label: name }))"
        :chosen="root"
        @choose="(i) => (root = i)"
      />
      <div class="crumbs figure">
        <v-btn class="link" variant="plain" @click="look('')">{{ props.roots[root] }}</v-btn>
        <template v-for="crumb in crumbs" :key="crumb.path">
          / <v-btn class="link" variant="plain" @click="look(crumb.path)">{{ crumb.name }}</v-btn>
        </template>
      </div>
      <ul class="files">
        <li v-for="one in listing?.series" :key="one.title">
          <v-checkbox
            :model-value="series.has(one.title)"
            @update:model-value="series = toggled(series, one.title)"
          >
            <template #label>
              <b>{{ one.title }}</b> <span class="figure faint">{{ one.count }} pictures, one clip</span>
              <span v-if="one.missing" class="fault">{{ one.missing }} missing</span>
            </template>
          </v-checkbox>
        </li>
        <li v-for="entry in listing?.entries" :key="entry.path">
          <v-btn v-if="entry.folder" class="link" variant="plain" @click="look(entry.path)">
            {{ entry.name }}/
          </v-btn>
          <v-checkbox
            v-else
            :model-value="chosen.has(entry.path)"
            @update:model-value="chosen = toggled(chosen, entry.path)"
          >
            <template #label>
              {{ entry.name }} <span class="figure faint">{{ bytes(entry.bytes) }}</span>
            </template>
          </v-checkbox>
        </li>
        <li v-if="listing && !listing.entries.length" class="quiet">nothing in here</li>
        <li v-if="listing?.more" class="quiet">there is more in here than can be listed</li>
      </ul>
      <RateField v-if="series.size" v-model="rate" />
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
      <div class="buttons">
        <v-btn @click="open = false">Close</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!count || linking > 0" @click="link">
          {{ linking > 0 ? `Linking, ${linking} to go…` : `Link ${count || ''}` }}
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.link-dialog {
  padding: 20px 24px;
}

h2 {
  font: 600 18px var(--label);
  margin: 0 0 4px;
}

.crumbs {
  margin: 12px 0 6px;
}

.files {
  list-style: none;
  margin: 0;
  padding: 8px 10px;
  height: 280px;
  overflow: auto;
  border: 1px solid var(--rule);
  display: grid;
  gap: 4px;
  align-content: start;
}

.buttons {
  display: flex;
  gap: 8px;
  justify-content: end;
  margin-top: 16px;
}
</style>
