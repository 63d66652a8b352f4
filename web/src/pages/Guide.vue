<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { intro, jobs } from '../../../docs/guide.md'

/** Seven jobs from the shelf to the file, one at a time. */
const route = useRoute()
const chosen = computed(() => {
  const number = Number(route.query.job ?? 1) - 1
  return jobs[number] ?? jobs[0]!
})
</script>

<template>
  <section aria-label="Guide" class="guide">
    <nav aria-label="Jobs">
      <h1>Seven jobs</h1>
      <router-link
        v-for="(job, n) in jobs"
        :key="job.title"
        class="job"
        :to="{ query: { job: n + 1 } }"
        :aria-current="job === chosen ? 'page' : undefined"
        :data-test="`job-${n + 1}`"
      >
        {{ job.title }}
      </router-link>
      <router-link class="job shelf" to="/shelf">To the Shelf</router-link>
    </nav>
    <article>
      <h2>{{ chosen.title }}</h2>
      <!-- eslint-disable vue/no-v-html -- our own text, made when the screens were built -->
      <div class="text" v-html="chosen.html" />
      <div class="text quiet" v-html="intro" />
      <!-- eslint-enable vue/no-v-html -->
    </article>
  </section>
</template>

<style scoped>
.guide {
  display: grid;
  grid-template-columns: 240px minmax(0, 760px);
  gap: 32px;
  padding: 14px 20px 40px;
}

nav {
  display: grid;
  align-content: start;
  gap: 2px;
}

h1 {
  margin-bottom: 12px;
}

.job {
  padding: 6px 10px;
  color: var(--ink);
  text-decoration: none;
  border-left: 3px solid transparent;
}

.job:hover {
  background: var(--table);
}

.job[aria-current='page'] {
  border-left-color: var(--ink);
  font-weight: 500;
}

.shelf {
  margin-top: 14px;
  color: var(--quiet);
}

h2 {
  margin-bottom: 10px;
}

.text :deep(ol) {
  padding-left: 22px;
  display: grid;
  gap: 8px;
}

.text :deep(p) {
  margin: 0 0 12px;
}

.text :deep(img) {
  display: block;
  width: 100%;
  margin-bottom: 6px;
}

.text :deep(code) {
  font-family: var(--mono, 'Spline Sans Mono Variable', monospace);
  font-size: 0.92em;
}

.quiet {
  margin-top: 26px;
}
</style>
