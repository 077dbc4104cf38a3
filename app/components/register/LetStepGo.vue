<script setup lang="ts">
/** Asks why a step after filing shall go undone. */
const { document, step } = defineProps<{
  /** The document's id. */
  document: string;
  /** None where nothing is asked. */
  step: { position: number; words: string } | undefined;
}>();
const emit = defineEmits<{ close: []; gone: [] }>();
const reason = ref('');
const { busy, problem, attempt } = useAttempt();
watch(
  () => step,
  () => (reason.value = ''),
);

async function letGo(): Promise<void> {
  const given = reason.value.trim();
  if (!given || !step || busy.value) return;
  const { position } = step;
  const gone = await attempt(async () => {
    await api('POST /documents/{id}/let-go', { parameters: { id: document }, body: { position, reason: given } });
  });
  if (gone) emit('gone');
}
</script>

<template>
  <Dialog
    :visible="step !== undefined"
    modal
    header="Let this step go"
    :style="{ width: '480px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <p>{{ step?.words }} It stays undone, and the steps after it go on. Your reason is kept with the document.</p>
    <form @submit.prevent="letGo">
      <LabelledField id="let-go-reason" v-model="reason" label="Why" autofocus required placeholder="because …" />
      <RefusedNote :problem="problem" />
      <footer>
        <Button type="button" label="Back" severity="secondary" text @click="emit('close')" />
        <Button type="submit" label="Let it go" :disabled="!reason.trim()" :loading="busy" />
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
