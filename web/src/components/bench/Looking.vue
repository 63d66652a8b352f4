<script setup lang="ts">
import { computed } from 'vue'
import type { Waiting } from '@/api/client'

/** A step that has to see the whole clip first: how that stands, and how to begin or stop it. */
const props = defineProps<{ waiting: Waiting }>()
const emit = defineEmits<{ ask: []; stop: [id: string] }>()

const look = computed(() => props.waiting.look)
const busy = computed(() => look.value?.state === 'WAITING' || look.value?.state === 'RUNNING')
const share = computed(() => (look.value ? look.value.framesDone / Math.max(1, look.value.frames) : 0))
</script>

<template>
  <div class="looking" data-test="looking" role="status">
    <template v-if="busy && look">
      <v-progress-linear
        :model-value="100 * share"
        color="primary"
        bg-color="#888"
        height="3"
        :aria-label="waiting.doing"
      />
      <span class="figure">
        {{ look.state === 'WAITING' ? 'waits its turn' : `${waiting.doing}, ${Math.floor(100 * share)} %` }}
      </span>
      <v-btn class="link" variant="plain" @click="emit('stop', look.id)">Stop</v-btn>
    </template>
    <template v-else>
      <span v-if="look?.problem" class="fault">{{ look.problem }}</span>
      <span v-else>
        Passes the picture on until it has seen the whole clip; proofs and what is sent out see to that by
        themselves.
      </span>
      <v-btn @click="emit('ask')">Look through the clip</v-btn>
    </template>
  </div>
</template>

<style scoped>
.looking {
  padding: 2px 16px 6px 44px;
  color: var(--quiet);
  font-size: 12px;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}

.fault {
  color: var(--fault);
}
</style>
