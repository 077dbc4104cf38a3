<script setup lang="ts" generic="Leaf extends string">
/** Leaves behind tabs, one open. */
defineProps<{ leaves: readonly { leaf: Leaf; word: string; count?: number }[] }>();
const open = defineModel<Leaf>({ required: true });
</script>

<template>
  <Tabs :value="open" class="tabs" select-on-focus @update:value="open = $event as Leaf">
    <TabList>
      <Tab v-for="{ leaf, word, count } in leaves" :key="leaf" :value="leaf"
        >{{ word }} <i v-if="count">{{ count }}</i></Tab
      >
    </TabList>
    <TabPanels>
      <TabPanel v-for="{ leaf } in leaves" :key="leaf" :value="leaf"><slot v-if="leaf === open" /></TabPanel>
    </TabPanels>
  </Tabs>
</template>

<style scoped>
.tabs {
  flex: 1;
  min-height: 0;
}
.tabs :deep(.p-tablist) {
  flex: none;
  padding: 0 14px;
  border-bottom: 1px solid var(--hairline);
}
.tabs :deep(.p-tablist-tab-list) {
  background: none;
  border: 0;
}
.tabs :deep(.p-tabpanels) {
  flex: 1;
  min-height: 0;
  padding: 0;
  overflow: auto;
  background: none;
}
.tabs :deep(.p-tab-active) {
  color: var(--ink);
  box-shadow: inset 0 -2px var(--ink);
}
.tabs i {
  color: var(--brick);
  font: 600 11px/16px var(--sans);
}
</style>
