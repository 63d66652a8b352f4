<script setup lang="ts">
import { ref } from 'vue'
import type { PinView, StepDescription, TakeView } from '@/api/client'
import NameField from '@/components/common/NameField.vue'
import type { SheetRow } from '@/stores/useSheet'
import { harmLines, recipeWords } from '@/view/sheetWords'
import SheetFigures from './SheetFigures.vue'
import KeyHint from '@/components/common/KeyHint.vue'

/** What stands beside a take's cells: its name and figures, unless they are hidden, and what can be done with it. */
defineProps<{
  take: TakeView
  /** As it is told: while names are hidden, a number. */
  name: string
  blind: boolean
  current: boolean
  row: SheetRow | undefined
  kinds: StepDescription[]
  pins: PinView[]
}>()
const emit = defineEmits<{
  keep: []
  bench: []
  send: []
  discard: []
  rename: [name: string]
}>()

const naming = ref(false)

function rename(name: string | undefined) {
  naming.value = false
  if (name !== undefined) {
    emit('rename', name)
  }
}
</script>

<template>
  <div class="side">
    <span class="title">
      <NameField v-if="naming" class="name" :name="take.name" label="Name of the take" @done="rename" />
      <b v-else>{{ name }}</b>
      <v-btn
        class="link"
        variant="plain"
        :class="{ treated: take.verdict === 'KEPT' && !blind }"
        :aria-pressed="take.verdict === 'KEPT' && !blind"
        @click.stop="emit('keep')"
      >
        {{ blind ? 'choose' : take.verdict === 'KEPT' ? 'kept' : 'keep' }}
        <KeyHint v-if="current" of="k" />
      </v-btn>
    </span>
    <template v-if="!blind">
      <span v-if="take.unreadable" class="label fault">{{ take.unreadable }}</span>
      <span v-else class="label">{{ recipeWords(take, kinds) }}</span>
      <SheetFigures :row="row" :is-source="false" />
      <span v-for="line in harmLines(row?.figures, pins)" :key="line" class="label fault">{{ line }}</span>
      <span class="acts">
        <v-btn class="link" variant="plain" @click.stop="emit('bench')">bench</v-btn>
        <v-btn v-if="!take.unreadable" class="link" variant="plain" @click.stop="emit('send')"
          >send out…</v-btn
        >
        <v-btn class="link" variant="plain" @click.stop="naming = true">name</v-btn>
        <v-btn class="link" variant="plain" @click.stop="emit('discard')">discard</v-btn>
      </span>
    </template>
  </div>
</template>

<style scoped>
.title {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}

b {
  font: 600 15px var(--label);
  overflow-wrap: anywhere;
}

.name {
  font: 600 15px var(--label);
}

.acts {
  display: flex;
  gap: 12px;
  margin-top: auto;
  padding-top: 4px;
}
</style>
