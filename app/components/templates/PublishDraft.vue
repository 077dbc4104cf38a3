<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** Publishes a draft with a word on what is different in it; asks once more where some records stop on it, or a newer version is there. */
const open = defineModel<boolean>('open', { required: true });
const draft = useDraftStore();
const note = ref('');
const problem = shallowRef<ApiProblem>();
const stopped = computed(() => (problem.value?.reason === 'stops' ? problem.value : undefined));
const newer = computed(() => (problem.value?.reason === 'template' ? problem.value.version?.versionId : undefined));
/** What a person has agreed to. */
let agreed: { reason?: string; over?: string } = {};
watch(open, (isOpen) => {
  if (!isOpen) return;
  problem.value = undefined;
  agreed = {};
});

async function publish(more: typeof agreed = {}): Promise<void> {
  if (draft.busy) return;
  agreed = { ...agreed, ...more };
  problem.value = await draft.publish({ note: note.value.trim() || undefined, ...agreed });
  if (problem.value) return;
  note.value = '';
  open.value = false;
}
</script>

<template>
  <Dialog
    :visible="open && !stopped"
    modal
    header="Publish the draft"
    :style="{ width: '460px' }"
    :draggable="false"
    @update:visible="open = $event"
  >
    <form @submit.prevent="publish(newer === undefined ? {} : { over: newer })">
      <LabelledField
        id="publish-note"
        v-model="note"
        label="What is different (optional)"
        hint="It stands in the list of versions."
        autofocus
      />
      <p v-if="draft.opened?.version" class="quiet">
        Look first at <NuxtLink :to="`/templates/${draft.template?.id}/prove`">what prints for ten records</NuxtLink>,
        or at <NuxtLink :to="`/templates/${draft.template?.id}/replay`">what would have been filed otherwise</NuxtLink>.
      </p>
      <p v-if="newer !== undefined" class="fault" role="alert">
        Somebody published another version since this draft began. Publishing replaces it; documents already filed stay
        as they are.
      </p>
      <p v-else-if="problem" class="fault" role="alert">
        <b>{{ problem.title }}.</b> {{ problem.detail }}
      </p>
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="open = false" />
        <Button type="submit" :label="newer === undefined ? 'Publish' : 'Replace it'" :loading="draft.busy" />
      </footer>
    </form>
  </Dialog>
  <StoppedRecords
    :problem="open ? stopped : undefined"
    :busy="draft.busy"
    @publish="publish({ reason: $event })"
    @close="open = false"
  />
</template>

<style scoped>
.fault {
  margin-top: 10px;
  color: var(--brick);
}
</style>
