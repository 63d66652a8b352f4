<script setup lang="ts">
import { computed } from 'vue'
import { type Upload, useUploads } from '@/stores/uploads'
import { bytes, wait } from '@/view/words'

const props = defineProps<{ upload: Upload }>()
const uploads = useUploads()

const share = computed(() => (props.upload.bytes > 0 ? props.upload.sent / props.upload.bytes : 0))
const line = computed(() => {
  const { sent, bytes: all, startedAt } = props.upload
  if (startedAt === 0) {
    return `waiting, ${bytes(all)}`
  }
  if (sent >= all) {
    return 'arrived, being looked at'
  }
  const seconds = (Date.now() - startedAt) / 1000
  const perSecond = sent / Math.max(0.2, seconds)
  return `${bytes(sent)} of ${bytes(all)} · ${bytes(perSecond)}/s · ${wait((all - sent) / Math.max(1, perSecond))} left`
})
</script>

<template>
  <div class="row" role="listitem">
    <div>
      <div class="name">{{ upload.name }}</div>
      <div v-if="upload.problem" class="fault" role="alert">{{ upload.problem }}</div>
      <div v-else class="figure quiet">{{ line }}</div>
    </div>
    <v-progress-linear
      v-if="!upload.problem"
      :model-value="100 * share"
      :indeterminate="share >= 1"
      color="secondary"
      height="4"
      :aria-label="`${upload.name} on its way`"
    />
    <span v-else></span>
    <v-btn class="link" variant="plain" @click="upload.problem ? uploads.dismiss(upload.key) : upload.stop()">
      {{ upload.problem ? 'Put aside' : 'Stop' }}
    </v-btn>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(330px, 1fr) 300px auto;
  gap: 18px;
  align-items: center;
  padding: 12px 20px;
  border-top: 1px solid var(--rule);
}

.name {
  font-weight: 500;
  overflow-wrap: anywhere;
}
</style>
