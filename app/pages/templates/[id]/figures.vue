<script setup lang="ts">
import { figureOfWorkings } from '~/editor/figure-of-workings';
import { LINES } from '#core/record/schema';
import { type LookupTable } from '#core/sheet/figure';

type Leaf = 'figure' | 'workings';
const route = useRoute();
const store = useFiguresStore();
const { view, formulas, current, selected, row, faults, failures, opened, template } = storeToRefs(store);
const draft = useDraftStore();
const { barred, mayPublish, recordType, shownName, chooseRecord } = useDraftScreen();
const leaf = ref<Leaf>('figure');
const LEAVES: readonly { leaf: Leaf; word: string }[] = [
  { leaf: 'figure', word: 'Figure' },
  { leaf: 'workings', word: 'Workings' },
];
const pointed = ref<string>();
const refusal = ref<string>();
const shelfOpen = ref(false);
const referenceOpen = ref(false);
const versionsOpen = ref(false);
const publishOpen = ref(false);
const conflictOpen = ref(false);

watch(
  () => route.params.id,
  () => load(),
  { immediate: true },
);
async function load(): Promise<void> {
  const { record, figure } = route.query as Record<string, string | undefined>;
  await store.load(String(route.params.id), record, !barred.value);
  if (figure !== undefined) store.select(figure);
}
watch(selected, () => (refusal.value = undefined));
watch(row, () => store.explain());

const groups = computed(() => {
  if (!template.value) return [];
  const lists = template.value.sheet.lists.map((list) => ({
    list: list.name,
    title: list.label,
    note: 'one row each',
    rows: view.value?.rows[list.name] ?? [],
  }));
  return [
    { list: LINES, title: 'Each line', note: 'computed for every line', rows: view.value?.rows[LINES] ?? [] },
    ...lists,
    { list: undefined, title: 'The document', note: 'once', rows: [] },
  ].map((group) => ({
    ...group,
    entries: formulas.value.filter(({ list, derived }) => list === group.list && !derived),
    made: formulas.value.find(({ derived }) => derived && derived.name === group.list),
  }));
});

function changeTable(at: number, next: LookupTable | undefined, words: string): void {
  const tables = [...(template.value?.sheet.tables ?? [])];
  if (next) tables[at] = next;
  else tables.splice(at, 1);
  store.setSheet({ tables: tables.length > 0 ? tables : undefined }, words);
}
function addTable(): void {
  const tables = template.value?.sheet.tables ?? [];
  const columns: LookupTable['columns'] = [
    { name: 'from', label: 'From', type: 'number' },
    { name: 'price', label: 'Price', type: 'money' },
  ];
  const table: LookupTable = { name: `table_${tables.length + 1}`, label: 'New table', columns, rows: [['0', '0']] };
  store.setSheet({ tables: [...tables, table] }, 'Table added');
}
function remove(): void {
  if (selected.value) refusal.value = store.remove(selected.value);
}
function rename(name: string): void {
  if (selected.value) refusal.value = store.rename(selected.value, name);
}
/** Ids of workings are the sheet's own; those of a figure lead to its row. */
function openWorkings(id: string | undefined): void {
  if (id === undefined) return store.select(undefined);
  const key = figureOfWorkings(id);
  if (formulas.value.some((each) => each.key === key)) store.select(key);
}
useKeys({
  'Control+Enter': () => (publishOpen.value = mayPublish.value),
});
</script>

<template>
  <div class="figures">
    <WhereAmI
      :title="`Figure sheet of ${template?.name ?? ''}`"
      here="Figure sheet"
      :way="[{ label: 'Templates', to: '/templates' }, { label: template?.name ?? '' }]"
    />
    <LazyMissingFields v-if="!barred && store.missing.length > 0" />
    <ProblemNote
      v-if="store.problem && !template"
      :problem="store.problem"
      :way="{ label: 'All templates', to: '/templates' }"
      @again="load"
    />
    <DeskAndLeaf v-else v-model="leaf" desk-label="Figure sheet" :leaves="LEAVES">
      <template #desk>
        <div class="desk">
          <div class="strip">
            <span class="quiet">For</span>
            <RecordPicker
              v-if="recordType"
              :type="recordType"
              :name="shownName"
              label="Record to show values for"
              @choose="chooseRecord"
            />
            <span class="spring"></span>
            <button type="button" class="in-words" :disabled="draft.past.length === 0" @click="store.undo">Undo</button>
            <button type="button" class="in-words" :disabled="draft.future.length === 0" @click="store.redo">
              Redo
            </button>
            <button type="button" class="in-words" @click="shelfOpen = true">Ready-made…</button>
            <button type="button" class="in-words" @click="store.addList">Add a list</button>
            <button type="button" class="in-words" @click="addTable">Add a table</button>
            <button type="button" class="in-words" @click="versionsOpen = true">Versions</button>
            <button type="button" class="in-words" @click="referenceOpen = true">Formula help</button>
          </div>
          <article v-if="template" class="sheet">
            <FigureGroup
              v-for="group in groups"
              :key="group.list ?? ''"
              :title="group.title"
              :note="group.note"
              :entries="group.made ? [group.made, ...group.entries] : group.entries"
              :fixed="group.made ? 1 : 0"
              :view="view"
              :selected="selected"
              :row="row"
              :rows="group.rows"
              :pointed="pointed ?? selected"
              @select="store.select"
              @write="(key, formula) => store.edit(key, { formula }, `Formula of ${store.labelOf(key)} changed`)"
              @move="(from, to) => store.reorder(group.list, from, to)"
              @add="store.add(group.list)"
              @help="referenceOpen = true"
              @point="pointed = $event"
              @row="row = $event"
            />
            <TableGroup
              v-for="(table, at) in template.sheet.tables ?? []"
              :key="at"
              :table="table"
              @change="(next, words) => changeTable(at, next, words)"
            />
          </article>
          <div v-else class="sheet waiting"><Skeleton v-for="at in 9" :key="at" height="18px" /></div>
        </div>
      </template>
      <template #leaf>
        <template v-if="leaf === 'workings'">
          <WorkingsLeaf
            :shown="store.workings"
            :figures="[]"
            :bridge="null"
            hint="Choose a figure to see how it comes about."
            @open="openWorkings"
          />
        </template>
        <FigureLeaf
          v-else-if="current"
          :entry="current"
          :view="view?.figures[current.key]"
          :label-of="store.labelOf"
          :refusal="refusal"
          @rename="rename"
          @edit="(part, words) => store.edit(current!.key, part, words)"
          @remove="remove"
          @open="store.select"
        />
        <SheetLeaf
          v-else-if="template"
          :sheet="template.sheet"
          :problems="view?.problems ?? []"
          @change="store.setSheet"
        />
      </template>
      <template #foot>
        <div class="foot">
          <p v-if="store.problem" class="fault" role="alert">
            <strong>{{ store.problem.title }}.</strong> {{ store.problem.detail }}
          </p>
          <p v-else-if="faults.length > 0" class="fault" role="status">
            <button type="button" class="in-words" @click="store.select(faults[0]!.key)">
              {{ store.labelOf(faults[0]!.key) }}</button>:
            {{ faults[0]!.message }}
            <template v-if="faults.length > 1"> And {{ faults.length - 1 }} more.</template>
          </p>
          <p v-else-if="!draft.announcement && failures.length > 0" class="fault" role="status">
            For this record
            <button type="button" class="in-words" @click="store.select(failures[0]!.key)">
              {{ store.labelOf(failures[0]!.key) }}
            </button>
            has no value: {{ failures[0]!.message.replace(/\.?$/, '.') }}
            <template v-if="failures.length > 1"> {{ failures.length - 1 }} more have none either.</template>
          </p>
          <p v-else class="quiet" role="status">
            {{
              draft.announcement ??
              barred ??
              (view
                ? `${opened?.version ? `Version ${opened.version}. ` : ''}${formulas.length} figures, all in order.`
                : 'Computing the figures …')
            }}
          </p>
          <span class="end">
            <DraftState @conflict="conflictOpen = true" @discard="draft.throwAway(selected)" />
            <PermittedButton
              label="Publish"
              :disabled="!barred && !mayPublish"
              :why-not="barred"
              @press="publishOpen = true"
            />
          </span>
        </div>
      </template>
    </DeskAndLeaf>
    <TemplateVersions v-model:open="versionsOpen" :template-id="String(route.params.id)" />
    <PublishDraft v-model:open="publishOpen" />
    <DraftConflict v-model:open="conflictOpen" />
    <CalculationShelf v-model:visible="shelfOpen" @take="store.take" />
    <FormulaReference v-model:visible="referenceOpen" />
  </div>
</template>

<style scoped>
.figures {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.figures > :last-child {
  flex: 1;
  min-height: 0;
}
.desk {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 12px 20px 0;
}
.strip {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  padding-bottom: 10px;
}
.spring {
  flex: 1;
}
.sheet {
  flex: 1;
  min-height: 0;
  overflow: auto;
  background: var(--sheet);
  box-shadow: var(--sheet-shadow);
}
.waiting {
  display: grid;
  align-content: start;
  gap: 16px;
  padding: 24px;
}
.foot {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  min-height: 54px;
  padding: 8px 14px 8px 20px;
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.end {
  display: flex;
  flex: none;
  align-items: center;
  gap: 16px;
}
.fault {
  color: var(--brick);
}
</style>
