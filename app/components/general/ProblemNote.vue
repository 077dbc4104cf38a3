<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** What went wrong, what was kept, and the way on. */
defineProps<{ problem: ApiProblem }>();
defineEmits<{ again: [] }>();
</script>

<template>
  <section class="problem" role="alert">
    <h2>{{ problem.title }}</h2>
    <p>{{ problem.detail }}</p>
    <Button label="Try again" severity="secondary" outlined size="small" @click="$emit('again')" />
  </section>
</template>

<style scoped>
.problem {
  align-self: start;
  width: 460px;
  max-width: 100%;
  height: fit-content;
  margin: 64px auto;
  padding: 20px 24px;
  background: var(--sheet);
  border-left: 3px solid var(--brick);
}
h2 {
  font: 600 15px/20px var(--sans);
}
p {
  margin: 4px 0 14px;
  color: var(--ink-quiet);
}
</style>
