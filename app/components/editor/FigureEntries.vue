<script setup lang="ts">
/** Figures of the document that can be brought onto the sheet. By themselves: their values change with every key. */
const { figures } = defineProps<{
  figures: readonly { name: string; label: string }[];
}>();
const store = useFiguresStore();
const valueOf = (name: string) => store.view?.figures[name]?.values[0];
const entries = computed(() =>
  figures.map(({ name, label }) => {
    const value = valueOf(name);
    return { name, label, text: value?.failed ? 'error' : value?.text };
  }),
);
</script>

<template>
  <ul>
    <li v-for="{ name, label, text } in entries" :key="name">
      <BroughtIn
        :field="{ formula: name, label }"
        :about="name"
        :text="text"
        is-figure
        :uses="store.uses.figures[name] ?? []"
      />
    </li>
  </ul>
</template>
