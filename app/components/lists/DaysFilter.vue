<script setup lang="ts">
/** From and until which day: a filter of a list, kept in its address. */
const { list } = defineProps<{ list: ReturnType<typeof useListQuery> }>();
const DAYS = [
  ['from', 'From'],
  ['until', 'until'],
] as const;
</script>

<template>
  <label v-for="[name, word] in DAYS" :key="name" class="day"
    >{{ word }}
    <input
      type="date"
      :value="list.read(name)"
      @change="list.change({ [name]: ($event.target as HTMLInputElement).value || undefined })"
  /></label>
</template>

<style scoped>
.day {
  font-size: 12px;
  font-weight: 500;
}
.day input {
  height: 26px;
  padding: 0 6px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  font-weight: 400;
}
</style>
