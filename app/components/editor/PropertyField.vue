<script setup lang="ts">
import type { LineTable } from '#core/template/blocks/line-table';
import { placeholderWords } from '~/editor/formula-words';
import type { Field } from '~/editor/panel';
import { newId } from '~/editor/new-id';
import { withoutUnsaid } from '~/editor/without-unsaid';

/** One property of a part. */
const { field, value, list, scope, among } = defineProps<{
  field: Field;
  value: unknown;
  /** The list whose items are in scope of formulas about items. */
  list?: string;
  /** The list whose items are in scope where the part itself stands. */
  scope?: string;
  /** What it is a property of: other properties of the same part or row. */
  among?: Readonly<Record<string, unknown>>;
}>();
/** `key`: another property than its own is changed. */
const emit = defineEmits<{
  change: [value: unknown, key?: string];
  /** Several properties together. */
  changeSome: [properties: Readonly<Record<string, unknown>>];
}>();
const draft = useDraftStore();
const id = useId();

/** Stands for what is not said: the component shows nothing for a blank value. */
const NONE = '-';
const files = computed(() =>
  Object.entries(draft.template?.files ?? {})
    .filter(([, { mediaType }]) => mediaType !== 'application/pdf')
    .map(([name]) => ({ value: name, label: name })),
);
const options = computed(() => {
  if (field.is === 'file') return files.value;
  if (field.is !== 'choice') return [];
  const all = field.options.map((each) => ({ value: each.value ?? NONE, label: each.label }));
  const isPart = field.ofParts && typeof value === 'number';
  return isPart ? [...all, { value, label: `${Math.round(100 * value)} % of the table` }] : all;
});
const typed = (event: Event) => (event.target as HTMLInputElement).value;

function text(event: Event): void {
  const words = typed(event);
  emit('change', words === '' && field.is === 'text' && field.optional ? undefined : words);
}

type Row = Readonly<Record<string, unknown>>;
const rows = computed(() => (field.is === 'rows' ? ((value as Row[] | undefined) ?? []) : []));
const openRow = ref<number>();
const changeRow = (at: number, key: string, next: unknown) =>
  emit(
    'change',
    rows.value.map((row, place) => (place === at ? withoutUnsaid({ ...row, [key]: next }) : row)),
  );
function moveRow(at: number, by: number): void {
  const all = [...rows.value];
  const [row] = all.splice(at, 1);
  all.splice(at + by, 0, row!);
  openRow.value = at + by;
  emit('change', all);
}
function addRow(): void {
  if (field.is !== 'rows') return;
  openRow.value = rows.value.length;
  emit('change', [...rows.value, { id: newId(), ...field.make() }]);
}
function removeRow(at: number): void {
  openRow.value = undefined;
  emit(
    'change',
    rows.value.filter((_, place) => place !== at),
  );
}
const group = computed(() => (field.is === 'group' ? (value as Row | undefined) : undefined));
</script>

<template>
  <div v-if="field.is === 'yes'" class="check">
    <Checkbox
      :input-id="id"
      binary
      :model-value="value === true"
      @update:model-value="emit('change', $event || undefined)"
    />
    <label :for="id">{{ field.label }}</label>
  </div>
  <div v-else-if="field.is === 'rows'" class="rows">
    <span class="name">{{ field.label }}</span>
    <ol>
      <li v-for="(row, at) in rows" :key="String(row.id)" :class="{ open: openRow === at }">
        <button
          type="button"
          class="row"
          :aria-expanded="openRow === at"
          @click="openRow = openRow === at ? undefined : at"
        >
          <span>{{ placeholderWords(String(row[field.named] ?? '')) || `${field.one} ${at + 1}` }}</span>
          <code v-if="row.formula">{{ row.formula }}</code>
        </button>
        <div v-if="openRow === at" class="inside">
          <PropertyField
            v-for="inner in field.fields"
            :key="inner.key"
            :field="inner"
            :value="row[inner.key]"
            :list="list"
            :scope="scope"
            :among="row"
            @change="(next, key) => changeRow(at, key ?? inner.key, next)"
          />
          <div class="acts">
            <button type="button" class="in-words" :disabled="at === 0" @click="moveRow(at, -1)">Up</button>
            <button type="button" class="in-words" :disabled="at === rows.length - 1" @click="moveRow(at, 1)">
              Down
            </button>
            <button type="button" class="in-words" :disabled="rows.length === 1" @click="removeRow(at)">Delete</button>
          </div>
        </div>
      </li>
    </ol>
    <button type="button" class="in-words" @click="addRow">Add a {{ field.one }}</button>
  </div>
  <div v-else-if="field.is === 'group'" class="group">
    <div class="check">
      <Checkbox
        :input-id="id"
        binary
        :model-value="group !== undefined && group !== null"
        @update:model-value="emit('change', $event ? field.make() : undefined)"
      />
      <label :for="id">{{ field.label }}</label>
    </div>
    <div v-if="group" class="inside">
      <PropertyField
        v-for="inner in field.fields"
        :key="inner.key"
        :field="inner"
        :value="group[inner.key]"
        :list="list"
        :scope="scope"
        @change="emit('change', withoutUnsaid({ ...group, [inner.key]: $event }))"
      />
    </div>
  </div>
  <div v-else class="property">
    <label :for="id">{{ field.label }}</label>
    <FormulaField
      v-if="field.is === 'formula'"
      :source="(value as string | null) ?? undefined"
      :label="field.label"
      :optional="field.optional"
      :list="field.ofItems ? list : undefined"
      @write="emit('change', $event)"
    />
    <ConditionBuilder
      v-else-if="field.is === 'condition'"
      :source="(value as string | null) ?? undefined"
      :label="field.label"
      :optional="field.optional"
      :list="field.ofItems ? list : scope"
      @write="emit('change', $event)"
    />
    <ItemsField
      v-else-if="field.is === 'items'"
      :source="(value as string | null) ?? undefined"
      :label="field.label"
      :list="scope"
      @write="emit('change', $event)"
    />
    <TableChoice
      v-else-if="field.is === 'table'"
      :table="among as unknown as LineTable"
      :what="field.key"
      :label="field.label"
    />
    <NoteField
      v-else-if="field.is === 'note'"
      :id="String(among?.id)"
      :note="(value as string | null) ?? undefined"
      :earlier="(among?.earlierNote as string | null) ?? undefined"
      @write="(note, earlier) => emit('changeSome', { note, earlierNote: earlier })"
    />
    <ClauseUses v-else-if="field.is === 'uses'" :clause="String(value)" />
    <LookField
      v-else-if="field.is === 'look'"
      :label="field.label"
      :value="(value as string | null) ?? undefined"
      :formula="String(among?.[field.of] ?? '')"
      :list="list"
      @choose="emit('change', $event)"
      @formula="emit('change', $event, field.of)"
    />
    <InputNumber
      v-else-if="field.is === 'number'"
      :input-id="id"
      :model-value="(value as number | null) ?? null"
      :min="field.least"
      :max="field.most"
      :min-fraction-digits="0"
      :max-fraction-digits="2"
      :suffix="field.unit ? ` ${field.unit}` : undefined"
      size="small"
      fluid
      @update:model-value="($event !== null || field.optional) && emit('change', $event ?? undefined)"
    />
    <PickOne
      v-else-if="field.is === 'choice' || field.is === 'file'"
      :label="field.label"
      :value="(value as string | number | null) ?? (field.is === 'file' ? undefined : NONE)"
      :options="options"
      :placeholder="field.is === 'file' ? 'none' : undefined"
      @choose="emit('change', $event === NONE ? undefined : $event)"
    />
    <InputText
      v-else
      :id="id"
      :key="String(value)"
      :model-value="(value as string | null) ?? ''"
      size="small"
      fluid
      @change="text"
    />
    <p v-if="'hint' in field && field.hint" class="quiet">{{ field.hint }}</p>
  </div>
</template>

<style scoped>
.property {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 3px;
}
label,
.name {
  color: var(--ink-quiet);
  font-size: 12px;
}
.check {
  display: flex;
  align-items: center;
  gap: 8px;
}
.check label {
  color: var(--ink);
  font-size: 13px;
}
ol {
  margin: 3px 0 6px;
  border: 1px solid var(--hairline);
  border-radius: 3px;
}
li + li {
  border-top: 1px solid var(--hairline);
}
.open {
  box-shadow: inset 3px 0 var(--verdigris);
}
.row {
  display: flex;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  padding: 5px 9px;
  background: none;
  border: 0;
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
.row span {
  flex: none;
  max-width: 60%;
  overflow: hidden;
  font-weight: 500;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.row code {
  overflow: hidden;
  color: var(--ink-quiet);
  font: 11.5px/18px var(--mono);
  text-overflow: ellipsis;
  white-space: nowrap;
}
.inside {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  padding: 8px 9px 10px;
}
.group > .inside {
  padding: 8px 0 0 24px;
}
.acts {
  display: flex;
  gap: 14px;
}
p {
  font-size: 12px;
}
</style>
