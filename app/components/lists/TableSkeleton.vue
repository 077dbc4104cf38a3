<script setup lang="ts">
/** Stands for a table while it is being read: a heading and rows as high as they will be. */
defineProps<{ rowHeight?: number }>();
</script>

<template>
  <div class="skeleton" role="status" aria-label="Loading" :style="{ '--row-height': `${rowHeight ?? 40}px` }">
    <i v-for="row in 12" :key="row"><b /><b /><b /><b /></i>
  </div>
</template>

<style scoped>
.skeleton {
  height: 100%;
  padding: 0 10px;
  overflow: hidden;
}
i {
  display: grid;
  grid-template-columns: 3fr 2fr 1fr 1fr;
  gap: 40px;
  align-items: center;
  height: var(--row-height);
  border-bottom: 1px solid var(--hairline);
}
i:first-child {
  height: 36px;
}
b {
  height: 10px;
  background: var(--desk);
}
</style>
