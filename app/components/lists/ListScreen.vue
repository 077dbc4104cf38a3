<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** A screen that is one list: a strip of views and filters above, the table filling the height, a foot if need be. */
defineProps<{ problem?: ApiProblem }>();
defineEmits<{ again: [] }>();
</script>

<template>
  <div class="list-screen">
    <div class="strip"><slot name="strip" /></div>
    <ProblemNote v-if="problem" :problem="problem" @again="$emit('again')" />
    <div v-else class="table"><slot /></div>
    <slot name="foot" />
  </div>
</template>

<style scoped>
.list-screen {
  display: flex;
  flex-direction: column;
  gap: 10px;
  height: 100%;
  padding-top: 14px;
}
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 0 16px;
}
.strip > :deep(:first-child) {
  margin-right: auto;
}
.table {
  flex: 1;
  min-height: 0;
  margin: 0 16px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-bottom: 0;
}
.table :deep(td.quiet) {
  color: var(--ink-quiet);
}
</style>
