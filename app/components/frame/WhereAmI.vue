<script setup lang="ts">
/** On top: where you are, after the way that led here; also the window's title. */
const {
  title,
  here,
  way = [],
} = defineProps<{
  title: string;
  /** On top, where it is not the title. */
  here?: string;
  /** The places above this one, the outermost first. */
  way?: readonly { label: string; to?: string }[];
}>();
useHead({ title: () => `${title} – Lumbix` });
const mounted = ref(false);
onMounted(() => (mounted.value = true));
const last = computed(() => here ?? title);
const steps = computed<{ label: string; to?: string }[]>(() => [...way, { label: last.value }]);
</script>

<template>
  <Teleport v-if="mounted" to="#where">
    <h1 v-if="way.length === 0">{{ last }}</h1>
    <Breadcrumb v-else :model="steps" aria-label="Where you are">
      <template #item="{ item }">
        <NuxtLink v-if="item.to" :to="String(item.to)">{{ item.label }}</NuxtLink>
        <h1 v-else-if="item.label === last">{{ item.label }}</h1>
        <span v-else>{{ item.label }}</span>
      </template>
      <template #separator>›</template>
    </Breadcrumb>
  </Teleport>
</template>

<style scoped>
h1 {
  overflow: hidden;
  color: var(--ink);
  font: 500 15px/20px var(--sans);
  text-overflow: ellipsis;
  white-space: nowrap;
}
a,
span {
  color: var(--ink-quiet);
  font-size: 15px;
  text-decoration: none;
  white-space: nowrap;
}
a:hover {
  text-decoration: underline;
}
:deep(.p-breadcrumb-list) {
  flex-wrap: nowrap;
  min-width: 0;
}
:deep(.p-breadcrumb-item) {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
:deep(.p-breadcrumb-item:last-child) {
  flex-shrink: 0;
  max-width: 100%;
}
</style>
