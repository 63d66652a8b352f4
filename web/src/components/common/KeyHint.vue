<script setup lang="ts">
import { computed } from 'vue'
import { useKeys } from '@/stores/keys'

/** The key that does what stands before it, as it is exchanged in this browser; nothing while single keys are off. */
const props = defineProps<{ of: string }>()
const own = useKeys()
const key = computed(() => own.hint(props.of))
</script>

<template>
  <kbd v-if="key">{{ key }}</kbd>
</template>
