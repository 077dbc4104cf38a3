<script setup lang="ts">
/** How far a draft is saved, and who else works on it. */
const emit = defineEmits<{ conflict: []; discard: [] }>();
const draft = useDraftStore();
const present = computed(() => [
  ...new Set(draft.others.map(({ name, isYou }) => (isYou ? 'you, in another window' : name))),
]);
const alone = (words: readonly string[]) => new Intl.ListFormat('en', { type: 'conjunction' }).format(words);
</script>

<template>
  <span class="state" role="status">
    <span v-if="present.length > 0" class="others">Also open: {{ alone(present) }}</span>
    <button
      v-if="draft.isDraft && draft.opened?.version && draft.saving === 'saved'"
      type="button"
      class="in-words"
      aria-label="Discard the draft"
      @click="emit('discard')"
    >
      Discard
    </button>
    <button v-if="draft.saving === 'conflict'" type="button" class="in-words fault" @click="emit('conflict')">
      {{ draft.state }}
    </button>
    <span v-else :class="{ fault: draft.saving === 'away' || draft.saving === 'refused' }">{{ draft.state }}</span>
  </span>
</template>

<style scoped>
.state {
  display: flex;
  gap: 14px;
  color: var(--ink-quiet);
  white-space: nowrap;
}
.others {
  color: var(--brass-text);
}
.fault,
.in-words.fault {
  color: var(--brick);
}
</style>
