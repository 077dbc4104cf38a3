<script setup lang="ts">
/** An address that leads nowhere: what it may have been, and the ways on. */
const route = useRoute();
</script>

<template>
  <div>
    <WhereAmI title="No such page" />
    <EmptyNote title="There is no page at this address"
      ><span class="mono address">{{ route.path }}</span> was moved, or is not written quite like this. Find what you
      are looking for with <kbd>Ctrl</kbd> <kbd>K</kbd>, by its name or number.
      <template #action
        ><Button label="To the start" severity="secondary" outlined size="small" @click="navigateTo('/')"
      /></template>
    </EmptyNote>
  </div>
</template>

<style scoped>
.address {
  overflow-wrap: anywhere;
}
</style>
