<script setup lang="ts">
/** Frames a second for pictures that say nothing of it. */
const rate = defineModel<string>({ required: true })
const rates = [
  { value: '16', title: '16' },
  { value: '18', title: '18' },
  { value: '24000/1001', title: '23.976' },
  { value: '24', title: '24' },
  { value: '25', title: '25' },
  { value: '30000/1001', title: '29.97' },
  { value: '30', title: '30' },
  { value: '50', title: '50' },
  { value: '60000/1001', title: '59.94' },
  { value: '60', title: '60' },
]
</script>

<template>
  <v-select v-model="rate" class="rate" label="Frames a second" :items="rates" />
</template>

<style scoped>
.rate {
  max-width: 190px;
  margin-top: 10px;
}
</style>
