<script setup lang="ts">
import { computed } from 'vue'
import type { ProofView } from '@/api/client'
import type { Did } from '@/view/figures'
import { isOpen } from '@/stores/useProofs'
import { besideNames, named, proofNames } from '@/view/proofNames'
import { wait } from '@/view/words'

/** Playing the proof that is chosen, in a line under the time axis that is always there, so that nothing moves. */
const props = defineProps<{
  proof: ProofView | undefined
  /** What was measured of it. */
  figures?: Did | undefined
  playing: boolean
  loop: boolean
  speed: number
  /** Other proofs of the same place and moment. */
  besides: ProofView[]
  /** Whether the proof that is chosen shows settings that are no longer those at hand. */
  old: boolean
}>()
const emit = defineEmits<{
  toggle: []
  stop: [proof: ProofView]
  remove: [proof: ProofView]
  compare: [proof: ProofView, look: 'wipe' | 'pair']
  beside: [proof: ProofView, other: ProofView]
  again: [proof: ProofView]
  close: []
  loop: []
  speed: []
}>()
const names = computed(() => props.proof && proofNames(props.proof))
/** Of one that can be laid beside, so that two of one take are told apart. */
function otherName(other: ProofView): string {
  const mine = props.proof
  return mine ? besideNames(named(other), named(mine))[0] : other.takeName
}

const making = computed(() => {
  const made = props.proof?.comparison
  return made !== undefined && !made.ready && made.problem === undefined
})

function saveAsFile(proof: ProofView) {
  const link = document.createElement('a')
  link.href = `/api/proofs/${proof.id}/video`
  link.download = `proof of ${proof.takeName}.mp4`
  link.click()
}
</script>

<template>
  <div class="proofs">
    <template v-if="proof">
      <v-btn
        variant="plain"
        class="bare play"
        :aria-label="playing ? 'Pause' : 'Play the proof'"
        title="Play and pause (space)"
        :disabled="proof.framesDone === 0"
        @click="emit('toggle')"
      >
        {{ playing ? '❚❚' : '▶' }}
      </v-btn>
      <v-btn
        class="link"
        variant="plain"
        :aria-pressed="loop"
        title="Begin anew at the end"
        @click="emit('loop')"
      >
        {{ loop ? 'loop' : 'once' }}
      </v-btn>
      <v-btn class="link figure" variant="plain" title="Slower or at its own speed" @click="emit('speed')">
        {{ speed === 1 ? '1×' : speed === 0.5 ? '½×' : '¼×' }}
      </v-btn>
      <span class="figure treated" role="status" data-test="proof-state">
        <template v-if="proof.state === 'RUNNING'">
          {{ proof.framesDone }}/{{ proof.frames }}
          <template v-if="proof.framesASecond">· {{ proof.framesASecond.toFixed(1) }} fps</template>
          <template v-if="proof.secondsLeft !== undefined">· {{ wait(proof.secondsLeft) }} left</template>
        </template>
        <template v-else-if="proof.state === 'WAITING'">waits</template>
        <template v-else-if="proof.state === 'FAILED'"
          ><span class="fault">{{ proof.problem }}</span></template
        >
        <template v-else>
          <template v-if="names?.left !== undefined">{{ names.left }} | </template>{{ names?.right
          }}<template v-if="figures?.text">: {{ figures.text }}</template>
          <span v-if="figures?.worse" class="fault">{{ figures.worse }}</span>
        </template>
      </span>
      <v-btn v-if="isOpen(proof)" class="link" variant="plain" @click="emit('stop', proof)">stop</v-btn>
      <template v-else>
        <template v-if="proof.framesDone > 0">
          <template v-if="making"
            ><span class="figure treated" role="status">
              {{ proof.comparison?.look }} {{ proof.comparison?.framesDone }}/{{ proof.framesDone }}
            </span>
            <v-btn class="link" variant="plain" @click="emit('stop', proof)">stop</v-btn></template
          >
          <v-menu v-else>
            <template #activator="{ props: opens }">
              <v-btn
                v-bind="opens"
                class="link"
                variant="plain"
                aria-label="Save it as a file"
                title="A moving picture to show to others"
              >
                save…
              </v-btn>
            </template>
            <v-list density="compact">
              <v-list-item title="wipe between both" @click="emit('compare', proof, 'wipe')" />
              <v-list-item title="both beside each other" @click="emit('compare', proof, 'pair')" />
              <v-list-item title="as it is, source above" @click="saveAsFile(proof)" />
            </v-list>
          </v-menu>
        </template>
        <v-menu v-if="besides.length > 0">
          <template #activator="{ props: opens }">
            <v-btn
              v-bind="opens"
              class="link"
              variant="plain"
              aria-label="Beside another proof"
              title="Plays another take of the same place in the source’s stead"
            >
              beside…
            </v-btn>
          </template>
          <v-list density="compact">
            <v-list-item
              v-for="one in besides"
              :key="one.id"
              :title="otherName(one)"
              @click="emit('beside', proof, one)"
            />
          </v-list>
        </v-menu>
        <v-btn
          v-if="old && !proof.against"
          class="link"
          variant="plain"
          title="The same moment and place with the settings at hand"
          @click="emit('again', proof)"
        >
          prove again
        </v-btn>
        <v-btn class="link" variant="plain" title="Throw the proof away" @click="emit('remove', proof)">
          throw away
        </v-btn>
      </template>
      <v-btn class="link" variant="plain" aria-label="Leave the proof" @click="emit('close')">×</v-btn>
    </template>
  </div>
</template>

<style scoped>
.proofs {
  display: flex;
  height: 24px;
  overflow: hidden;
  align-items: center;
  gap: 10px;
  white-space: nowrap;
}

.play {
  width: 26px;
  height: 22px;
  padding: 0;
  border: 0;
  background: none;
  color: var(--ink);
  font-size: 12px;
  cursor: pointer;
}
</style>
