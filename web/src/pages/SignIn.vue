<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, Problem } from '@/api/client'

const emit = defineEmits<{ 'signed-in': [] }>()
const route = useRoute()
const passwordSet = ref(false)
const password = ref('')
const problem = ref('')

onMounted(async () => {
  passwordSet.value = (await api.session().catch(() => ({ passwordSet: false }))).passwordSet
})

async function signIn() {
  problem.value = ''
  try {
    await api.signIn(password.value)
    emit('signed-in')
  } catch (error) {
    problem.value = error instanceof Problem ? error.message : 'signing in failed; load this page again'
  }
}
</script>

<template>
  <section>
    <h1>Awlsmith</h1>
    <p v-if="'used' in route.query">
      This link was used before, or belongs to an earlier start. Each start prints a fresh one.
    </p>
    <p v-else-if="'out' in route.query">
      You are signed out here. Sign in again, and you are where you were; changes that were not saved yet are
      kept.
      <template v-if="!passwordSet"
        >Each start of Awlsmith prints a link that signs this browser in.</template
      >
    </p>
    <p v-else>Open the link that was printed when Awlsmith was started. It signs this browser in, once.</p>
    <form v-if="passwordSet" @submit.prevent="signIn">
      <v-text-field
        v-model="password"
        label="Password"
        type="password"
        autocomplete="current-password"
        :error-messages="problem"
      />
      <v-btn color="primary" variant="flat" type="submit">Sign in</v-btn>
    </form>
  </section>
</template>

<style scoped>
section {
  max-width: 420px;
  margin: 22vh auto 0;
  padding: 0 20px;
}

p {
  margin: 12px 0 20px;
  color: var(--quiet);
}

form {
  display: grid;
  gap: 12px;
}
</style>
