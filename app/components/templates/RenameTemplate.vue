<script setup lang="ts">
/** Gives a template another name, as a change of its draft. */
const { template } = defineProps<{ template: { id: string; name: string; isPublished: boolean } | undefined }>();
const emit = defineEmits<{ renamed: [words: string]; close: [] }>();
const name = ref('');
const { busy, problem, attempt } = useAttempt();
watch(
  () => template,
  (opened) => (name.value = opened?.name ?? ''),
);

async function rename(): Promise<void> {
  const given = name.value.trim();
  if (!template || !given) return;
  const { id, isPublished } = template;
  const isDone = await attempt(async () => {
    const { template: draft, revision } = await api('GET /templates/{id}/draft', { parameters: { id } });
    const body = { revision, template: { ...draft, name: given } };
    await api('PUT /templates/{id}/draft', { parameters: { id }, body });
  });
  if (isDone)
    emit(
      'renamed',
      isPublished ? `“${given}” is the name in the draft. Publish it to use it.` : `Renamed to “${given}”.`,
    );
}
</script>

<template>
  <Dialog
    :visible="template !== undefined"
    modal
    header="Rename the template"
    :style="{ width: '420px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <form @submit.prevent="rename">
      <LabelledField id="template-name" v-model="name" label="Name" required autofocus />
      <RefusedNote v-if="problem" :problem="problem" />
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="emit('close')" />
        <Button type="submit" label="Rename" :disabled="!name.trim()" :loading="busy" />
      </footer>
    </form>
  </Dialog>
</template>
