<script setup lang="ts">
import { useMeStore } from '~/stores/me';

/** Setup: what an administrator looks after, a page each; number series are finance’s too. */
const store = useMeStore();
const route = useRoute();
const PAGES = [
  { to: '/setup/people', word: 'People' },
  { to: '/setup/rules', word: 'Rules' },
  { to: '/setup/connection', word: 'Connection' },
  { to: '/setup/records', word: 'Records' },
  { to: '/setup/copies', word: 'Copies' },
  { to: '/setup/numbers', word: 'Numbers', may: 'number' },
  { to: '/setup/trail', word: 'Audit trail' },
  { to: '/setup/programs', word: 'Programs', may: undefined },
] as const;
const page = computed(() => PAGES.find(({ to }) => route.path === to));
const here = computed(() => page.value?.word ?? 'Setup');
/** Why the page is not for the person. What programs can ask is for everybody to read. */
const barred = computed(() => {
  const may = page.value && 'may' in page.value ? page.value.may : 'administer';
  return may && store.mayNot(may);
});
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
      <NotPermitted v-if="barred" :why-not="barred" />
      <NuxtPage v-else />
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
