<!-- Stands for a table while it is being read. -->
<template>
  <div class="skeletons" aria-label="Loading"><Skeleton v-for="row in 10" :key="row" height="20px" /></div>
</template>

<style scoped>
.skeletons {
  display: grid;
  gap: 26px;
  padding: 8px 4px;
}
</style>
