<script setup lang="ts">
import type { DataTableRowReorderEvent } from 'primevue/datatable';
import {
  layoutOf,
  PART_TYPES,
  CHANGE_PARTS,
  PARTS,
  RECORD_ICONS,
  type Part,
  type RecordIcon,
  type RecordLayout,
} from '#core/record/layout';
import { layoutOfRows, layoutRows, movedRow, type LayoutRow } from '#core/record/layout-rows';
import { useRecordTypesStore } from '~/stores/record-types';

/** How the CRM's records are shown: what is what, which stages need a quote, and which fields stand where. */
const PART_WORDS: Readonly<Record<Part, string>> = {
  name: 'Name',
  number: 'Number',
  account: 'Account',
  stage: 'Stage',
  owner: 'Owner',
  amount: 'Amount',
  day: 'Date',
  changedBy: 'Changed by',
  changedAt: 'Changed at',
};
const loaded = useLoaded(() => api('GET /layouts'));
const route = useRoute();
const types = useRecordTypesStore();
const { busy, problem, attempt } = useAttempt();
const act = useAct(loaded.reload);

const all = computed(() => Object.values(loaded.value.value?.schema.types ?? {}));
const chosenName = computed(() => (typeof route.query.type === 'string' ? route.query.type : undefined));
const type = computed(
  () =>
    all.value.find(({ name }) => name === chosenName.value) ??
    all.value.find(({ files }) => files !== undefined) ??
    all.value[0],
);
const list = computed(() => loaded.value.value?.lists.find((each) => each.type === type.value?.name));
const isChosen = computed(() => loaded.value.value?.chosen.includes(type.value?.name ?? '') ?? false);
const kept = computed(() => (type.value ? layoutOf(loaded.value.value!.schema, type.value.name) : undefined));

const parts = ref<Partial<Record<Part, string>>>({});
const icon = ref<RecordIcon>('folder');
const needsQuote = ref<string[]>([]);
const search = ref<string[]>([]);
const rows = shallowRef<LayoutRow[]>([]);
watch([type, kept], discard, { immediate: true });
void loaded.reload();

const wanted = computed<RecordLayout>(() => ({
  icon: icon.value,
  parts: Object.fromEntries(Object.entries(parts.value).filter(([, field]) => field)),
  needsQuote: needsQuote.value,
  search: search.value,
  ...layoutOfRows(rows.value),
}));
const changed = computed(() => {
  if (!type.value || !kept.value) return false;
  const before = { ...kept.value, ...layoutOfRows(layoutRows(type.value, kept.value)) };
  const text = ({
    icon: picture = 'folder',
    parts: own,
    groups: all,
    columns,
    needsQuote: quoted,
    search: found,
  }: RecordLayout) =>
    JSON.stringify([picture, PARTS.map((part) => own[part]), all, columns, [...quoted].sort(), [...found].sort()]);
  return text(before) !== text(wanted.value);
});
/** Only what documents are made from is listed; of everything else the name is enough. */
const shownParts = computed(() => (type.value?.files === undefined ? (['name', ...CHANGE_PARTS] as const) : PARTS));
const options = (part: Part) =>
  Object.values(type.value?.fields ?? {}).filter((field) => !field.identifies && PART_TYPES[part].includes(field.type));
const stages = computed(() => {
  const field = type.value?.fields[parts.value.stage ?? ''];
  return field?.allowed?.map(({ value }) => value) ?? [];
});
const searchable = computed(() =>
  Object.values(type.value?.fields ?? {}).filter(
    (field) => !field.identifies && (field.type === 'text' || field.type === 'record'),
  ),
);
const groups = computed(() => [...new Set(rows.value.flatMap(({ group }) => group.trim() || []))]);

function discard(): void {
  icon.value = kept.value?.icon ?? 'folder';
  parts.value = { ...kept.value?.parts };
  needsQuote.value = [...(kept.value?.needsQuote ?? [])];
  search.value = [...(kept.value?.search ?? [])];
  rows.value = type.value && kept.value ? layoutRows(type.value, kept.value) : [];
}
function change(at: number, changes: Partial<LayoutRow>): void {
  rows.value = rows.value.map((row, index) => (index === at ? { ...row, ...changes } : row));
}
const reorder = ({ value }: DataTableRowReorderEvent) => (rows.value = value as LayoutRow[]);

async function keep(): Promise<void> {
  const { name } = type.value!;
  await attempt(async () => {
    await api('PUT /layouts/{type}', { parameters: { type: name }, body: wanted.value });
    await Promise.all([loaded.reload(), types.forget()]);
  });
}
const backToUsual = () =>
  act(async () => {
    await api('DELETE /layouts/{type}', { parameters: { type: type.value!.name } });
    await types.forget();
  }, 'Shown as usual from now on.');
const readAnew = () =>
  act(
    () => api('POST /layouts/{type}/list', { parameters: { type: type.value!.name } }),
    'The list is being refreshed. This may take a moment.',
  );
</script>

<template>
  <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
  <div v-else-if="type && kept" class="records">
    <nav aria-label="Types of records">
      <NuxtLink
        v-for="each in all"
        :key="each.name"
        :to="{ query: { type: each.name } }"
        replace
        :class="{ on: each.name === type.name }"
        :aria-current="each.name === type.name ? 'page' : undefined"
        >{{ each.label }} <span v-if="each.files !== undefined" class="quiet">documents</span></NuxtLink
      >
    </nav>
    <div class="layout">
      <section>
        <h2>What is what</h2>
        <p class="quiet">
          {{
            type.files === undefined
              ? 'What such a record is called wherever it is named.'
              : 'What the list, the register and file names take from each record.'
          }}
        </p>
        <div class="parts">
          <div v-for="part in shownParts" :key="part">
            <label :for="`part-${part}`">{{ PART_WORDS[part] }}</label>
            <Select
              v-model="parts[part]"
              :input-id="`part-${part}`"
              :options="options(part)"
              option-label="label"
              option-value="name"
              placeholder="none"
              :show-clear="part !== 'name'"
              fluid
            />
          </div>
        </div>
        <template v-if="type.files !== undefined">
          <label class="quoted" for="icon">Picture in the rail</label>
          <Select v-model="icon" input-id="icon" :options="[...RECORD_ICONS]">
            <template #value="{ value }"><PictureWord :icon="value" /></template>
            <template #option="{ option }"><PictureWord :icon="option" /></template>
          </Select>
          <label class="quoted" for="needs-quote">Needs a quote at these stages</label>
          <MultiSelect
            v-model="needsQuote"
            input-id="needs-quote"
            :options="stages"
            display="chip"
            fluid
            :show-toggle-all="false"
            :placeholder="stages.length > 0 ? 'no stage' : 'The stage has no fixed values in the CRM'"
          />
          <label class="quoted" for="searched">Also found by</label>
          <MultiSelect
            v-model="search"
            input-id="searched"
            :options="searchable"
            option-label="label"
            option-value="name"
            display="chip"
            fluid
            filter
            :show-toggle-all="false"
            placeholder="nothing but its name, number, account and amount"
          />
        </template>
      </section>
      <section>
        <h2>Fields</h2>
        <p class="quiet">
          Fields with the same group stand together, in this order. Drag a row, or move it with Alt ↑ ↓. A column shows
          the field where such records are the items of a list.
        </p>
        <DataTable :value="rows" data-key="field.name" size="small" @row-reorder="reorder">
          <Column row-reorder style="width: 30px" />
          <Column header="Field"
            ><template #body="{ data }"
              >{{ data.field.label }} <span class="quiet">{{ data.field.name }}</span></template
            ></Column
          >
          <Column header="Group" style="width: 210px"
            ><template #body="{ data, index }"
              ><Select
                :model-value="data.group"
                :options="groups"
                editable
                size="small"
                placeholder="not shown"
                :aria-label="`Group of ${data.field.label}`"
                fluid
                @update:model-value="change(index, { group: $event ?? '' })"
                @keydown.alt.up.prevent="rows = movedRow(rows, index, -1)"
                @keydown.alt.down.prevent="rows = movedRow(rows, index, 1)" /></template
          ></Column>
          <Column header="Column" style="width: 70px"
            ><template #body="{ data, index }"
              ><Checkbox
                :model-value="data.isColumn"
                binary
                size="small"
                :aria-label="`${data.field.label} is a column`"
                @update:model-value="change(index, { isColumn: $event })" /></template
          ></Column>
        </DataTable>
      </section>
      <div class="act">
        <Button label="Save" :disabled="!changed" :loading="busy" @click="keep" />
        <Button v-if="changed" label="Discard" severity="secondary" text @click="discard" />
        <Button v-else-if="isChosen" label="Show as usual" severity="secondary" text @click="backToUsual" />
        <RefusedNote :problem="problem" />
        <template v-if="list">
          <span class="quiet known"
            >{{ list.count }} {{ (type.plural ?? type.label).toLowerCase() }} listed{{
              list.knownAt ? `, as of ${momentText(list.knownAt)}` : ''
            }}</span
          >
          <Button label="Refresh the list" severity="secondary" outlined size="small" @click="readAnew" />
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.records {
  display: grid;
  grid-template-columns: 180px minmax(0, 760px);
  gap: 24px;
  padding: 20px 24px 0;
}
nav {
  display: grid;
  gap: 2px;
  align-content: start;
}
nav a {
  display: flex;
  justify-content: space-between;
  padding: 5px 9px;
  border-radius: 3px;
  color: var(--ink-quiet);
  text-decoration: none;
}
nav a:hover {
  color: var(--ink);
}
nav .on {
  background: var(--sheet);
  color: var(--ink);
  font-weight: 500;
}
nav span {
  font-size: 12px;
  font-weight: 400;
}
.layout {
  display: grid;
  gap: 16px;
}
section {
  padding: 16px 20px 20px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
h2 {
  margin-bottom: 4px;
  font: 600 14px/18px var(--serif);
}
section > p {
  margin-bottom: 12px;
}
.parts {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 10px 16px;
}
label {
  display: block;
  margin-bottom: 3px;
  font-weight: 500;
}
.quoted {
  margin-top: 14px;
}
.act {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 12px 0 16px;
  background: var(--desk);
}
.known {
  margin-left: auto;
}
</style>
