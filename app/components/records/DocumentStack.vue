<script setup lang="ts">
import type { DocumentRow } from '~/composables/api';

/** The documents of a record as a stack of sheets, the newest on top. */
defineProps<{ documents: readonly DocumentRow[] }>();
const SAID = {
  preparing: 'Being prepared',
  rendered: 'Being filed',
  filed: 'Filed',
  failed: 'Failed',
};
</script>

<template>
  <ol class="stack">
    <li v-for="document in documents" :key="document.id">
      <NuxtLink :to="`/register/${document.id}`" class="sheet" :class="[document.state, document.validity]">
        <span class="number">{{ document.number }}</span>
        <span class="amount">{{ sumText(document.amount, document.currency) }}</span>
        <span class="quiet state"
          >{{ document.kind }} · <template v-if="document.validity !== 'current'">{{ document.validity }} · </template
          >{{ SAID[document.state] }} {{ momentText(document.filedAt ?? document.createdAt) }}</span
        >
        <span v-if="document.reason" class="reason">{{ document.reason }}</span>
      </NuxtLink>
    </li>
  </ol>
</template>

<style scoped>
.stack {
  display: grid;
  gap: 8px;
}
.sheet {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 8px;
  padding: 11px 14px;
  background: var(--sheet);
  border-radius: 1px;
  box-shadow: var(--sheet-shadow);
  color: var(--ink);
  text-decoration: none;
}
.sheet:hover .number {
  text-decoration: underline;
}
.number {
  font: 600 14px/18px var(--serif);
}
.state,
.reason {
  grid-column: 1 / 3;
  font-size: 12px;
}
.state::first-letter {
  text-transform: capitalize;
}
.superseded {
  background: var(--stone-50);
}
.superseded .number,
.superseded .amount {
  color: var(--ink-quiet);
  font-weight: 400;
}
.void .number,
.failed .number {
  color: var(--brick);
  text-decoration: line-through;
}
.reason {
  color: var(--brick);
}
</style>
