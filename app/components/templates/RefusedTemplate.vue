<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** Why a template file was not put in: every fault with its place. Nothing of the file was kept. */
const { problem } = defineProps<{ problem: ApiProblem }>();
defineEmits<{ close: [] }>();
const faults = computed(() => problem.faults ?? []);
</script>

<template>
  <section class="refused" role="alert">
    <header>
      <h2>{{ problem.title }}</h2>
      <Button label="Close" severity="secondary" text size="small" @click="$emit('close')" />
    </header>
    <p class="quiet">Nothing was changed. Mend the file and put it in again.</p>
    <ol v-if="faults.length > 0">
      <li v-for="fault in faults" :key="fault.path + fault.sentence">
        {{ fault.sentence }} <code v-if="fault.path">{{ fault.path }}</code>
      </li>
    </ol>
    <p v-else>{{ problem.detail }}</p>
  </section>
</template>

<style scoped>
.refused {
  max-width: 760px;
  margin-bottom: 18px;
  padding: 12px 16px 14px;
  background: var(--sheet);
  border-left: 3px solid var(--brick);
}
header {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
h2 {
  font: 600 14px/20px var(--sans);
}
ol {
  margin: 8px 0 0 18px;
  padding: 0;
  list-style: decimal;
}
li {
  padding: 2px 0;
}
code {
  color: var(--ink-quiet);
  font: 11px/16px var(--mono);
}
</style>
