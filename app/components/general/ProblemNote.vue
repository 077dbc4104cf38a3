<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** What went wrong, what was kept, and the way on: trying again, or another place where there is nothing at this one. */
const { problem, way = { label: 'To the start', to: '/' } } = defineProps<{
  problem: ApiProblem;
  way?: { label: string; to: string };
}>();
defineEmits<{ again: [] }>();
const isNothing = computed(() => problem.status === 404);
</script>

<template>
  <Message severity="error" class="problem">
    <h2>{{ problem.title }}</h2>
    <p>{{ problem.detail }}</p>
    <Button
      v-if="isNothing"
      :label="way.label"
      severity="secondary"
      outlined
      size="small"
      @click="navigateTo(way.to)"
    />
    <Button v-else label="Try again" severity="secondary" outlined size="small" @click="$emit('again')" />
  </Message>
</template>

<style scoped>
.problem {
  align-self: start;
  width: 460px;
  max-width: 100%;
  height: fit-content;
  margin: 64px auto;
  padding: 12px 14px;
  background: var(--sheet);
}
h2 {
  font: 600 15px/20px var(--sans);
}
p {
  margin: 4px 0 14px;
  color: var(--ink-quiet);
}
</style>
