<script setup lang="ts">
import type { Answer } from '~/composables/api';

/** Documents of a record that somebody has changed and nobody has filed yet: whoever may file them can go on with them. */
const { documents, record } = defineProps<{
  documents: Answer<'GET /records/{type}/{id}/in-hand'>;
  record: { type: string; id: string };
}>();
const wayTo = ({ id, template }: (typeof documents)[number]) => ({
  path: producePath(record.type, record.id, template.id),
  query: { production: id },
});
</script>

<template>
  <section class="in-hand" aria-label="In hand">
    <h2>{{ documents.length === 1 ? '1 document in hand' : `${documents.length} documents in hand` }}</h2>
    <ul>
      <li v-for="document in documents" :key="document.id">
        <NuxtLink :to="wayTo(document)">{{ document.template.name }}</NuxtLink>
        <span class="quiet"
          >{{ document.changes === 1 ? '1 change' : `${document.changes} changes` }}, the last by {{ document.by }},
          {{ momentText(document.at) }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.in-hand {
  margin-bottom: 16px;
  padding: 10px 14px;
  border-left: 2px solid var(--brass);
  background: var(--brass-50);
}
h2 {
  margin-bottom: 4px;
  font: 600 14px/18px var(--serif);
}
li {
  display: grid;
  padding: 3px 0;
}
.quiet {
  font-size: 12px;
}
</style>
