<script setup lang="ts">
/** Why a document waits and when it is tried next; it may be tried at once. */
const { id, reason, dueAt, whyNot } = defineProps<{
  id: string;
  reason: string;
  dueAt: string | null;
  /** Why the person may not have it tried. */
  whyNot: string | undefined;
}>();
const now = useNow({ interval: 1_000 });
const act = useAct(() => Promise.resolve());
const next = computed(() => {
  const seconds = dueAt ? Math.ceil((new Date(dueAt).getTime() - now.value.getTime()) / 1_000) : 0;
  if (seconds <= 0) return 'It is being tried now.';
  if (seconds < 100) return `It is tried again in ${seconds === 1 ? 'one second' : `${seconds} seconds`}.`;
  return `It is tried again in ${Math.round(seconds / 60)} minutes.`;
});
const tryNow = () => act(() => api('POST /documents/{id}/try', { parameters: { id } }), 'It is being tried');
</script>

<template>
  <p class="waiting" role="status">
    <span
      ><b>Waiting.</b> {{ reason }} <span class="quiet next">{{ next }}</span></span
    >
    <PermittedButton label="Try now" size="small" severity="secondary" outlined :why-not="whyNot" @press="tryNow" />
  </p>
</template>

<style scoped>
.waiting {
  display: flex;
  flex: 1;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  min-width: 0;
}
b {
  font-weight: 600;
}
.next {
  font-variant-numeric: tabular-nums;
}
.waiting :deep(button) {
  flex: none;
}
</style>
