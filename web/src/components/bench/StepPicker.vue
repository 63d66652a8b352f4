<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { ConditionFacts, Recipe, RecipeStep, StepDescription } from '@/api/client'
import { type PickerRow, pickerGroups } from '@/view/picker'

/** Every kind of step, over the page: typing finds, arrows choose, Enter adds. */
const props = defineProps<{
  steps: StepDescription[]
  condition: ConditionFacts | undefined
  recipe: Recipe
}>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ add: [kind: string, settings: RecipeStep['settings']] }>()

const typed = ref('')
const at = ref(0)
const list = ref<HTMLElement>()
const groups = computed(() => pickerGroups(props.steps, props.condition, props.recipe, typed.value))
const rows = computed(() => groups.value.flatMap((group) => group.rows))

watch(open, (is) => {
  if (is) {
    typed.value = ''
    at.value = 0
  }
})
watch(typed, () => (at.value = 0))

function add(row: PickerRow | undefined) {
  if (row) {
    open.value = false
    emit('add', row.kind.id, row.settings)
  }
}

async function move(by: number) {
  const count = rows.value.length
  at.value = count === 0 ? 0 : (at.value + by + count) % count
  await nextTick()
  list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' })
}

function onKey(event: KeyboardEvent) {
  const row = typed.value === '' ? rows.value.find((one) => one.key === event.key) : undefined
  const acts: Record<string, () => void> = {
    ArrowDown: () => void move(1),
    ArrowUp: () => void move(-1),
    Enter: () => add(rows.value[at.value]),
  }
  const act = row ? () => add(row) : acts[event.key]
  if (act) {
    event.preventDefault()
    act()
  }
}

const idOf = (row: PickerRow | undefined) => (row ? `step-${rows.value.indexOf(row)}` : undefined)
</script>

<template>
  <v-dialog v-model="open" aria-label="Add a step" max-width="720" scrollable>
    <v-card class="picker">
      <!-- the dialog is opened to type in it -->
      <input
        v-model="typed"
        class="typed"
        type="text"
        autofocus
        role="combobox"
        aria-label="Find a step"
        aria-expanded="true"
        aria-controls="step-kinds"
        :aria-activedescendant="idOf(rows[at])"
        autocomplete="off"
        spellcheck="false"
        @keydown="onKey"
      />
      <p class="label hint">type to find, arrows to choose, Enter to add; Esc closes</p>
      <div id="step-kinds" ref="list" class="list" role="listbox" aria-label="Kinds of steps">
        <div v-for="group in groups" :key="group.title" class="group" role="group" :aria-label="group.title">
          <div class="title" :class="{ treated: group.title.startsWith('suggested') }" aria-hidden="true">
            {{ group.title }}
          </div>
          <div
            v-for="row in group.rows"
            :id="idOf(row)"
            :key="row.kind.id"
            class="kind"
            role="option"
            :aria-selected="rows[at] === row"
            @click="add(row)"
          >
            <b>{{ row.kind.name }}</b>
            <span class="words">{{ row.words }}</span>
            <kbd v-if="row.key && typed === ''">{{ row.key }}</kbd>
          </div>
        </div>
        <p v-if="rows.length === 0" class="label">no step has these words; type others</p>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.picker {
  padding: 16px 20px 12px;
  height: min(640px, 86vh);
  display: flex;
  flex-direction: column;
}

.typed {
  border: 0;
  border-bottom: 1px solid var(--ink);
  background: none;
  color: var(--ink);
  font: 16px/1.4 var(--label);
  padding: 4px 0;
}

/* the field has the focus as long as this is open: its line says so */
.typed:focus {
  outline: none;
  box-shadow: 0 1px 0 var(--ink);
}

.hint {
  margin: 6px 0 8px;
  color: var(--faint);
}

.list {
  overflow: hidden auto;
  min-height: 0;
  margin-left: -8px;
  padding-left: 8px;
}

.group {
  border-top: 1px solid var(--rule);
  padding: 8px 0;
}

.title {
  font: 600 13px/1.4 var(--label);
  color: var(--quiet);
  margin-bottom: 2px;
}

.title.treated {
  color: var(--treated);
}

.kind {
  display: grid;
  grid-template-columns: 150px 1fr auto;
  gap: 12px;
  align-items: baseline;
  padding: 3px 8px 3px 0;
  font: 14px/1.35 var(--label);
  color: var(--quiet);
  cursor: pointer;
}

.kind b {
  color: var(--ink);
  font-weight: 600;
}

.kind[aria-selected='true'],
.kind:hover {
  background: var(--raised);
  box-shadow: -8px 0 0 var(--raised);
}

.kind[aria-selected='true'] {
  box-shadow: -8px 0 0 var(--treated);
}
</style>
