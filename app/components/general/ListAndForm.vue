<script setup lang="ts">
/** What is set up, in a list, and beside it the form of the one that is open. */
defineProps<{
  title: string;
  /** Of the form; without one it is shut. */
  formTitle: string | undefined;
}>();
defineEmits<{ save: [] }>();
</script>

<template>
  <div class="list-and-form">
    <section>
      <h2>{{ title }}</h2>
      <slot />
    </section>
    <form v-if="formTitle" @submit.prevent="$emit('save')">
      <h2>{{ formTitle }}</h2>
      <slot name="form" />
    </form>
  </div>
</template>

<style scoped>
.list-and-form {
  display: grid;
  grid-template-columns: minmax(460px, 640px) 400px;
  gap: 24px;
  align-items: start;
  padding: 20px 24px 40px;
}
form,
section {
  display: grid;
  gap: 14px;
  padding: 18px 22px 22px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
h2 {
  font: 600 14px/18px var(--serif);
}
section :deep(li) {
  display: flex;
  gap: 4px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--hairline-soft);
}
section :deep(.label) {
  display: grid;
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
section :deep(b) {
  font-weight: 500;
}
section :deep(.add) {
  justify-self: start;
}
form :deep(footer) {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
</style>
