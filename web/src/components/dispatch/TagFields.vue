<script setup lang="ts">
import { computed, ref } from 'vue'

/** What a file says of itself: its title, who made it. What is not said here is as the source says. */
type Tags = Record<string, string>
const tags = defineModel<Tags | undefined>({ required: true })

const FIELDS = [
  { key: 'title', label: 'Title', hint: 'such as {clip}, take {take}' },
  { key: 'artist', label: 'By', hint: '' },
  { key: 'date', label: 'Date', hint: 'such as 1987, or 1987-06-21' },
  { key: 'copyright', label: 'Rights', hint: '' },
  { key: 'description', label: 'Description', hint: '' },
  { key: 'reel_name', label: 'Reel', hint: 'by which a cut finds it again; in MOV alone' },
] as const

const isOpen = ref(Object.keys(tags.value ?? {}).length > 0)
const said = computed(() => FIELDS.filter((one) => tags.value?.[one.key]).length)

function set(key: string, words: string | undefined) {
  const next = { ...tags.value }
  if (words === undefined) {
    delete next[key]
  } else {
    next[key] = words
  }
  tags.value = Object.keys(next).length > 0 ? next : undefined
}
const isLeftOut = (key: string) => tags.value?.[key] === ''
</script>

<template>
  <div class="tags">
    <v-btn class="link" variant="plain" :aria-expanded="isOpen" data-test="tags" @click="isOpen = !isOpen">
      {{ isOpen ? 'Hide title and words' : 'Title and words…' }}
    </v-btn>
    <span v-if="!isOpen && said" class="quiet">{{ said }} of its own</span>
    <template v-if="isOpen">
      <p class="quiet">
        What the file says of itself. An empty line says what the source says; words in braces, as {clip},
        stand for what they do in names.
      </p>
      <label v-for="one in FIELDS" :key="one.key" class="line">
        <span class="label">{{ one.label }}</span>
        <input
          :value="tags?.[one.key] ?? ''"
          :disabled="isLeftOut(one.key)"
          :placeholder="isLeftOut(one.key) ? 'left out' : one.hint"
          :aria-label="one.label"
          :data-test="`tag-${one.key}`"
          maxlength="500"
          @input="set(one.key, ($event.target as HTMLInputElement).value || undefined)"
        />
        <v-btn
          class="link"
          variant="plain"
          :title="isLeftOut(one.key) ? 'Say what the source says' : 'Say nothing, whatever the source says'"
          @click.prevent="set(one.key, isLeftOut(one.key) ? undefined : '')"
        >
          {{ isLeftOut(one.key) ? 'As the source' : 'Leave out' }}
        </v-btn>
      </label>
    </template>
  </div>
</template>

<style scoped>
.tags {
  display: grid;
  gap: 6px;
  justify-items: start;
}

p {
  margin: 0;
}

.line {
  display: grid;
  grid-template-columns: 72px 1fr auto;
  gap: 12px;
  align-items: baseline;
  justify-self: stretch;
}

input {
  padding: 3px 8px;
  border: 1px solid var(--rule);
  background: none;
  color: var(--ink);
}

input::placeholder {
  color: var(--faint);
}
</style>
