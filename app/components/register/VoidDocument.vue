<script setup lang="ts">
/** Asks why a document shall be void, and says what becomes of it. */
const { id, number, filed, open } = defineProps<{
  id: string;
  number: string;
  /** Whether it is filed, or waits to be. */
  filed: boolean;
  open: boolean;
}>();
const emit = defineEmits<{ close: []; asked: [] }>();
const reason = ref('');
const given = computed(() => reason.value.trim());
const { busy, problem, attempt } = useAttempt();
watch(
  () => open,
  (isOpen) => {
    if (!isOpen) reason.value = '';
  },
);

async function ask(): Promise<void> {
  if (!given.value || busy.value) return;
  const asked = await attempt(async () => {
    await api('POST /documents/{id}/void', { parameters: { id }, body: { reason: given.value } });
  });
  if (asked) emit('asked');
}
</script>

<template>
  <Dialog
    :visible="open"
    modal
    :header="`Void ${number}`"
    :style="{ width: '480px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <p v-if="filed">
      It does not count any more: not in sums, and not in what was billed. It stays readable with its number, and its
      file stays on the record.
    </p>
    <p v-else>
      Lumbix stops trying. The record is then searched for the file, once nothing that was sent can still arrive: within
      five minutes. If the file is there, the document is filed; if not, its number is void for good.
    </p>
    <form @submit.prevent="ask">
      <LabelledField id="void-reason" v-model="reason" label="Why" autofocus required placeholder="because …" />
      <RefusedNote :problem="problem" />
      <footer>
        <Button type="button" label="Back" severity="secondary" text @click="emit('close')" />
        <Button type="submit" label="Void it" :disabled="!given" :loading="busy" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
  margin-top: 14px;
}
</style>
