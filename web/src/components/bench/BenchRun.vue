<script setup lang="ts">
import { computed } from 'vue'
import type { ClipView, Recipe } from '@/api/client'
import type { CutByHand } from '@/view/cutsByHand'
import type { useBenchProofs } from '@/view/useBenchProofs'
import ProofLane from './ProofLane.vue'
import ProofLine from './ProofLine.vue'
import ProveButton from './ProveButton.vue'
import Run from './Run.vue'

/** Time on the bench, and the proofs that were made of it. */
const props = defineProps<{
  clip: ClipView
  frames: number
  frame: number
  inFrame: number | undefined
  outFrame: number | undefined
  peekOf: (frame: number) => string | undefined
  recipe: Recipe | undefined
  byHand: CutByHand[]
  proving: ReturnType<typeof useBenchProofs>
}>()
const emit = defineEmits<{
  frame: [frame: number]
  seek: [frame: number | undefined]
  span: [inFrame: number | undefined, outFrame: number | undefined]
}>()
// they are made once for a bench, and go with it
const { proofs, proof, proofFigures, chosenProof, proofSeconds, player, marked, isOld, besides } =
  props.proving
const { playing, loop, speed } = player
const present = computed(() => JSON.stringify(props.recipe ?? {}))
</script>

<template>
  <Run
    :frame="frame"
    :clip="clip"
    :frames="frames"
    :seconds="clip.facts?.seconds ?? 0"
    :in-frame="inFrame"
    :out-frame="outFrame"
    :peek-of="peekOf"
    :by-hand="byHand"
    @update:frame="(at) => emit('frame', at)"
    @seek="(at) => emit('seek', at)"
    @span="(from, end) => emit('span', from, end)"
  >
    <template #prove>
      <ProveButton
        :seconds="proofSeconds"
        :marked="marked"
        @prove="proving.prove"
        @seconds="(n) => (proofSeconds = n)"
      />
    </template>
    <template #proof>
      <ProofLine
        :proof="proof"
        :figures="proofFigures"
        :playing="playing"
        :loop="loop"
        :speed="speed"
        :besides="besides"
        :old="isOld"
        @beside="proving.layBeside"
        @again="proving.proveAgain"
        @toggle="proving.playOrPause"
        @stop="(one) => proofs.stop(one.id)"
        @remove="proving.throwAway"
        @close="chosenProof = undefined"
        @loop="loop = !loop"
        @speed="proving.nextSpeed"
        @compare="proving.compareProof"
      />
    </template>
    <template #lane>
      <ProofLane
        :proofs="proofs.proofs.value"
        :frames="frames"
        :chosen="chosenProof"
        :present="present"
        @choose="(one) => (chosenProof = one.id)"
      />
    </template>
  </Run>
</template>
