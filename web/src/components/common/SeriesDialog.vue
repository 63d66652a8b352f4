<script setup lang="ts">
import { computed, ref } from 'vue'
import { useUploads } from '@/stores/uploads'
import RateField from './RateField.vue'

/** Asks what numbered pictures are: the frames of a clip, or pictures by themselves. */
const uploads = useUploads()
const rate = ref('25')
const open = computed({
  get: () => uploads.offered.length > 0,
  set: (is) => {
    if (!is) {
      uploads.offered = []
    }
  },
})

function gaps(missing: number[]): string {
  const some = missing.slice(0, 6).join(', ')
  return missing.length === 0 ? '' : `${missing.length} missing: ${some}${missing.length > 6 ? ', …' : ''}`
}
</script>

<template>
  <v-dialog v-model="open" max-width="560">
    <v-card class="card" data-test="series">
      <h2>Numbered pictures</h2>
      <p class="quiet">
        They look like the frames of {{ uploads.offered.length === 1 ? 'a clip' : 'clips' }}.
      </p>
      <ul>
        <li v-for="one in uploads.offered" :key="one.title">
          <b>{{ one.title }}</b> <span class="figure quiet">{{ one.files.length }} pictures</span>
          <span v-if="one.missing.length" class="fault">{{ gaps(one.missing) }}</span>
        </li>
      </ul>
      <RateField v-model="rate" />
      <div class="buttons">
        <v-btn @click="open = false">Cancel</v-btn>
        <v-btn @click="uploads.settle(undefined)">Each by itself</v-btn>
        <v-btn color="primary" variant="flat" @click="uploads.settle(rate)">
          {{ uploads.offered.length === 1 ? 'As one clip' : 'As clips' }}
        </v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.card {
  padding: 20px 24px;
}

h2 {
  font: 600 18px var(--label);
  margin: 0 0 4px;
}

ul {
  list-style: none;
  padding: 0;
  margin: 12px 0;
  max-height: 40vh;
  overflow: auto;
}

li {
  display: flex;
  gap: 12px;
  align-items: baseline;
  padding: 3px 0;
}

.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 16px;
}
</style>
