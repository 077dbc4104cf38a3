<script setup lang="ts">
import { templateChanges } from '~~/core/template/compare';

/** Two changed the same draft: a person takes the other's, or keeps their own as a new template. Nothing is lost until then. */
const open = defineModel<boolean>('open', { required: true });
const draft = useDraftStore();
const route = useRoute();
const showsChanges = ref(false);
watch(
  () => draft.saving,
  (saving) => (open.value = saving === 'conflict'),
);
watch(open, () => (showsChanges.value = false));
const changes = computed(() =>
  showsChanges.value && draft.theirs && draft.template ? templateChanges(draft.theirs.template, draft.template) : [],
);

async function keepMine(): Promise<void> {
  const id = await draft.keepAsNew();
  // On the screen where it was changed.
  if (id !== undefined) await navigateTo({ name: route.name!, params: { id } });
}
</script>

<template>
  <Dialog v-model:visible="open" modal :header="draft.problem?.title" :style="{ width: '620px' }" :draggable="false">
    <p>{{ draft.problem?.detail }}</p>
    <template v-if="showsChanges">
      <TemplateChanges v-if="changes.length > 0" :changes="changes" />
      <p v-else>Both are the same.</p>
    </template>
    <footer>
      <Button
        v-if="draft.theirs && !showsChanges"
        class="first"
        label="Look at the difference"
        severity="secondary"
        text
        @click="showsChanges = true"
      />
      <Button
        label="Keep mine as a new template"
        severity="secondary"
        outlined
        :loading="draft.busy"
        @click="keepMine"
      />
      <Button v-if="draft.theirs" label="Take theirs" autofocus @click="draft.takeTheirs" />
    </footer>
  </Dialog>
</template>

<style scoped>
.first {
  margin-right: auto;
}
</style>
