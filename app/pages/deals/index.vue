<script setup lang="ts">
import type { DataTableRowClickEvent, DataTableSortEvent } from 'primevue/datatable';
import type { Answer } from '~/composables/api';
import { useMeStore } from '~/stores/me';

type DealRow = Answer<'GET /deals'>['deals'][number];

/** The list of deals, page by page. */
const PAGE = 25;
const VIEWS = [
  { view: 'all', word: 'All' },
  { view: 'needs-quote', word: 'Needs a quote' },
  { view: 'quoted', word: 'Quoted' },
] as const;

const list = useListQuery({ sort: 'closes_on', descending: false });
const view = computed(() => list.read('view') ?? 'all');
const selected = shallowRef<DealRow>();
const store = useMeStore();

const page = useLoaded(() =>
  api('GET /deals', {
    query: {
      view: view.value as (typeof VIEWS)[number]['view'],
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
const summary = useLoaded(() => api('GET /deals/summary'));
const templates = useLoaded(() => api('GET /templates'));
const rows = computed(() => page.value.value?.deals ?? []);
const isOld = useOlderThan(() => page.value.value?.knownAt, 60_000);
const filtered = computed(() => !!(list.search.value || list.read('stage') || list.read('owner')));

watch(list.whole, page.reload, { immediate: true });
watch(page.value, () => (selected.value = undefined));
void summary.reload();
void templates.reload();

useKeys({ 'Control+Enter': produce });

function sort(event: DataTableSortEvent): void {
  list.change({ sort: String(event.sortField ?? 'closes_on'), descending: String(event.sortOrder === -1) });
}

function open(event: DataTableRowClickEvent<DealRow>): void {
  void navigateTo(`/deals/${event.data.id}`);
}

function produce(): void {
  const template = templates.value.value?.[0];
  if (selected.value && template && !store.mayNot('prove'))
    void navigateTo(`/deals/${selected.value.id}/produce/${template.id}`);
}
</script>

<template>
  <div class="screen-root">
    <WhereAmI title="Deals" />
    <ListScreen :problem="page.problem.value" @again="page.reload">
      <template #strip>
        <nav class="views" aria-label="Views">
          <button
            v-for="{ view: each, word } in VIEWS"
            :key="each"
            type="button"
            :class="{ on: view === each }"
            :aria-pressed="view === each"
            @click="list.change({ view: each === 'all' ? undefined : each })"
          >
            {{ word }} <b>{{ summary.value.value?.counts[each] ?? '' }}</b>
          </button>
        </nav>
        <SearchField :value="list.search.value" label="Search deals" @search="list.change({ search: $event })" />
        <PlainSelect
          label="Stage"
          :value="list.read('stage') ?? ''"
          :options="summary.value.value?.stages ?? []"
          @choose="list.change({ stage: $event })"
        />
        <PlainSelect
          label="Owner"
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
        <Column field="name" header="Deal" sortable
          ><template #body="{ data }"
            ><NuxtLink class="deal" :to="`/deals/${data.id}`" @click.stop>{{ data.name }}</NuxtLink></template
          ></Column
        >
        <Column field="account" header="Account" sortable
          ><template #body="{ data }"
            ><bdi>{{ data.account }}</bdi></template
          ></Column
        >
        <Column field="stage" header="Stage" sortable
          ><template #body="{ data }">{{ data.stage }}</template></Column
        >
        <Column field="amount" header="Amount" sortable class="end"
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
        <Column field="closes_on" header="Closes" sortable class="end quiet"
          ><template #body="{ data }">{{ data.day ? dayText(data.day) : '' }}</template></Column
        >
        <template #empty>
          <TableSkeleton v-if="page.loading.value" />
          <EmptyNote v-else-if="page.value.value?.knownAt === null" title="Reading the deals of the CRM"
            >The first time takes a moment: they are listed here as soon as they are read.</EmptyNote
          >
          <EmptyNote v-else-if="filtered" title="No deal fits">
            Nothing in this view has these words, stage and owner.
            <template #action
              ><Button
                label="Show all deals"
                severity="secondary"
                outlined
                size="small"
                @click="list.change({ search: undefined, stage: undefined, owner: undefined })"
            /></template>
          </EmptyNote>
          <EmptyNote v-else-if="view === 'quoted'" title="Nothing quoted yet"
            >Open a deal and produce its quote; it will be listed here.</EmptyNote
          >
          <EmptyNote v-else title="No deals here"
            >When the CRM has deals for this view, they are listed here.</EmptyNote
          >
        </template>
      </DataTable>
      <template #foot>
        <footer v-if="selected" class="foot">
          <b>1 deal chosen</b>
          <span class="quiet"
            >{{ selected.name }} · <bdi>{{ selected.account }}</bdi></span
          >
          <Button
            class="open"
            label="Open"
            severity="secondary"
            outlined
            @click="navigateTo(`/deals/${selected.id}`)"
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
.deal {
  color: var(--ink);
  font-weight: 500;
  text-decoration: none;
}
.deal:hover {
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
