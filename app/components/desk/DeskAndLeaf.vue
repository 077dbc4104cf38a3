<script setup lang="ts" generic="Leaf extends string">
/** A screen with a desk of sheets, a leaf with tabs beside it, and a foot. */
defineProps<{ deskLabel: string; leaves: readonly { leaf: Leaf; word: string; count?: number }[] }>();
const open = defineModel<Leaf>({ required: true });
</script>

<template>
  <div class="desk-and-leaf">
    <section class="middle" :aria-label="deskLabel"><slot name="desk" /></section>
    <aside class="leaf">
      <Tabs :value="open" class="tabs" select-on-focus @update:value="open = $event as Leaf">
        <TabList>
          <Tab v-for="{ leaf, word, count } in leaves" :key="leaf" :value="leaf"
            >{{ word }} <i v-if="count">{{ count }}</i></Tab
          >
        </TabList>
        <TabPanels>
          <TabPanel v-for="{ leaf } in leaves" :key="leaf" :value="leaf" class="content"
            ><slot v-if="leaf === open" name="leaf"
          /></TabPanel>
        </TabPanels>
      </Tabs>
    </aside>
    <div class="foot"><slot name="foot" /></div>
  </div>
</template>

<style scoped>
.desk-and-leaf {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 340px;
  height: 100%;
}
.middle {
  position: relative;
  min-height: 0;
}
.leaf {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--sheet);
  border-left: 1px solid var(--hairline);
}
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
.foot {
  grid-column: 1 / -1;
}
/* On a narrow screen the leaf lies below the desk. */
@media screen and (max-width: 900px) {
  .desk-and-leaf {
    grid-template: minmax(0, 3fr) minmax(0, 2fr) auto / minmax(0, 1fr);
  }
  .leaf {
    border-top: 1px solid var(--hairline);
    border-left: 0;
  }
}
</style>
