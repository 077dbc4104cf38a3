<script setup lang="ts">
import type { NuxtError } from '#app';

/** A page that went wrong in the browser: what was saved is saved, and the page can be loaded anew. */
defineProps<{ error: NuxtError }>();
useHead({ title: 'Something went wrong – Lumbix' });
const reload = () => window.location.reload();
const leave = () => clearError({ redirect: '/' });
</script>

<template>
  <main class="error">
    <h1>This page went wrong</h1>
    <p>
      What you saved is safe. Load the page again; if it goes wrong once more, tell whoever looks after Lumbix what you
      did.
    </p>
    <p class="mono">{{ error.message }}</p>
    <p class="ways">
      <Button label="Load the page again" @click="reload" />
      <Button label="To the start" severity="secondary" outlined @click="leave" />
    </p>
  </main>
</template>

<style scoped>
.error {
  max-width: 460px;
  margin: 96px auto;
  padding: 0 20px;
}
h1 {
  font: 600 20px/26px var(--serif);
}
p {
  margin-top: 8px;
}
.mono {
  color: var(--ink-quiet);
  overflow-wrap: anywhere;
}
.ways {
  display: flex;
  gap: 8px;
  margin-top: 16px;
}
</style>
