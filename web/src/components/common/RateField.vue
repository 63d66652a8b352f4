<script setup lang="ts">
/** Frames a second for pictures that say nothing of it. */
const rate = defineModel<string>({ required: true })
const rates = [
  { value: '16', label: '16' },
  { value: '18', label: '18' },
  { value: '24000/1001', label: '23.976' },
  { value: '24', label: '24' },
  { value: '25', label: '25' },
  { value: '30000/1001', label: '29.97' },
  { value: '30', label: '30' },
  { value: '50', label: '50' },
  { value: '60000/1001', label: '59.94' },
  { value: '60', label: '60' },
]
</script>

<template>
  <label class="label">
    Frames a second
    <select v-model="rate" class="figure">
      <option v-for="one in rates" :key="one.value" :value="one.value">{{ one.label }}</option>
    </select>
  </label>
</template>

<style scoped>
select {
  margin-left: 8px;
  padding: 4px 8px;
  border: 1px solid var(--rule);
  border-radius: 2px;
  background: var(--raised);
  color: var(--ink);
}
</style>
