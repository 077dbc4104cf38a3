<script setup lang="ts">
import type { FieldSchema } from '#core/record/schema';
import type { Proof } from '~/stores/proof';

/** What the template asks for with each document, and what is said: given for this document, or what the template says. */
const { proof, frozen, give } = defineProps<{
  proof: Proof;
  frozen: boolean;
  /** Gives a value for this document alone; gives why it was refused, or nothing. */
  give: (path: string, field: FieldSchema, value: string) => Promise<string | undefined>;
}>();
const asked = computed(() =>
  proof.asks.flatMap(({ path, given, optional }) => {
    const known = proof.fields[path];
    return known ? [{ path, given, optional, ...known }] : [];
  }),
);
</script>

<template>
  <section v-if="asked.length > 0" aria-label="Asked for">
    <h3>Asked for</h3>
    <ul>
      <li v-for="{ path, given, optional, field, value } in asked" :key="path">
        <span>{{ field.label }}</span>
        <span class="value">
          <TypedValue
            :field="field"
            :value="value"
            :label="field.label"
            :write="(text) => give(path, field, text)"
            :none="optional ? 'none' : 'Fill in …'"
            :missing="value === null && !optional"
            :frozen="frozen"
          />
          <span v-if="!given && value !== null" class="quiet">as the template says</span>
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
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 2px 10px;
  align-items: baseline;
  padding: 4px 0;
  border-bottom: 1px solid var(--hairline-soft);
}
li > span:first-child {
  color: var(--ink-quiet);
  overflow-wrap: anywhere;
}
.value {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}
.value > .field-input {
  flex: 1;
}
.quiet {
  font-size: 12px;
}
</style>
