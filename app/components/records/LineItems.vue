<script setup lang="ts">
import { calledRecord, layoutOf } from '#core/record/layout';
import type { FieldSchema, RecordSchema } from '#core/record/schema';
import type { RecordSnapshot } from '#core/record/snapshot';
import { itemPath, memberPath } from '#core/record/value-path';

/** The items of a record's list, with the columns of their layout; each can be corrected in place. */
const { items, relation, schema, pathTo, focusedPath, whyNot, write } = defineProps<{
  items: readonly RecordSnapshot[];
  /** The field that holds them. */
  relation: FieldSchema;
  schema: RecordSchema;
  /** The address of an item’s own page, where it has one. */
  pathTo: (item: RecordSnapshot) => string | undefined;
  focusedPath?: string;
  /** Why the person may not change them. */
  whyNot?: string;
  /** Gives why a value was refused, or nothing. */
  write: (item: RecordSnapshot, field: string, value: string) => Promise<string | undefined>;
}>();
const tellBarred = useBarred();
const editing = ref<{ id: string; field: string }>();
const table = useTemplateRef<HTMLElement>('table');

const fields = computed(() => schema.types[relation.target!]?.fields ?? {});
const columns = computed(() => layoutOf(schema, relation.target).columns.flatMap((name) => fields.value[name] ?? []));
/** Yes/no fields that hold stand beside the name, by their labels. */
const marks = (item: RecordSnapshot) =>
  Object.values(fields.value).filter(({ type, name }) => type === 'boolean' && item.fields[name] === true);
const isFocused = (item: RecordSnapshot, name: string) =>
  focusedPath === memberPath(itemPath(relation.name, item.id), name);

function begin(item: RecordSnapshot, { name, readonly }: FieldSchema): void {
  if (readonly) return;
  if (whyNot) return tellBarred(whyNot);
  editing.value = { id: item.id, field: name };
}

/** Who was typing is where the value is, and Tab goes on from there. */
function finish(): void {
  const { id, field } = editing.value!;
  editing.value = undefined;
  void nextTick(() =>
    table.value?.querySelector<HTMLElement>(`[data-cell="${CSS.escape(`${id} ${field}`)}"] button`)?.focus(),
  );
}

// What a proof sent one here for is open to be typed into.
onMounted(() => {
  for (const item of items)
    for (const column of columns.value) if (isFocused(item, column.name) && !whyNot) begin(item, column);
});
const vBringIn = {
  mounted: (element: HTMLElement, { value }: { value: boolean }) =>
    value && element.scrollIntoView({ block: 'center' }),
};
</script>

<template>
  <table ref="table" class="lines">
    <thead>
      <tr>
        <th>#</th>
        <th>{{ schema.types[relation.target!]?.label }}</th>
        <th v-for="field in columns" :key="field.name" :class="{ amount: isNumberField(field) }">{{ field.label }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(item, index) in items" :key="item.id">
        <td class="quiet">{{ index + 1 }}</td>
        <td>
          <NuxtLink v-if="pathTo(item)" :to="pathTo(item)"
            ><bdi>{{ calledRecord(item, schema) }}</bdi></NuxtLink
          >
          <bdi v-else>{{ calledRecord(item, schema) }}</bdi>
          <span v-for="mark in marks(item)" :key="mark.name" class="optional">{{ mark.label.toLowerCase() }}</span>
        </td>
        <td
          v-for="field in columns"
          :key="field.name"
          v-bring-in="isFocused(item, field.name)"
          :data-cell="`${item.id} ${field.name}`"
          :class="{ amount: isNumberField(field), focused: isFocused(item, field.name) }"
        >
          <LazyFieldInput
            v-if="editing?.id === item.id && editing.field === field.name"
            class="input"
            :field="field"
            :value="item.fields[field.name]"
            :label="`${field.label} of line ${index + 1}`"
            :write="(value) => write(item, field.name, value)"
            @done="finish"
          />
          <button
            v-else
            type="button"
            :class="{ quiet: item.fields[field.name] === null }"
            :aria-label="`${field.label} of line ${index + 1}: ${fieldText(item.fields[field.name], field) || 'blank'}. Change it`"
            @click="begin(item, field)"
          >
            {{ fieldText(item.fields[field.name], field) || '–' }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.lines {
  width: 100%;
  border-collapse: collapse;
}
th {
  padding: 4px 8px 4px 0;
  border-bottom: 1.2px solid var(--ink);
  color: var(--ink-quiet);
  font-size: 12px;
  font-weight: 500;
  text-align: start;
}
td {
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--hairline-soft);
  vertical-align: baseline;
  overflow-wrap: anywhere;
}
th.amount {
  text-align: end;
}
button {
  padding: 2px 5px;
  background: none;
  border: 1px solid transparent;
  border-radius: 3px;
  color: var(--ink);
  cursor: text;
  white-space: nowrap;
}
/* What stands in a button stands where its heading does. */
td button {
  margin-inline-start: -6px;
}
td.amount button {
  margin-inline: 0 -6px;
}
button:hover {
  border-color: var(--hairline);
}
.input {
  min-width: 90px;
}
.amount .input :deep(input) {
  text-align: end;
}
.focused {
  background: var(--brass-50);
}
.optional {
  margin-left: 4px;
  color: var(--slate);
  font: italic 12px/16px var(--serif);
}
</style>
