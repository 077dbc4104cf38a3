<script setup lang="ts">
/** What a screen says when there is nothing on it: what to do first. */
defineProps<{ title: string }>();
</script>

<template>
  <section class="empty">
    <h2>{{ title }}</h2>
    <p><slot /></p>
    <slot name="action" />
  </section>
</template>

<style scoped>
.empty {
  padding: 56px 24px;
  text-align: center;
}
h2 {
  font: 600 16px/22px var(--serif);
}
p {
  max-width: 420px;
  margin: 4px auto 14px;
  color: var(--ink-quiet);
}
</style>
