<script setup lang="ts">
import { LINES } from '#core/formula/figure';

type Leaf = 'figure' | 'workings';
const route = useRoute();
const store = useFiguresStore();
const { view, formulas, current, selected, row, told, faults, changed, opened, template, snapshot } =
  storeToRefs(store);
const leaf = ref<Leaf>('figure');
const LEAVES: readonly { leaf: Leaf; word: string }[] = [
  { leaf: 'figure', word: 'Figure' },
  { leaf: 'workings', word: 'Workings' },
];
const pointed = ref<string>();
const refusal = ref<string>();
const shelfOpen = ref(false);
const referenceOpen = ref(false);
const deals = useLoaded(() => api.deals({ view: 'all', sort: 'name', top: 100 }));
void deals.reload();

watch(() => route.params.id, (id) => store.load(String(id), route.query.deal as string | undefined), { immediate: true }); // prettier-ignore
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

async function chooseDeal(id: string): Promise<void> {
  await navigateTo({ query: { ...route.query, deal: id } }, { replace: true });
  await store.choose(id);
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
  const [name] = id.split(' of ');
  const list = /\.lines\{/.test(id) ? LINES : /of (\w+)\{/.exec(id)?.[1];
  const key = list === undefined ? name! : `${list}.${name}`;
  if (formulas.value.some((each) => each.key === key)) store.select(key);
}
/** Undoing belongs to the sheet, unless a formula is being written: then to what is written there. */
function unlessWriting(action: () => void): (event: KeyboardEvent) => void {
  return (event) => (event.target as HTMLElement).closest('.cm-editor, input, select') || action();
}
useEventListener('keydown', (event) => {
  if (!(event.ctrlKey || event.metaKey)) return;
  const key = event.key.toLowerCase();
  if (key === 'z' && !event.shiftKey) unlessWriting(store.undo)(event);
  if (key === 'y' || (key === 'z' && event.shiftKey)) unlessWriting(store.redo)(event);
});
useKeys({ 'Control+Enter': () => store.publish() });
onBeforeRouteLeave(() => !changed.value || window.confirm('The figure sheet has changes that are not published. Leave and lose them?')); // prettier-ignore
useEventListener(window, 'beforeunload', (event) => changed.value && event.preventDefault());
</script>

<template>
  <div class="figures">
    <WhereAmI :title="`Figure sheet of ${template?.name ?? ''}`">
      <span class="quiet"><NuxtLink to="/templates">Templates</NuxtLink> › {{ template?.name }} › </span>Figure sheet
    </WhereAmI>
    <ProblemNote
      v-if="store.problem && !template"
      :problem="store.problem"
      @again="store.load(String(route.params.id), undefined)"
    />
    <DeskAndLeaf v-else v-model="leaf" desk-label="Figure sheet" :leaves="LEAVES">
      <template #desk>
        <div class="desk">
          <div class="strip">
            <label
              ><span class="quiet">For</span>
              <select
                :value="snapshot?.id"
                aria-label="Deal to show values for"
                @change="chooseDeal(($event.target as HTMLSelectElement).value)"
              >
                <option v-for="{ deal } in deals.value.value?.deals ?? []" :key="deal.id" :value="deal.id">
                  {{ deal.fields.name }}
                </option>
              </select>
            </label>
            <span class="spring"></span>
            <button type="button" :disabled="!changed" @click="store.undo">Undo</button>
            <button type="button" :disabled="store.future.length === 0" @click="store.redo">Redo</button>
            <button type="button" @click="shelfOpen = true">Ready-made…</button>
            <button type="button" @click="store.addList">Add a list</button>
            <button type="button" @click="referenceOpen = true">Formulas ?</button>
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
        <div v-else class="legend">
          <p>Choose a figure to write its formula and to see where it is used.</p>
          <p><i class="uses"></i> what the figure pointed at is computed from</p>
          <p><i class="used"></i> what is computed from it</p>
          <p class="quiet">
            Drag by the dots to put figures in another order, or hold Alt and press an arrow. The order never changes a
            value.
          </p>
        </div>
      </template>
      <template #foot>
        <div class="foot">
          <p v-if="store.problem" class="fault" role="alert">
            <strong>{{ store.problem.title }}.</strong> {{ store.problem.detail }}
          </p>
          <p v-else-if="faults.length > 0" class="fault" role="status">
            <button type="button" @click="store.select(faults[0]!.key)">{{ store.labelOf(faults[0]!.key) }}</button>:
            {{ faults[0]!.message }}
            <template v-if="faults.length > 1"> And {{ faults.length - 1 }} more.</template>
          </p>
          <p v-else class="quiet" role="status">
            {{ told ?? `Version ${opened?.version ?? ''}. ${formulas.length} figures, all in order.` }}
          </p>
          <Button
            label="Publish"
            :disabled="!changed || faults.length > 0 || store.busy"
            :loading="store.busy"
            @click="store.publish"
          />
        </div>
      </template>
    </DeskAndLeaf>
    <CalculationShelf v-model:visible="shelfOpen" @take="store.take" />
    <FormulaReference v-model:visible="referenceOpen" />
  </div>
</template>

<style scoped>
.figures {
  height: 100%;
}
.desk {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 12px 20px 0;
}
.strip {
  display: flex;
  align-items: center;
  gap: 16px;
  padding-bottom: 10px;
}
.strip label {
  display: flex;
  gap: 6px;
}
.spring {
  flex: 1;
}
.strip button,
.fault button {
  padding: 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  font-weight: 500;
  cursor: pointer;
}
.strip button:disabled {
  color: #8a9693;
  cursor: default;
}
.strip select {
  max-width: 280px;
  background: none;
  border: 0;
  border-bottom: 1px dotted var(--verdigris);
  font-weight: 500;
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
.legend {
  display: grid;
  gap: 8px;
  padding: 12px 14px;
}
.legend i {
  display: inline-block;
  width: 18px;
  height: 12px;
  margin-right: 6px;
  border: 1px solid var(--hairline);
  vertical-align: -1px;
}
.uses {
  background: var(--verdigris-50);
}
.used {
  background: var(--brass-50);
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
.fault {
  color: var(--brick);
}
</style>
