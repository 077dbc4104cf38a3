<script setup lang="ts">
/** From and until which day: a filter of a list, kept in its address. */
const { list } = defineProps<{ list: ReturnType<typeof useListQuery> }>();
const DAYS = [
  ['from', 'From'],
  ['until', 'until'],
] as const;

function choose(name: string, day: string | undefined): void {
  if (day !== list.read(name)) list.change({ [name]: day });
}
</script>

<template>
  <span v-for="[name, word] in DAYS" :key="name" class="day"
    ><span aria-hidden="true">{{ word }}</span>
    <LazyPickDay :value="list.read(name)" :label="word" @choose="choose(name, $event)"
  /></span>
</template>

<style scoped>
.day {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  font-size: 12px;
  font-weight: 500;
}
</style>
