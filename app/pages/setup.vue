<script setup lang="ts">
import { useMeStore } from '~/stores/me';

/** Setup: what an administrator looks after, a page each. */
const store = useMeStore();
const route = useRoute();
const barred = computed(() => store.mayNot('administer'));
const PAGES = [
  { to: '/setup/people', word: 'People' },
  { to: '/setup/rules', word: 'Rules' },
  { to: '/setup/connection', word: 'Connection' },
  { to: '/setup/records', word: 'Records' },
  { to: '/setup/copies', word: 'Copies' },
  { to: '/setup/trail', word: 'Audit trail' },
  { to: '/setup/programs', word: 'Programs' },
];
const here = computed(() => PAGES.find(({ to }) => route.path === to)?.word ?? 'Setup');
/** What programs can ask is for everybody to read. */
const isOpen = computed(() => !barred.value || route.path === '/setup/programs');
</script>

<template>
  <div class="setup">
    <WhereAmI :title="`Setup: ${here}`" :here="here" :way="[{ label: 'Setup', to: '/setup' }]" />
    <nav class="tabs" aria-label="Setup">
      <NuxtLink v-for="{ to, word } in PAGES" :key="to" :to="to" :class="{ on: route.path === to }">{{
        word
      }}</NuxtLink>
    </nav>
    <div class="page">
      <NuxtPage v-if="isOpen" />
      <NotPermitted v-else :why-not="barred!" />
    </div>
  </div>
</template>

<style scoped>
.setup {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.tabs {
  display: flex;
  gap: 20px;
  padding: 0 24px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.tabs a {
  padding: 11px 0 9px;
  color: var(--ink-quiet);
  font-weight: 500;
  text-decoration: none;
}
.tabs a:hover {
  color: var(--ink);
}
.tabs .on {
  color: var(--ink);
  box-shadow: inset 0 -2px var(--ink);
}
.page {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
</style>
