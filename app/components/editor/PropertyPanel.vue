<script setup lang="ts">
import type { LineTable } from '#core/template/blocks/line-table';
import { COLUMN_FIELDS } from '~/editor/kinds/line-table/panel';
import { placeholderWords } from '~/editor/formula-words';
import { panelOf } from '~/editor/kinds/panels';
import { addColumn, addOtherwise, GRID_COMMANDS, removePart, unwrap } from '~/editor/commands';
import type { Field } from '~/editor/panel';

/** The properties of what is chosen on the sheet, and of the parts around it; of the page where nothing is. */
const draft = useDraftStore();
const figures = useFiguresStore();
const sheet = useSheetStore();
const known = computed(() => sheet.chosen.filter(({ type }) => panelOf(type)));
/** Parts around the chosen one, from the outside in. */
const around = computed(() => [...known.value].reverse());
const openId = ref<string>();
/** The page is asked for, whatever is chosen on it. */
const isPage = ref(false);
watch(
  () => known.value[0]?.id,
  (id) => {
    openId.value = id;
    isPage.value = false;
  },
);
const part = computed(() => known.value.find(({ id }) => id === openId.value) ?? known.value[0]);
const panel = computed(() => part.value && panelOf(part.value.type));
/** The column that is worked on, of the line table that is chosen. */
const column = computed(() => {
  if (part.value?.type !== 'lineTable' || sheet.column === undefined) return undefined;
  return (part.value.attrs as unknown as LineTable).columns.find(({ id }) => id === sheet.column);
});
/** What the properties are of. */
const attrs = computed((): Readonly<Record<string, unknown>> => column.value ?? part.value?.attrs ?? {});
const fields = computed(() =>
  (column.value ? COLUMN_FIELDS : (panel.value?.fields ?? [])).filter(
    (field) => !('onlyWith' in field && field.onlyWith && !attrs.value[field.onlyWith]),
  ),
);
const inGrid = computed(() => known.value.some(({ type }) => type === 'gridTable'));
const faults = computed(() => {
  const found = part.value;
  if (!found) return [];
  const all = figures.page?.faults ?? [];
  return all.filter(({ block, value }) => (found.type === 'value' ? value === found.id : block === found.id && !value));
});
const list = computed(() => {
  const own = part.value?.attrs.list;
  if (typeof own === 'string' && part.value?.type === 'lineTable') return own;
  return sheet.scope;
});

/** The list whose items are in scope where the part stands: a repetition's own items are inside of it. */
const outer = computed(() => {
  const at = sheet.chosen.findIndex(({ id }) => id === part.value?.id);
  return sheet.chosen.slice(at + 1).find(({ type }) => type === 'forEach')?.attrs.list as string | undefined;
});
const hasOtherwise = computed(() => part.value?.type === 'whenSection' && sheet.holdsPart(part.value.id, 'otherwise'));

function change(field: Field, value: unknown, key = field.key): void {
  changeSome(field, { [key]: value });
}
function changeSome(field: Field, properties: Readonly<Record<string, unknown>>): void {
  if (!part.value) return;
  const words = `${field.label} changed`;
  if (column.value) sheet.changeColumn(part.value.id, column.value.id, properties, words);
  else sheet.change(part.value.id, properties, words);
}
function openPart(id: string): void {
  openId.value = id;
  sheet.column = undefined;
}
const holds = computed(() => ['columns', 'keepTogether', 'forEach', 'whenSection'].includes(part.value?.type ?? ''));

const PAGE_SIZES = [
  { value: 'a4' as const, label: 'A4' },
  { value: 'letter' as const, label: 'Letter' },
  { value: 'a5' as const, label: 'A5' },
];
const page = computed(() => draft.template?.layout.page);
const PARTS = ['header', 'footer'] as const;
function changePage(next: object, words: string): void {
  const template = draft.template!;
  const { layout } = template;
  draft.change({ ...template, layout: { ...layout, page: { ...layout.page, ...next } } }, { words });
}
</script>

<template>
  <section class="panel" aria-label="Properties">
    <template v-if="part && panel && !isPage">
      <nav class="way" aria-label="Parts around it">
        <button type="button" class="in-words" @click="isPage = true">Page</button>
        <span class="quiet" aria-hidden="true"> › </span>
        <template v-for="(each, at) in around" :key="each.id"
          ><span v-if="at > 0" class="quiet" aria-hidden="true"> › </span
          ><button
            type="button"
            class="in-words"
            :aria-current="each.id === part.id ? 'true' : undefined"
            @click="openPart(each.id)"
          >
            {{ panelOf(each.type)?.label }}
          </button></template
        ><template v-if="column"><span class="quiet" aria-hidden="true"> › </span>Column</template>
      </nav>
      <h2>{{ column ? placeholderWords(column.heading) || 'Column' : panel.label }}</h2>
      <p v-for="{ sentence } in faults" :key="sentence" class="fault">{{ sentence }}</p>
      <PropertyField
        v-for="field in fields"
        :key="`${part.id} ${column?.id ?? ''} ${field.key}`"
        :field="field"
        :value="attrs[field.key]"
        :list="list"
        :scope="outer"
        :among="attrs"
        @change="(value, key) => change(field, value, key)"
        @change-some="changeSome(field, $event)"
      />
      <div v-if="inGrid" class="acts">
        <button
          type="button"
          class="in-words"
          @click="sheet.editor && sheet.run(GRID_COMMANDS.addRow(sheet.editor.schema))"
        >
          Add a row
        </button>
        <button
          type="button"
          class="in-words"
          @click="sheet.editor && sheet.run(GRID_COMMANDS.addColumn(sheet.editor.schema))"
        >
          Add a column
        </button>
        <button type="button" class="in-words" @click="sheet.run(GRID_COMMANDS.removeRow())">Delete the row</button>
        <button type="button" class="in-words" @click="sheet.run(GRID_COMMANDS.removeColumn())">
          Delete the column
        </button>
      </div>
      <div class="acts">
        <button
          v-if="part.type === 'columns' || part.type === 'column'"
          type="button"
          class="in-words"
          @click="sheet.run(addColumn(part.id))"
        >
          Add a column
        </button>
        <button v-if="part.type === 'value'" type="button" class="in-words" @click="sheet.writeFormula(part.id)">
          Write its formula
        </button>
        <button
          v-if="part.type === 'whenSection' && !hasOtherwise"
          type="button"
          class="in-words"
          @click="sheet.editor && sheet.run(addOtherwise(part.id))"
        >
          Otherwise print…
        </button>
        <button v-if="holds" type="button" class="in-words" @click="sheet.run(unwrap(part.id))">Take apart</button>
        <button v-if="column" type="button" class="in-words" @click="sheet.column = undefined">The whole table</button>
        <button
          v-if="column"
          type="button"
          class="in-words remove"
          :disabled="(part.attrs as unknown as LineTable).columns.length === 1"
          @click="sheet.removeColumn(part.id, column.id)"
        >
          Delete the column
        </button>
        <button
          v-else
          type="button"
          class="in-words remove"
          @click="sheet.run(removePart(part.id, `${panel.label} deleted`))"
        >
          Delete
        </button>
      </div>
    </template>
    <template v-else-if="page">
      <h2>Page</h2>
      <label class="property"
        ><span>Paper</span>
        <PickOne
          label="Paper"
          :value="page.size"
          :options="PAGE_SIZES"
          @choose="changePage({ size: $event }, 'Paper changed')"
        />
      </label>
      <label class="check">
        <Checkbox
          binary
          :model-value="page.landscape === true"
          @update:model-value="changePage({ landscape: $event || undefined }, 'Paper turned')"
        />
        Landscape
      </label>
      <label v-for="its in PARTS" :key="its" class="check">
        <Checkbox
          binary
          :model-value="draft.template?.layout[its] !== undefined"
          @update:model-value="sheet.setOwn(its, $event)"
        />
        A {{ its }} of its own
      </label>
      <p class="quiet">Click on something on the sheet to see what it is and what can be set.</p>
    </template>
  </section>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  gap: 12px;
  padding: 12px 14px 24px;
}
h2 {
  font: 600 14px/18px var(--serif);
}
.way {
  font-size: 12px;
}
.way button[aria-current] {
  color: var(--ink);
}
.fault {
  color: var(--brick);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 14px;
}
.remove {
  color: var(--brick);
}
.property {
  display: grid;
  gap: 3px;
}
.property span {
  color: var(--ink-quiet);
  font-size: 12px;
}
.check {
  display: flex;
  gap: 8px;
}
</style>
