<script setup lang="ts">
import { ref } from 'vue'
import { isSingle, useKeys } from '@/stores/keys'

/** What keys do; single ones can be exchanged here, and switched off. */
const open = defineModel<boolean>({ required: true })
const own = useKeys()
/** The usual key that waits for another to be pressed. */
const asking = ref<string>()

const keys: [keys: string[], does: string][] = [
  [[',', '.'], 'one frame back, one on; hold to go on'],
  [['<', '>'], 'ten frames'],
  [['Home', 'End'], 'first and last frame'],
  [['i', 'o'], 'in point here, out point behind this frame'],
  [['I', 'O'], 'take the in or out point away'],
  [['c'], 'crop: draw a rectangle on the picture; Esc or C when done'],
  [['w', 'e', 'd'], 'wipe, both beside each other, difference'],
  [['s', 'r'], 'source alone, treated alone'],
  [['+'], 'show the difference larger'],
  [['f'], 'hold to see the source in place of the treated picture'],
  [['0', '1', '2', '4', '8'], 'fit, 1:1, 2:1, 4:1, 8:1 of the treated picture'],
  [['[', ']', '{', '}'], 'move the wipe’s edge, turn it'],
  [['p', 'P'], 'pin the place under the pointer; let telling places be suggested'],
  [['x', 'h'], 'pixel values, scopes; again: pins'],
  [['m'], 'mark what lies beyond black and white'],
  [['b'], 'show dark pictures brighter, for looking only'],
  [['Enter', 'space'], 'prove this moment in motion; play and pause'],
  [['j'], 'lay the newest other proof of this place beside'],
  [['t', 'T'], 'next take, the one before'],
  [['l'], 'add a step to the ledger'],
  [['n', 'v'], 'new take like this one; takes that differ in a setting'],
  [['a'], 'against: the next take in the source’s place'],
  [['k'], 'keep this take'],
  [['g'], 'to the proof sheet, and back to the bench'],
  [['?'], 'these keys'],
]
const always: [key: string, does: string][] = [
  ['wheel', 'zoom at the pointer'],
  ['drag', 'move the picture; at the edge: move the wipe; at its ends: turn it'],
  ['Shift + drag', 'draw a box that becomes a pin'],
  ['arrow keys on the glass', 'move the picture'],
  ['arrows, Enter, D, B on the sheet', 'choose a take, open it, discard it, hide the names'],
  ['Ctrl + Z, Ctrl + Shift + Z', 'undo and redo on the recipe'],
  ['Esc', 'close what is open'],
]

function shown(key: string): string {
  return key.length === 1 ? own.now(key) : key
}

function take(event: KeyboardEvent) {
  if (asking.value === undefined) {
    return
  }
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Escape' || own.change(asking.value, event.key)) {
    asking.value = undefined
  }
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Keys" max-width="640" scrollable @keydown.capture="take">
    <v-card class="card">
      <div class="top">
        <h2>Keys</h2>
        <v-switch v-model="own.single" label="single keys" density="compact" hide-details color="primary" />
        <v-btn @click="own.reset">As they were</v-btn>
        <v-btn @click="open = false">Close</v-btn>
      </div>
      <p class="label" role="status">
        {{
          asking === undefined
            ? 'Click a key to exchange it.'
            : `Press the key that ${shown(asking)} shall become; Esc leaves it.`
        }}
      </p>
      <dl>
        <template v-for="[some, does] in keys" :key="does">
          <dt>
            <template v-for="key in some" :key="key">
              <v-btn
                v-if="isSingle(key)"
                variant="plain"
                class="bare key"
                :class="{ asked: asking === key, off: !own.single }"
                :aria-label="`${shown(key)}: exchange it`"
                @click="asking = key"
              >
                {{ shown(key) }}
              </v-btn>
              <kbd v-else>{{ key }}</kbd>
            </template>
          </dt>
          <dd>{{ does }}</dd>
        </template>
        <template v-for="[key, does] in always" :key="key">
          <dt class="figure">{{ key }}</dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 16px 24px 20px;
  overflow: auto;
}

.top {
  display: flex;
  gap: 14px;
  align-items: center;
}

h2 {
  margin-right: auto;
}

p {
  margin: 6px 0 0;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 5px 20px;
  margin: 10px 0 0;
}

dt {
  display: flex;
  gap: 4px;
}

dd {
  margin: 0;
}

kbd {
  margin: 0;
}

.key {
  min-width: 20px;
  padding: 0 5px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: none;
  color: var(--ink);
  font: 11px/1.5 var(--mono);
  cursor: pointer;
}

.key.asked {
  border-color: var(--treated);
  color: var(--treated);
}

.key.off {
  color: var(--faint);
  text-decoration: line-through;
}
</style>
