<script setup lang="ts">
/** The sentence on top that says where you are; also the window's title. */
const { title } = defineProps<{ title: string }>();
useHead({ title: () => `${title} – Lumbix` });
const mounted = ref(false);
onMounted(() => (mounted.value = true));
</script>

<template>
  <Teleport v-if="mounted" to="#where"
    ><slot>{{ title }}</slot></Teleport
  >
</template>
