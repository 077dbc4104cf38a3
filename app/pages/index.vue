<script setup lang="ts">
// Work begins with the deals.
await navigateTo('/deals', { replace: true });
</script>

<template><div /></template>
