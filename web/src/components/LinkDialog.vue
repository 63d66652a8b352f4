<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, type FolderListing, Problem } from '@/api/client'
import { bytes } from '@/view/words'

/** Picks footage that lies on the machine already, from the folders its operator allows. */
const props = defineProps<{ roots: string[] }>()
const open = defineModel<boolean>({ required: true })

const root = ref(0)
const path = ref('')
const listing = ref<FolderListing>()
const chosen = ref(new Set<string>())
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

function toggle(file: string) {
  const next = new Set(chosen.value)
  if (!next.delete(file)) {
    next.add(file)
  }
  chosen.value = next
}

async function link() {
  problem.value = ''
  const wrong: string[] = []
  linking.value = chosen.value.size
  for (const file of chosen.value) {
    await api
      .link(root.value, file)
      .catch((error: unknown) => wrong.push(error instanceof Problem ? error.message : String(error)))
    linking.value--
  }
  chosen.value = new Set()
  problem.value = wrong.join('; ')
  open.value = wrong.length > 0
}
</script>

<template>
  <v-dialog v-model="open" max-width="640">
    <v-card class="link-dialog" data-test="link-dialog">
      <h2>Link footage in place</h2>
      <p class="quiet">The files stay where they are: they are read, never copied and never written to.</p>
      <div v-if="props.roots.length > 1" class="segments" role="group" aria-label="Allowed folders">
        <button
          v-for="(name, i) in props.roots"
          :key="name"
          type="button"
          :aria-pressed="root === i"
          @click="root = i"
        >
          {{ name }}
        </button>
      </div>
      <div class="crumbs figure">
        <button class="link" type="button" @click="look('')">{{ props.roots[root] }}</button>
        <template v-for="crumb in crumbs" :key="crumb.path">
          / <button class="link" type="button" @click="look(crumb.path)">{{ crumb.name }}</button>
        </template>
      </div>
      <ul class="files">
        <li v-for="entry in listing?.entries" :key="entry.path">
          <button v-if="entry.folder" class="link" type="button" @click="look(entry.path)">
            {{ entry.name }}/
          </button>
          <label v-else>
            <input type="checkbox" :checked="chosen.has(entry.path)" @change="toggle(entry.path)" />
            {{ entry.name }} <span class="figure faint">{{ bytes(entry.bytes) }}</span>
          </label>
        </li>
        <li v-if="listing && !listing.entries.length" class="quiet">nothing in here</li>
        <li v-if="listing?.more" class="quiet">there is more in here than can be listed</li>
      </ul>
      <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
      <div class="buttons">
        <button class="button" type="button" @click="open = false">Close</button>
        <button class="button go" type="button" :disabled="!chosen.size || linking > 0" @click="link">
          {{ linking > 0 ? `Linking, ${linking} to go…` : `Link ${chosen.size || ''}` }}
        </button>
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
