<script setup lang="ts">
const open = defineModel<boolean>({ required: true })

const keys = [
  ['comma, period', 'one frame back, one on; hold to go on'],
  ['Shift + comma, period', 'ten frames'],
  ['Home, End', 'first and last frame'],
  ['I, O', 'in point here, out point behind this frame'],
  ['Shift + I, O', 'take the in or out point away'],
  ['C', 'crop: drag a rectangle on the picture; Esc or C when done'],
  ['W, E, D', 'wipe, both beside each other, difference'],
  ['S, R', 'source alone, treated alone'],
  ['+', 'show the difference larger'],
  ['F', 'hold to see the source in place of the treated picture'],
  ['0, 1, 2, 4, 8', 'fit, 1:1, 2:1, 4:1, 8:1 of the treated picture'],
  ['wheel', 'zoom at the pointer'],
  ['drag', 'move the picture; at the edge: move the wipe; at its ends: turn it'],
  ['Shift + drag', 'draw a box that becomes a pin'],
  ['arrow keys on the glass', 'move the picture'],
  ['[ and ], { and }', 'move the wipe’s edge, turn it'],
  ['P, Shift + P', 'pin the place under the pointer; let telling places be suggested'],
  ['X, H', 'pixel values, scopes; again: pins'],
  ['M', 'mark what lies beyond black and white'],
  ['Enter, space', 'prove this moment in motion; play and pause'],
  ['T, Shift + T', 'next take, the one before'],
  ['L', 'add a step to the ledger'],
  ['N, V', 'new take like this one; takes that differ in a setting'],
  ['A', 'against: the next take in the source’s place'],
  ['K', 'keep this take'],
  ['G', 'to the proof sheet, and back to the bench'],
  ['arrows, Enter, D, B on the sheet', 'choose a take, open it, discard it, hide the names'],
  ['Ctrl + Z, Ctrl + Shift + Z', 'undo and redo on the recipe'],
  ['?', 'these keys'],
]
</script>

<template>
  <v-dialog v-model="open" aria-label="Keys">
    <v-card class="card">
      <h2>Keys</h2>
      <dl>
        <template v-for="[key, does] in keys" :key="key">
          <dt class="figure">{{ key }}</dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
      <button class="button" type="button" @click="open = false">Close</button>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 20px 24px;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 20px;
  margin: 14px 0 18px;
}

dd {
  margin: 0;
}

.button {
  justify-self: end;
  align-self: end;
}
</style>
