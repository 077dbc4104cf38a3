<script setup lang="ts">
import type { Proof } from '~/stores/proof';

/** What was changed for this document alone: each with who and when, and each can be taken back. */
const { changes, proof, frozen } = defineProps<{ changes: Proof['changes']; proof: Proof; frozen: boolean }>();
const emit = defineEmits<{ takeBack: [id: string]; show: [value: string] }>();

const placeOf = (id: string) => proof.changed[id]?.[0];
</script>

<template>
  <section v-if="changes.length > 0">
    <h3>Changed for this document</h3>
    <ul>
      <li v-for="{ id, change, label, by, at } in changes" :key="id">
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
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 8px;
  padding: 6px 0 6px 9px;
  border-bottom: 1px solid var(--hairline-soft);
  border-left: 2px solid var(--slate);
}
b {
  font-weight: 500;
}
.quiet {
  grid-row: 2;
  font-size: 12px;
}
.do {
  grid-row: 1 / 3;
  grid-column: 2;
  align-self: center;
}
</style>
