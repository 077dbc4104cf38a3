<script setup lang="ts">
definePageMeta({ redirect: '/setup/people' });
</script>

<template><div /></template>
