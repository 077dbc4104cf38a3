<script setup lang="ts">
import { LINES, type FieldSchema, type RecordSchema } from '#core/record/schema';
import type { RecordSnapshot } from '#core/record/snapshot';
import { itemPath, memberPath } from '#core/record/value-path';

/** The line items of a deal; quantities, prices and discounts can be corrected in place. */
const { lines, schema, focusedPath, whyNot } = defineProps<{
  lines: readonly RecordSnapshot[];
  schema: RecordSchema;
  focusedPath?: string;
  /** Why the person may not change them. */
  whyNot?: string;
}>();
const tellBarred = useBarred();
const emit = defineEmits<{ write: [line: RecordSnapshot, field: string, value: string] }>();
const EDITABLE = ['quantity', 'unit_price', 'discount'] as const;
const editing = ref<{ id: string; field: string }>();
const typed = ref('');

const field = (name: string): FieldSchema | undefined => schema.types.LineItem?.fields[name];
const linesPath = memberPath('deal', LINES);
const isFocused = (line: RecordSnapshot, name: string) =>
  focusedPath === memberPath(itemPath(linesPath, line.id), name);

function begin(line: RecordSnapshot, name: string): void {
  if (whyNot) return tellBarred(whyNot);
  typed.value = fieldInput(line.fields[name]);
  editing.value = { id: line.id, field: name };
}

function finish(line: RecordSnapshot, name: string): void {
  if (editing.value?.id !== line.id || editing.value.field !== name) return;
  editing.value = undefined;
  if (typed.value.trim() !== fieldInput(line.fields[name])) emit('write', line, name, typed.value);
}
const vFocus = { mounted: (element: HTMLElement) => element.focus() };
const vBringIn = {
  mounted: (element: HTMLElement, { value }: { value: boolean }) =>
    value && element.scrollIntoView({ block: 'center' }),
};
</script>

<template>
  <table class="lines">
    <thead>
      <tr>
        <th>#</th>
        <th>Item</th>
        <th v-for="name in EDITABLE" :key="name" class="amount">{{ field(name)?.label }}</th>
        <th>Tax</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(line, index) in lines" :key="line.id">
        <td class="quiet">{{ index + 1 }}</td>
        <td>
          <bdi>{{ line.fields.name }}</bdi> <span v-if="line.fields.optional" class="optional">optional</span>
        </td>
        <td
          v-for="name in EDITABLE"
          :key="name"
          v-bring-in="isFocused(line, name)"
          class="amount"
          :class="{ focused: isFocused(line, name) }"
        >
          <input
            v-if="editing?.id === line.id && editing.field === name"
            v-model="typed"
            v-focus
            :aria-label="`${field(name)?.label} of line ${index + 1}`"
            @blur="finish(line, name)"
            @keydown.enter.prevent="finish(line, name)"
            @keydown.esc.stop="editing = undefined"
          />
          <button
            v-else
            type="button"
            :class="{ blank: line.fields[name] === null && name !== 'discount' }"
            :aria-label="`${field(name)?.label} of line ${index + 1}: ${fieldText(line.fields[name]) || 'blank'}. Change it`"
            @click="begin(line, name)"
          >
            {{ fieldText(line.fields[name]) || (name === 'discount' ? '–' : 'blank')
            }}{{ name === 'quantity' ? ` ${line.fields.unit ?? ''}` : '' }}
          </button>
        </td>
        <td class="quiet">
          {{ fieldText(line.fields.tax_rate)
          }}<template v-if="line.fields.tax_category !== 'standard'"> {{ line.fields.tax_category }}</template>
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
  border-bottom: 1px solid #e8ebe5;
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
button:hover {
  border-color: var(--hairline);
}
input {
  width: 90px;
  padding: 2px 5px;
  border: 1px solid var(--verdigris);
  border-radius: 3px;
  text-align: end;
}
.blank {
  color: var(--brick);
  font-style: italic;
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
