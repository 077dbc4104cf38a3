<script setup lang="ts">
/** Where a clause is used: places of this draft, and other templates as they are published. */
const { clause } = defineProps<{ clause: string }>();
const draft = useDraftStore();
const figures = useFiguresStore();
const here = computed(() => figures.uses.clauses[clause] ?? []);
const published = useLoaded(() => api('GET /clauses/{id}/uses', { parameters: { id: clause } }));
watch(() => clause, published.reload, { immediate: true });
const others = computed(() => (published.value.value ?? []).filter(({ id }) => id !== draft.template?.id));
</script>

<template>
  <div class="clause-uses">
    <template v-if="here.length > 1">
      <p class="quiet">{{ here.length }} times in this template</p>
      <WhereUsed :uses="here" />
    </template>
    <p v-else class="quiet">Once in this template</p>
    <ul v-if="others.length > 0">
      <li v-for="{ id, name, places } in others" :key="id">
        <NuxtLink :to="`/templates/${id}`">{{ name }}</NuxtLink>
        <span v-if="places > 1" class="quiet"> {{ places }} times</span>
      </li>
    </ul>
    <p v-else-if="published.value.value" class="quiet">In no other template</p>
    <p v-else-if="published.problem.value" class="quiet">Other templates could not be looked through.</p>
  </div>
</template>

<style scoped>
.clause-uses {
  display: grid;
  gap: 2px;
}
</style>
