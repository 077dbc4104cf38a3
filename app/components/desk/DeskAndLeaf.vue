<script setup lang="ts" generic="Leaf extends string">
/** A screen with a desk of sheets, a leaf with tabs beside it, and a foot. */
defineProps<{ deskLabel: string; leaves: readonly { leaf: Leaf; word: string; count?: number }[] }>();
const open = defineModel<Leaf>({ required: true });
</script>

<template>
  <div class="desk-and-leaf">
    <section class="middle" :aria-label="deskLabel"><slot name="desk" /></section>
    <aside class="leaf">
      <LeafTabs v-model="open" :leaves="leaves"><slot name="leaf" /></LeafTabs>
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
