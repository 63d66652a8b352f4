<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { api, Problem, type TableView } from '@/api/client'
import NameField from '@/components/common/NameField.vue'
import { drawnLine } from '@/view/drawnLine'

/** A file that is kept for recipes: one of those that are here, or a new one. */
const props = defineProps<{ label: string; ending: string; value: string | undefined; problem: string }>()
const emit = defineEmits<{ change: [value: string | undefined] }>()

const files = ref<TableView[]>([])
const fault = ref('')
const input = ref<HTMLInputElement>()

async function load() {
  files.value = await api.tables().catch(() => files.value)
}
onMounted(load)

/** Pictures and tables are kept together, told apart by their endings. */
const isPicture = computed(() => props.ending === 'png')
const PICTURES = /\.(png|jpe?g|gif)$/i
const isOfKind = (file: TableView) => PICTURES.test(file.name) === isPicture.value

const named = computed(() => props.value?.split('#')[0] ?? '')
const items = computed(() => {
  const here = files.value.filter(isOfKind).map((file) => ({ title: file.name, value: file.file }))
  const isHere = here.some((item) => item.value === props.value)
  return props.value && !isHere ? [...here, { title: `${named.value} (not here)`, value: props.value }] : here
})

async function add(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) {
    return
  }
  await keep(file)
}

const writing = ref(false)
/** A line of words becomes a picture like any other. */
async function write(words: string | undefined) {
  writing.value = false
  if (words?.trim()) {
    await keep(await drawnLine(words.trim()))
  }
}

async function keep(file: File) {
  fault.value = ''
  try {
    const added = await api.addTable(file)
    await load()
    emit('change', added.file)
  } catch (error) {
    fault.value = error instanceof Problem ? error.message : 'the file could not be read; choose it again'
  }
}

async function forget() {
  const file = files.value.find((one) => one.file === props.value)
  emit('change', undefined)
  if (file) {
    await api.removeTable(file.hash).catch(() => undefined)
    await load()
  }
}
</script>

<template>
  <div>
    <v-select
      :model-value="value ?? null"
      :items="items"
      :label="label"
      :error-messages="fault || problem"
      placeholder="none yet"
      no-data-text="none yet: add a file"
      @update:model-value="(next: string) => emit('change', next)"
    />
    <div class="row">
      <v-btn class="link" variant="plain" @click="input?.click()">add a .{{ ending }} file</v-btn>
      <v-btn v-if="isPicture && !writing" class="link" variant="plain" @click="writing = true">
        write a line…
      </v-btn>
      <v-btn v-if="value" class="link" variant="plain" @click="emit('change', undefined)">none</v-btn>
      <v-btn
        v-if="value"
        class="link"
        variant="plain"
        title="Recipes that use it say so until it is added again"
        @click="forget"
      >
        forget {{ named }}
      </v-btn>
    </div>
    <NameField v-if="writing" name="" label="A line of words" :longest="80" @done="write" />
    <input
      ref="input"
      class="hidden"
      type="file"
      :accept="`.${ending}`"
      :aria-label="`Add a file: ${label}`"
      @change="add"
    />
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-top: 4px;
}

.hidden {
  display: none;
}
</style>
