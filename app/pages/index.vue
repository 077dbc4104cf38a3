<script setup lang="ts">
await navigateTo('/deals', { replace: true });
</script>

<template><div /></template>
