<script setup lang="ts">
/** From and until which day: a filter of a list, kept in its address. */
const { list } = defineProps<{ list: ReturnType<typeof useListQuery> }>();
const DAYS = [
  ['from', 'From'],
  ['until', 'until'],
] as const;
const isAtRest = useAtRest();

function choose(name: string, day: string | undefined): void {
  if (day !== list.read(name)) list.change({ [name]: day });
}
</script>

<template>
  <span v-for="[name, word] in DAYS" :key="name" class="day"
    ><span aria-hidden="true">{{ word }}</span>
    <span v-if="!isAtRest" class="p-inputtext until-drawn" />
    <LazyPickDay v-else :value="list.read(name)" :label="word" @choose="choose(name, $event)"
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
.day :deep(.p-inputtext),
.day :deep(.p-datepicker-dropdown) {
  height: 26px;
  font-size: 12px;
}
.until-drawn {
  width: 128px;
}
</style>
