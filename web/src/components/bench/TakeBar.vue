<script setup lang="ts">
import { computed, ref } from 'vue'
import type { TakeView } from '@/api/client'
import NameField from '@/components/common/NameField.vue'
import { useKeys } from '@/stores/keys'

/** Which take is on the bench, and what can be done with takes. */
const props = defineProps<{ take: TakeView; takes: TakeView[]; discarded: TakeView[]; saved: boolean }>()
const emit = defineEmits<{
  open: [take: TakeView]
  copy: []
  vary: []
  start: []
  saveRecipe: [name: string]
  undo: []
  redo: []
  label: [take: TakeView, change: { name?: string; verdict?: TakeView['verdict'] }]
  remove: [take: TakeView]
}>()
const own = useKeys()
const listed = ref(false)
const naming = ref(false)
const saving = ref(false)

const place = computed(() => (props.takes.length > 1 ? ` of ${props.takes.length}` : ''))

function named(name: string | undefined) {
  naming.value = false
  if (name !== undefined) {
    emit('label', props.take, { name })
  }
}

function recipeNamed(name: string | undefined) {
  saving.value = false
  if (name !== undefined) {
    emit('saveRecipe', name)
  }
}

function choose(take: TakeView) {
  listed.value = false
  if (take.verdict === 'DISCARDED') {
    emit('label', take, { verdict: 'OPEN' })
  }
  emit('open', take)
}

/** A discarded take that is on the bench is left for another one. */
function discard(take: TakeView) {
  emit('label', take, { verdict: 'DISCARDED' })
  const other = props.takes.find((one) => one.id !== take.id)
  if (take.id === props.take.id && other) {
    emit('open', other)
  }
}
</script>

<template>
  <div class="takes">
    <div class="line">
      <NameField v-if="naming" class="now" :name="take.name" label="Name of the take" @done="named" />
      <v-btn
        v-else
        variant="plain"
        class="bare now"
        data-test="takes"
        :aria-expanded="listed"
        :title="own.withKey('Other takes', 't')"
        @click="listed = !listed"
      >
        Take {{ take.name }}<span class="quiet">{{ place }}</span> <span class="faint">▾</span>
      </v-btn>
      <v-btn :title="own.withKey('A new take that begins like this one', 'n')" @click="emit('copy')">
        Copy
      </v-btn>
      <v-btn title="Takes that differ in one setting" @click="emit('vary')"> Vary… </v-btn>
    </div>
    <div class="line small">
      <v-btn class="link" variant="plain" :disabled="take.undos === 0 && saved" @click="emit('undo')">
        undo
      </v-btn>
      <v-btn class="link" variant="plain" :disabled="take.redos === 0" @click="emit('redo')">redo</v-btn>
      <v-btn class="link" variant="plain" @click="naming = true">name</v-btn>
      <v-btn
        class="link"
        variant="plain"
        :class="{ treated: take.verdict === 'KEPT' }"
        :aria-pressed="take.verdict === 'KEPT'"
        @click="emit('label', take, { verdict: take.verdict === 'KEPT' ? 'OPEN' : 'KEPT' })"
      >
        {{ take.verdict === 'KEPT' ? 'kept' : 'keep' }}
      </v-btn>
      <v-btn class="link" variant="plain" title="Keep this recipe for other clips" @click="saving = !saving">
        save recipe
      </v-btn>
      <span class="label state" role="status">{{ saved ? 'saved' : 'saving…' }}</span>
    </div>
    <NameField v-if="saving" :name="take.name" label="Name of the recipe" explicit @done="recipeNamed" />
    <ul v-if="listed" class="list">
      <li v-for="one in takes" :key="one.id" :class="{ on: one.id === take.id }">
        <v-btn variant="plain" class="bare one" @click="choose(one)">
          {{ one.name }} <span v-if="one.verdict === 'KEPT'" class="treated">kept</span>
        </v-btn>
        <v-btn
          v-if="takes.length > 1"
          class="link"
          variant="plain"
          :aria-label="`Discard take ${one.name}`"
          @click="discard(one)"
        >
          discard
        </v-btn>
      </li>
      <li>
        <v-btn
          variant="plain"
          class="bare one treated"
          @click="
            () => {
              listed = false
              emit('start')
            }
          "
        >
          new take from…
        </v-btn>
      </li>
      <li v-for="one in discarded" :key="one.id" class="faint">
        <v-btn variant="plain" class="bare one" title="Take it back" @click="choose(one)">
          {{ one.name }} discarded
        </v-btn>
        <v-btn
          class="link"
          variant="plain"
          :aria-label="`Remove take ${one.name} for good`"
          @click="emit('remove', one)"
        >
          remove
        </v-btn>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.takes {
  position: relative;
  padding: 12px 16px 6px;
}

.line {
  display: flex;
  align-items: center;
  gap: 6px;
}

.small {
  gap: 11px;
  margin-top: 6px;
  min-height: 20px;
}

.small .link {
  font-size: 13px;
}

.small .link:disabled {
  color: var(--faint);
  cursor: default;
}

.state {
  margin-left: auto;
}

.now {
  flex: 1;
  min-width: 0;
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  font: 600 16px var(--label);
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  cursor: pointer;
}

input.now {
  background: var(--raised);
  padding: 2px 4px;
}

.list {
  position: absolute;
  z-index: 4;
  left: 12px;
  right: 12px;
  top: 46px;
  max-height: 60vh;
  overflow: auto;
  margin: 0;
  padding: 4px 0;
  list-style: none;
  background: var(--raised);
  border: 1px solid var(--rule);
}

.list li {
  display: flex;
  align-items: baseline;
  padding: 0 10px;
}

.list li.on {
  background: var(--table);
}

.one {
  flex: 1;
  min-width: 0;
  padding: 5px 0;
  border: 0;
  background: none;
  color: inherit;
  font: 14px var(--label);
  text-align: left;
  overflow-wrap: anywhere;
  cursor: pointer;
}
</style>
