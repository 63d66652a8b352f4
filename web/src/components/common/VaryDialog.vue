<script setup lang="ts">
import { computed, reactive, ref, watch } from 'vue'
import type { Recipe, StepDescription } from '@/api/client'
import { MOST_VARIED, present, type Variable, values, variables, varied } from '@/view/vary'

/** Makes takes that differ in one setting, or in two. */
const props = defineProps<{ recipe: Recipe; kinds: StepDescription[]; takeName: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ make: [takes: { name: string; recipe: Recipe }[]] }>()

interface Row {
  which: number
  chosen: string[]
  text: string
}
const rows = reactive<[Row, Row]>([
  { which: -1, chosen: [], text: '' },
  { which: -1, chosen: [], text: '' },
])
const second = ref(false)

const all = computed(() => variables(props.recipe, props.kinds))
const items = computed(() => all.value.map((one, value) => ({ title: one.label, value })))

function begin(row: Row, variable: Variable | undefined) {
  if (!variable) {
    return
  }
  const now = present(props.recipe, variable)
  // the value it has now is the take there is already
  row.chosen = variable.param.options.map((option) => option.id).filter((id) => id !== now)
  row.text = now
}

watch(open, (is) => {
  if (is) {
    const model = all.value.findIndex((one) => one.param.key === 'model')
    rows[0].which = model >= 0 ? model : 0
    rows[1].which = -1
    second.value = false
  }
})
watch(
  () => rows[0].which,
  (which) => begin(rows[0], all.value[which]),
)
watch(
  () => rows[1].which,
  (which) => begin(rows[1], all.value[which]),
)

const read = (row: Row) => {
  const variable = all.value[row.which]
  if (!variable) {
    return { variable, values: [], wrong: '' }
  }
  const text = variable.param.kind === 'choice' ? row.chosen.join(',') : row.text
  return { variable, ...values(variable.param, text) }
}
const first = computed(() => read(rows[0]))
const other = computed(() => (second.value ? read(rows[1]) : undefined))
const made = computed(() =>
  first.value.variable && first.value.values.length > 0
    ? varied(
        props.recipe,
        first.value.variable,
        first.value.values,
        other.value?.variable,
        other.value?.values,
      )
    : [],
)
const wrong = computed(() => {
  if (first.value.wrong || other.value?.wrong) {
    return 'a value is not allowed'
  }
  return made.value.length > MOST_VARIED
    ? `${made.value.length} takes at once are too many; ${MOST_VARIED} are the most`
    : ''
})

function make() {
  emit('make', made.value)
  open.value = false
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Vary a setting" width="560">
    <v-card class="card">
      <h2>Vary take {{ takeName }}</h2>
      <p class="quiet">
        Each value becomes a take of its own, to be looked at side by side on the proof sheet.
      </p>
      <template v-for="(row, n) in rows" :key="n">
        <div v-if="n === 0 || second" class="row" :data-test="`vary-${n}`">
          <v-select v-model="row.which" :items="items" :label="n === 0 ? 'Setting' : 'And'" />
          <template v-if="all[row.which]">
            <fieldset v-if="all[row.which]!.param.kind === 'choice'" class="options">
              <legend class="label">Values</legend>
              <v-checkbox
                v-for="option in all[row.which]!.param.options"
                :key="option.id"
                v-model="row.chosen"
                :value="option.id"
                :label="option.label"
              />
            </fieldset>
            <v-text-field
              v-else
              v-model="row.text"
              label="Values, with commas between"
              :suffix="all[row.which]!.param.unit"
              :error-messages="(n === 0 ? first : other)?.wrong"
            />
          </template>
        </div>
      </template>
      <v-btn v-if="!second" class="link" variant="plain" @click="second = true">+ a second setting</v-btn>
      <div class="end">
        <span class="label" :class="{ fault: wrong }" role="status">
          {{ wrong || `${made.length} ${made.length === 1 ? 'take' : 'takes'}` }}
        </span>
        <v-btn @click="open = false">Cancel</v-btn>
        <v-btn color="primary" variant="flat" :disabled="made.length === 0 || wrong !== ''" @click="make">
          Make and compare
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 20px 24px;
  display: grid;
  gap: 12px;
}

.row {
  display: grid;
  gap: 8px;
}

.options {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  padding: 6px 12px 10px;
  border: 1px solid var(--rule);
}

.link {
  justify-self: start;
}

.end {
  display: flex;
  gap: 10px;
  align-items: center;
}

.end .label {
  flex: 1;
}
</style>
