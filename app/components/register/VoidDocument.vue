<script setup lang="ts">
/** Asks why a document shall be void, and says what becomes of it. */
const { id, number, filed, open } = defineProps<{
  id: string;
  number: string;
  /** Whether it is filed, or waits to be. */
  filed: boolean;
  open: boolean;
}>();
defineEmits<{ close: []; asked: [] }>();
const ask = (reason: string) => api('POST /documents/{id}/void', { parameters: { id }, body: { reason } });
</script>

<template>
  <AskWhy
    id="void-reason"
    :open="open"
    :header="`Void ${number}`"
    label="Void it"
    :act="ask"
    @close="$emit('close')"
    @done="$emit('asked')"
  >
    <template v-if="filed">
      It does not count any more: not in sums, and not in what was billed. It stays readable with its number, and its
      file stays on the record.
    </template>
    <template v-else>
      Lumbix stops trying. The record is then searched for the file, once nothing that was sent can still arrive: within
      five minutes. If the file is there, the document is filed; if not, its number is void for good.
    </template>
  </AskWhy>
</template>
