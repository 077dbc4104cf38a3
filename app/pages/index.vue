<script setup lang="ts">
import { useRecordTypesStore } from '~/stores/record-types';

// Work begins with the records that documents are made from.
const types = useRecordTypesStore();
async function begin(): Promise<void> {
  await types.load();
  const [first] = types.types ?? [];
  if (first) await navigateTo(listPath(first.name), { replace: true });
}
await begin();
</script>

<template>
  <div>
    <WhereAmI title="Records" />
    <ProblemNote v-if="types.problem" :problem="types.problem" @again="begin" />
    <EmptyNote v-else-if="types.types" title="The CRM has no records to make documents from"
      >Documents are put on records as files. None of the CRM’s record types takes files, or you may see none of
      them.</EmptyNote
    >
  </div>
</template>
