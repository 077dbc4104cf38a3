<script setup lang="ts">
import type { Proof } from '~/composables/api';

/** What is particular to this document: its circumstances, and the sections that this deal leaves out. */
defineProps<{ proof: Proof }>();
</script>

<template>
  <section class="document">
    <dl>
      <dt>Template</dt>
      <dd>{{ proof.template.name }}, version {{ proof.template.version }}</dd>
      <dt>Title</dt>
      <dd>{{ proof.title }}</dd>
      <dt>Issue date</dt>
      <dd>{{ dayText(proof.issueDate) }}</dd>
      <dt>Currency</dt>
      <dd>{{ proof.currency ?? 'none' }}</dd>
      <dt>Pages</dt>
      <dd>{{ proof.pages.pages.length }}</dd>
    </dl>
    <template v-if="proof.leftOut.length > 0">
      <h3>Left out for this deal</h3>
      <ul>
        <li v-for="left in proof.leftOut" :key="left.block">printed only when {{ left.note }}</li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.document {
  padding: 12px 14px;
}
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 5px 10px;
}
dt {
  color: var(--ink-quiet);
}
dd {
  overflow-wrap: anywhere;
}
h3 {
  margin: 16px 0 4px;
  font: 500 13px/18px var(--sans);
}
li {
  color: var(--slate);
  font: italic 12.5px/18px var(--serif);
}
</style>
