<script setup lang="ts">
import { TABLE_COLUMN_TYPES, type LookupTable, type TableColumnType } from '#core/sheet/figure';

/** A table that formulas look things up in, changed in place; rows can be pasted from a spreadsheet. */
const { table } = defineProps<{ table: LookupTable }>();
const emit = defineEmits<{ change: [next: LookupTable | undefined, words: string] }>();

const TYPES: Record<TableColumnType, string> = {
  number: 'number',
  percent: 'percentage',
  money: 'price',
  text: 'text',
  date: 'date',
};
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim();
const change = (part: Partial<LookupTable>, words: string) => emit('change', { ...table, ...part }, words);

function setCell(at: number, column: number, text: string): void {
  const rows = table.rows.map((row, position) => (position === at ? withCell(row, column, text) : row));
  change({ rows }, `${table.label} changed`);
}
function withCell(row: readonly string[], column: number, text: string): string[] {
  return table.columns.map((_, at) => (at === column ? text : (row[at] ?? '')));
}
/** Rows copied from a spreadsheet come with tabs between their cells. */
function paste(event: ClipboardEvent, at: number, column: number): void {
  const text = event.clipboardData?.getData('text') ?? '';
  if (!/[\t\n]/.test(text.trim())) return;
  event.preventDefault();
  const pasted = text
    .trim()
    .split(/\r?\n/)
    .map((line) => line.split('\t').map((cell) => cell.trim()));
  const rows = [...table.rows];
  pasted.forEach((cells, offset) => {
    const row = table.columns.map((_, position) => cells[position - column] ?? rows[at + offset]?.[position] ?? '');
    rows[at + offset] = row;
  });
  change({ rows }, `${pasted.length} rows pasted into ${table.label}`);
}
function setColumn(at: number, part: Partial<LookupTable['columns'][number]>): void {
  change(
    { columns: table.columns.map((each, position) => (position === at ? { ...each, ...part } : each)) },
    `${table.label} changed`,
  );
}
function addColumn(): void {
  const columns = [
    ...table.columns,
    { name: `column_${table.columns.length + 1}`, label: 'Column', type: 'text' as const },
  ];
  change({ columns, rows: table.rows.map((row) => [...row, '']) }, `Column added to ${table.label}`);
}
function removeRow(at: number): void {
  change({ rows: table.rows.filter((_, position) => position !== at) }, `Row of ${table.label} deleted`);
}
/** A percentage is kept as a fraction and written as people do. */
const shown = (text: string, type: TableColumnType) => (type === 'percent' && text !== '' ? percentPoints(text) : text);
function kept(text: string, type: TableColumnType): string {
  if (type === 'percent' && text !== '') return percentFraction(text);
  return type === 'number' || type === 'money' ? text.replaceAll(',', '') : text;
}
</script>

<template>
  <section class="table-group" :aria-label="table.label">
    <header>
      <InputText
        class="title"
        :model-value="table.label"
        aria-label="Label of the table"
        @change="typed($event) && change({ label: typed($event) }, 'Table renamed')"
      />
      <span class="quiet mono">tables.</span
      ><InputText
        class="mono name"
        :model-value="table.name"
        aria-label="Name of the table in formulas"
        @change="typed($event) && change({ name: typed($event) }, 'Table renamed')"
      />
      <span class="spring"></span>
      <button type="button" @click="addColumn">Add a column</button>
      <button type="button" class="remove" @click="emit('change', undefined, `${table.label} deleted`)">Delete</button>
    </header>
    <table>
      <thead>
        <tr>
          <th v-for="(column, at) in table.columns" :key="at">
            <InputText
              class="mono"
              :model-value="column.name"
              :aria-label="`Name of column ${at + 1}`"
              @change="
                typed($event) && setColumn(at, { name: typed($event), label: typed($event).replaceAll('_', ' ') })
              "
            />
            <PickOne
              :label="`Type of column ${at + 1}`"
              :value="column.type"
              :options="TABLE_COLUMN_TYPES.map((type) => ({ value: type, label: TYPES[type] }))"
              @choose="setColumn(at, { type: $event })"
            />
          </th>
          <th class="narrow"></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, at) in table.rows" :key="at">
          <td
            v-for="(column, position) in table.columns"
            :key="position"
            :class="{ figure: column.type !== 'text' && column.type !== 'date' }"
          >
            <InputText
              :model-value="shown(row[position] ?? '', column.type)"
              :aria-label="`${column.label}, row ${at + 1}`"
              @change="setCell(at, position, kept(typed($event), column.type))"
              @paste="paste($event, at, position)"
            />
          </td>
          <td class="narrow">
            <button type="button" :aria-label="`Delete row ${at + 1}`" @click="removeRow(at)">×</button>
          </td>
        </tr>
      </tbody>
    </table>
    <button
      type="button"
      class="add"
      @click="change({ rows: [...table.rows, table.columns.map(() => '')] }, `Row added to ${table.label}`)"
    >
      Add a row
    </button>
  </section>
</template>

<style scoped>
.table-group {
  padding: 0 14px 12px 33px;
}
header {
  display: flex;
  align-items: baseline;
  gap: 4px;
  padding: 14px 0 6px;
  border-bottom: 1px solid var(--ink);
}
.spring {
  flex: 1;
}
input {
  width: 100%;
  padding: 0;
  background: none;
  border: 0;
}
.title {
  width: 220px;
  font: 600 15px/20px var(--serif);
}
.name {
  width: 160px;
}
table {
  border-collapse: collapse;
}
th,
td {
  width: 168px;
  padding: 4px 12px 4px 0;
  border-bottom: 1px solid var(--hairline-soft);
  text-align: start;
}
th :deep(.p-select) {
  margin-top: 3px;
}
.figure input {
  text-align: end;
}
.narrow {
  width: 24px;
}
button {
  padding: 0 0 0 12px;
  background: none;
  border: 0;
  color: var(--verdigris);
  font-size: 12px;
  cursor: pointer;
}
.add {
  margin-top: 6px;
  padding: 0;
}
.remove {
  color: var(--brick);
}
</style>
