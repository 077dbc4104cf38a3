<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** In a form: why it was refused, beside what was typed. */
defineProps<{ problem: ApiProblem | undefined }>();
</script>

<template>
  <p v-if="problem" class="refused" role="alert">
    <b>{{ problem.title }}.</b> {{ problem.detail }}
  </p>
</template>

<style scoped>
.refused {
  padding: 8px 11px;
  background: var(--brick-50);
  border-left: 3px solid var(--brick);
}
b {
  font-weight: 600;
}
</style>
