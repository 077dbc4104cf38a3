<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** In a form: why it was refused, beside what was typed. */
defineProps<{ problem: ApiProblem | undefined }>();
</script>

<template>
  <Message v-if="problem" severity="error"
    ><b>{{ problem.title }}.</b> {{ problem.detail }}</Message
  >
</template>

<style scoped>
b {
  font-weight: 600;
}
</style>
