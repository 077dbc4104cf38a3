<script setup lang="ts">
import type { DataTableRowClickEvent, DataTableSortEvent } from 'primevue/datatable';
import type { Answer } from '~/composables/api';
import { useMeStore } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';

type RecordRow = Answer<'GET /records/{type}'>['records'][number];

/** The list of records of a type, page by page. */
const PAGE = 25;
const ALL_VIEWS = [
  { view: 'all', word: 'All' },
  { view: 'needs-quote', word: 'Needs a quote' },
  { view: 'quoted', word: 'Quoted' },
] as const;
type View = (typeof ALL_VIEWS)[number]['view'];

const route = useRoute();
const types = useRecordTypesStore();
const type = computed(() => String(route.params.type));
const known = computed(() => types.named(type.value));
const parts = computed(() => known.value?.parts ?? {});
const called = computed(() => types.called(type.value));
const many = computed(() => (known.value?.plural ?? 'Records').toLowerCase());
const views = computed(() => ALL_VIEWS.filter(({ view: each }) => each !== 'needs-quote' || known.value?.needsQuote));
const list = useListQuery({ sort: 'day', descending: false });
const view = computed(() => list.read('view') ?? 'all');
const selected = shallowRef<RecordRow>();
const store = useMeStore();

const page = useLoaded(() =>
  api('GET /records/{type}', {
    parameters: { type: type.value },
    query: {
      view: view.value as View,
      search: list.search.value || undefined,
      stage: list.read('stage'),
      owner: list.read('owner'),
      sort: list.sort.value,
      descending: list.descending.value,
      skip: list.skip.value,
      top: PAGE,
    },
  }),
);
const summary = useLoaded(() => api('GET /record-types/{type}', { parameters: { type: type.value } }));
const templates = useLoaded(() => api('GET /templates'));
const rows = computed(() => page.value.value?.records ?? []);
const isOld = useOlderThan(() => page.value.value?.knownAt, 60_000);
const filtered = computed(() => !!(list.search.value || list.read('stage') || list.read('owner')));

watch(list.whole, page.reload, { immediate: true });
watch(page.value, () => (selected.value = undefined));
void summary.reload();
void templates.reload();

useKeys({ 'Control+Enter': produce });

function sort(event: DataTableSortEvent): void {
  list.change({ sort: String(event.sortField ?? 'day'), descending: String(event.sortOrder === -1) });
}

function open(event: DataTableRowClickEvent<RecordRow>): void {
  void navigateTo(recordPath(type.value, event.data.id));
}

function produce(): void {
  const template = templates.value.value?.find(({ recordType }) => recordType === type.value);
  if (selected.value && template && !store.mayNot('prove'))
    void navigateTo(producePath(type.value, selected.value.id, template.id));
}
</script>

<template>
  <div class="screen-root">
    <WhereAmI :title="known?.plural ?? 'Records'" />
    <ListScreen :problem="page.problem.value" @again="page.reload">
      <template #strip>
        <nav class="views" aria-label="Views">
          <button
            v-for="{ view: each, word } in views"
            :key="each"
            type="button"
            :class="{ on: view === each }"
            :aria-pressed="view === each"
            @click="list.change({ view: each === 'all' ? undefined : each })"
          >
            {{ word }} <b>{{ summary.value.value?.counts[each] ?? '' }}</b>
          </button>
        </nav>
        <SearchField :value="list.search.value" :label="`Search ${many}`" @search="list.change({ search: $event })" />
        <PlainSelect
          v-if="parts.stage"
          :label="parts.stage"
          :value="list.read('stage') ?? ''"
          :options="summary.value.value?.stages ?? []"
          @choose="list.change({ stage: $event })"
        />
        <PlainSelect
          v-if="parts.owner"
          :label="parts.owner"
          :value="list.read('owner') ?? ''"
          :options="summary.value.value?.owners ?? []"
          @choose="list.change({ owner: $event })"
        />
        <span v-if="isOld" class="old" role="status"
          >The CRM does not answer. This is as of {{ momentText(page.value.value!.knownAt!) }}.</span
        >
      </template>

      <DataTable
        v-model:selection="selected"
        :value="rows"
        data-key="id"
        selection-mode="single"
        meta-key-selection
        lazy
        scrollable
        scroll-height="flex"
        :sort-field="list.sort.value"
        :sort-order="list.descending.value ? -1 : 1"
        paginator
        :rows="PAGE"
        :first="list.skip.value"
        :always-show-paginator="false"
        :total-records="page.value.value?.total ?? 0"
        :loading="page.loading.value && rows.length > 0"
        @sort="sort"
        @page="list.change({ skip: String($event.first) })"
        @row-dblclick="open"
      >
        <Column style="width: 34px"
          ><template #body="{ data }"><span class="tick" :class="{ on: selected?.id === data.id }" /></template
        ></Column>
        <Column field="name" :header="known?.label ?? 'Record'" sortable
          ><template #body="{ data }"
            ><NuxtLink class="record" :to="recordPath(type, data.id)" @click.stop>{{ data.name }}</NuxtLink></template
          ></Column
        >
        <Column v-if="parts.account" field="account" :header="parts.account" sortable
          ><template #body="{ data }"
            ><bdi>{{ data.account }}</bdi></template
          ></Column
        >
        <Column v-if="parts.stage" field="stage" :header="parts.stage" sortable
          ><template #body="{ data }">{{ data.stage }}</template></Column
        >
        <Column v-if="parts.amount" field="amount" :header="parts.amount" sortable class="end"
          ><template #body="{ data }">{{ sumText(data.amount, data.currency) || '–' }}</template></Column
        >
        <Column header="Paper trail" class="trail"
          ><template #body="{ data }">
            <SheetGlyph v-if="data.paperTrail.length === 0" kind="quote" state="none" />
            <NuxtLink
              v-for="entry in data.paperTrail"
              :key="entry.id"
              class="glyph-link"
              :to="`/register/${entry.id}`"
              :aria-label="`${entry.kind} ${entry.number}`"
              @click.stop
              ><SheetGlyph :kind="entry.kind" :state="entry.state"
            /></NuxtLink> </template
        ></Column>
        <Column v-if="parts.day" field="day" :header="parts.day" sortable class="end quiet"
          ><template #body="{ data }">{{ data.day ? dayText(data.day) : '' }}</template></Column
        >
        <template #empty>
          <TableSkeleton v-if="page.loading.value" />
          <EmptyNote v-else-if="page.value.value?.knownAt === null" :title="`Reading the ${many} of the CRM`"
            >The first time takes a moment: they are listed here as soon as they are read.</EmptyNote
          >
          <EmptyNote v-else-if="filtered" :title="`No ${called} fits`">
            Nothing in this view has these words, stage and owner.
            <template #action
              ><Button
                :label="`Show all ${many}`"
                severity="secondary"
                outlined
                size="small"
                @click="list.change({ search: undefined, stage: undefined, owner: undefined })"
            /></template>
          </EmptyNote>
          <EmptyNote v-else-if="view === 'quoted'" title="Nothing quoted yet"
            >Open a {{ called }} and produce its quote; it will be listed here.</EmptyNote
          >
          <EmptyNote v-else :title="`No ${many} here`"
            >When the CRM has {{ many }} for this view, they are listed here.</EmptyNote
          >
        </template>
      </DataTable>
      <template #foot>
        <footer v-if="selected" class="foot">
          <b>1 {{ called }} chosen</b>
          <span class="quiet"
            >{{ selected.name }} · <bdi>{{ selected.account }}</bdi></span
          >
          <Button
            class="open"
            label="Open"
            severity="secondary"
            outlined
            @click="navigateTo(recordPath(type, selected.id))"
          />
          <PermittedButton label="Produce" :why-not="store.mayNot('prove')" @press="produce" />
        </footer>
      </template>
    </ListScreen>
  </div>
</template>

<style scoped>
.screen-root {
  height: 100%;
}
.views {
  display: flex;
  gap: 4px;
}
.views button {
  padding: 4px 10px;
  border: 1px solid transparent;
  border-radius: 3px;
  background: none;
  color: var(--ink-quiet);
  cursor: pointer;
}
.views b {
  margin-left: 3px;
  color: var(--ink);
  font-weight: 500;
}
.views .on {
  background: var(--sheet);
  border-color: var(--hairline);
  color: var(--ink);
  font-weight: 500;
}
.screen-root :deep(td) {
  height: 50px;
}
.old {
  color: var(--brick);
}
.tick {
  display: block;
  width: 15px;
  height: 15px;
  border: 1.3px solid #9aa5a1;
  border-radius: 2px;
}
.tick.on {
  background: var(--verdigris);
  border-color: var(--verdigris);
}
.record {
  color: var(--ink);
  font-weight: 500;
  text-decoration: none;
}
.record:hover {
  text-decoration: underline;
}
.glyph-link {
  margin-right: 12px;
  text-decoration: none;
}
.foot {
  display: flex;
  gap: 16px;
  align-items: center;
  height: 52px;
  padding: 0 16px;
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.foot b {
  font-weight: 500;
}
.open {
  margin-left: auto;
}
</style>
