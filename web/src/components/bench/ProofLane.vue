<script setup lang="ts">
import type { ProofView } from '@/api/client'
import { computed } from 'vue'
import { isOpen, lanes } from '@/stores/useProofs'
import { proofNames } from '@/view/proofNames'
import { wait } from '@/view/words'

/** The proofs of a clip on its time axis: those of the settings at hand in amber, older ones grey. */
const props = defineProps<{
  proofs: ProofView[]
  frames: number
  chosen: string | undefined
  /** The recipe at hand, as one text. */
  present: string
}>()
const emit = defineEmits<{ choose: [proof: ProofView] }>()

const MOST_ROWS = 4
const ROW = 10
const rows = computed(() => lanes(props.proofs, MOST_ROWS))
const height = computed(() => `${ROW * (1 + Math.max(0, ...rows.value)) + 2}px`)

const recipeOf = (proof: ProofView) => JSON.stringify(proof.recipe)
const done = (proof: ProofView) => proof.framesDone / Math.max(1, proof.frames)

function told(proof: ProofView): string {
  const { left, right } = proofNames(proof)
  const whose = left === undefined ? `take ${right}` : `${left} and ${right}`
  const what = `${whose}, ${(proof.frames / proof.rate).toFixed(1)} s, ${proof.width}×${proof.height}`
  switch (proof.state) {
    case 'WAITING':
      return `${what}, waits for its turn`
    case 'RUNNING':
      return `${what}, ${proof.framesDone} of ${proof.frames} frames${
        proof.secondsLeft === undefined ? '' : `, ${wait(proof.secondsLeft)} left`
      }`
    case 'FAILED':
      return `${what}: ${proof.problem}`
    case 'STOPPED':
      return `${what}, stopped after ${proof.framesDone} frames`
    case 'DONE':
      return what
  }
}
</script>

<template>
  <div v-if="proofs.length > 0" class="lane" :style="{ height }" role="group" aria-label="Proofs">
    <v-btn
      v-for="(proof, i) in proofs"
      :key="proof.id"
      variant="plain"
      class="bare proof"
      :class="{
        on: proof.id === chosen,
        old: recipeOf(proof) !== present,
        failed: proof.state === 'FAILED',
        open: isOpen(proof),
      }"
      data-test="proof"
      :data-state="proof.state"
      :aria-pressed="proof.id === chosen"
      :aria-label="`Proof of ${told(proof)}`"
      :title="told(proof)"
      :style="{
        top: `${2 + ROW * (rows[i] ?? 0)}px`,
        left: `${(100 * proof.fromFrame) / frames}%`,
        width: `${(100 * (proof.endFrame - proof.fromFrame)) / frames}%`,
      }"
      @click="emit('choose', proof)"
    >
      <i :style="{ width: `${100 * done(proof)}%` }"></i>
    </v-btn>
  </div>
</template>

<style scoped>
.lane {
  position: relative;
}

.proof {
  position: absolute;
  height: 8px;
  min-width: 6px;
  padding: 0;
  border: 0;
  background: #3b2f1a;
  cursor: pointer;
}

.proof i {
  display: block;
  height: 100%;
  background: var(--treated);
}

.old {
  background: #333;
}

.old i {
  background: #7a7a7a;
}

.failed {
  background: var(--fault);
}

.on {
  outline: 1px solid var(--ink);
  outline-offset: 1px;
  z-index: 1;
}
</style>
