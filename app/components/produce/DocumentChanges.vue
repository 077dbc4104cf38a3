<script setup lang="ts">
import type { DocumentChange } from '#core/production/document-change';
import type { Proof } from '~/stores/proof';

/** What was changed for this document alone: each with who and when, and each can be taken back. */
const { proof, frozen, mayWrite } = defineProps<{
  proof: Proof;
  frozen: boolean;
  /** Whether the person may change the record. */
  mayWrite: boolean;
}>();
const emit = defineEmits<{ takeBack: [id: string]; write: [id: string]; show: [value: string] }>();
const isWritable = (change: DocumentChange) =>
  mayWrite &&
  change.type === 'value' &&
  proof.fields[change.path]?.record !== undefined &&
  !proof.fields[change.path]!.field.readonly;

const placeOf = (id: string) => proof.changed[id]?.[0];
</script>

<template>
  <section v-if="proof.changes.length > 0">
    <h3>Changed for this document</h3>
    <ul>
      <li v-for="{ id, change, label, by, at } in proof.changes" :key="id">
        <p>
          <b>{{ label }}</b> {{ changeWords(change) }}
        </p>
        <p class="quiet">{{ by }}, {{ momentText(at) }}</p>
        <span class="do">
          <Button
            v-if="placeOf(id)"
            label="Show"
            size="small"
            severity="secondary"
            text
            :aria-label="`Show ${label} on the page`"
            @click="emit('show', placeOf(id)!)"
          />
          <Button
            v-if="isWritable(change)"
            :label="`Write to the ${proof.record.called}`"
            size="small"
            severity="secondary"
            text
            :disabled="frozen"
            @click="emit('write', id)"
          />
          <Button
            label="Take back"
            size="small"
            severity="secondary"
            text
            :disabled="frozen"
            :aria-label="`Take back: ${label}`"
            @click="emit('takeBack', id)"
          />
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
  font: 500 13px/18px var(--sans);
}
li {
  padding: 6px 0 6px 9px;
  border-bottom: 1px solid var(--hairline-soft);
  border-left: 2px solid var(--slate);
}
b {
  font-weight: 500;
}
.quiet {
  font-size: 12px;
}
.do {
  display: flex;
  flex-wrap: wrap;
  margin-left: -8px;
}
</style>
