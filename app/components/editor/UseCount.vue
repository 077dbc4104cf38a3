<script setup lang="ts">
/** How often something stands on the page; a click goes from place to place. */
const { count } = defineProps<{ count: number }>();
defineEmits<{ go: [] }>();
</script>

<template>
  <button
    v-if="count > 0"
    v-tooltip.right="'Show where it is used'"
    type="button"
    :aria-label="`On the page ${count === 1 ? 'once' : `${count} times`}: show where`"
    @click="$emit('go')"
  >
    <span>{{ count }}</span>
  </button>
  <span v-else class="none"></span>
</template>

<style scoped>
button {
  flex: none;
  width: 30px;
  padding: 2px 0;
  background: none;
  border: 0;
  cursor: pointer;
}
span {
  display: inline-block;
  min-width: 15px;
  padding: 0 4px;
  border-radius: 8px;
  background: var(--verdigris-100);
  color: var(--ink);
  font-size: 10.5px;
  line-height: 15px;
}
button:hover span {
  background: var(--verdigris);
  color: var(--sheet);
}
.none {
  flex: none;
  width: 30px;
  padding: 0;
  background: none;
}
</style>
