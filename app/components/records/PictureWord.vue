<script setup lang="ts">
import type { RecordIcon } from '#core/record/layout';

/** A picture of the rail with its name. */
defineProps<{ icon: RecordIcon }>();
</script>

<template>
  <span class="picture-word"
    ><component :is="recordIcon(icon)" :size="16" :stroke-width="1.5" aria-hidden="true" /> {{ icon }}</span
  >
</template>

<style scoped>
.picture-word {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
</style>
