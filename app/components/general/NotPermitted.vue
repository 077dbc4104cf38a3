<script setup lang="ts">
import { useMeStore } from '~/stores/me';

/** In place of a page that one’s roles do not open: why, and whom to ask. */
defineProps<{ whyNot: string }>();
const store = useMeStore();
const others = computed(() => (store.me?.administrators ?? []).join(', '));
</script>

<template>
  <EmptyNote title="Your roles do not allow this"
    >{{ whyNot }}<template v-if="others"> Here that is {{ others }}.</template></EmptyNote
  >
</template>
