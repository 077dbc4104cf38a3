<script setup lang="ts">
/** Asks why something shall be done that is not taken back, and does it with the reason; what it means stands above the field. */
const { open, act } = defineProps<{
  /** Of the field: several may be on a page. */
  id: string;
  open: boolean;
  header: string;
  /** What the button says. */
  label: string;
  /** Does it. What it throws is shown. */
  act: (reason: string) => Promise<unknown>;
}>();
const emit = defineEmits<{ close: []; done: [] }>();
const reason = ref('');
const given = computed(() => reason.value.trim());
const { busy, problem, attempt } = useAttempt();
watch(
  () => open,
  (isOpen) => {
    if (!isOpen) reason.value = '';
  },
);

async function send(): Promise<void> {
  if (!given.value || busy.value) return;
  const done = await attempt(async () => void (await act(given.value)));
  if (done) emit('done');
}
</script>

<template>
  <Dialog
    :visible="open"
    modal
    :header="header"
    :style="{ width: '480px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <p><slot /></p>
    <form @submit.prevent="send">
      <LabelledField :id="id" v-model="reason" label="Why" autofocus required placeholder="because …" />
      <RefusedNote :problem="problem" />
      <footer>
        <Button type="button" label="Back" severity="secondary" text @click="emit('close')" />
        <Button type="submit" :label="label" :disabled="!given" :loading="busy" />
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
