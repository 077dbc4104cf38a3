<script setup lang="ts">
import type { DataTableRowClickEvent, DataTableSortEvent } from 'primevue/datatable';
import type { DocumentRow } from '~/composables/api';
import { useRecordTypesStore } from '~/stores/record-types';

/** The register: every document, page by page. */
const PAGE = 50;
const list = useListQuery({ sort: 'created', descending: true });
const page = useLoaded(() =>
  api('GET /documents', {
    query: {
      search: list.search.value || undefined,
      state: list.read('state') as DocumentRow['state'] | undefined,
      sort: list.sort.value,
      descending: list.descending.value,
      skip: list.skip.value,
      top: PAGE,
    },
  }),
);
const types = useRecordTypesStore();
/** Where documents are made from one type of records, they are called by it. */
const oneType = computed(() => (types.types?.length === 1 ? types.types[0] : undefined));
const rows = computed(() => page.value.value?.documents ?? []);
const totals = computed(() =>
  (page.value.value?.totals ?? [])
    .filter(({ amount }) => amount)
    .map(({ amount, currency }) => sumText(amount, currency))
    .join(' · '),
);
const SAID = {
  preparing: 'being prepared',
  rendered: 'being filed',
  filed: 'filed',
  failed: 'void',
};

watch(list.whole, page.reload, { immediate: true });

function sort(event: DataTableSortEvent): void {
  list.change({ sort: String(event.sortField ?? 'created'), descending: String(event.sortOrder === -1) });
}

function open(event: DataTableRowClickEvent<DocumentRow>): void {
  void navigateTo(`/register/${event.data.id}`);
}
</script>

<template>
  <div class="screen-root">
    <WhereAmI title="Register" />
    <ListScreen :problem="page.problem.value" @again="page.reload">
      <template #strip>
        <p class="quiet count">
          <template v-if="page.value.value"
            >{{ page.value.value.total === 1 ? 'One document' : `${page.value.value.total} documents`
            }}<template v-if="totals">; filed in all {{ totals }}</template></template
          >
        </p>
        <SearchField :value="list.search.value" label="Search the register" @search="list.change({ search: $event })" />
        <PlainSelect
          label="State"
          :value="list.read('state') ?? ''"
          :options="['filed', 'rendered', 'failed']"
          @choose="list.change({ state: $event })"
        />
      </template>

      <DataTable
        :value="rows"
        data-key="id"
        lazy
        scrollable
        scroll-height="flex"
        row-hover
        :sort-field="list.sort.value"
        :sort-order="list.descending.value ? -1 : 1"
        paginator
        :rows="PAGE"
        :first="list.skip.value"
        :always-show-paginator="false"
        :total-records="page.value.value?.total ?? 0"
        @sort="sort"
        @page="list.change({ skip: String($event.first) })"
        @row-click="open"
      >
        <Column field="number" header="Number" sortable
          ><template #body="{ data }"
            ><NuxtLink class="number" :class="data.state" :to="`/register/${data.id}`">{{
              data.number
            }}</NuxtLink></template
          ></Column
        >
        <Column header="Kind"
          ><template #body="{ data }">{{ data.kind }}</template></Column
        >
        <Column field="record" :header="oneType?.label ?? 'Record'" sortable
          ><template #body="{ data }">{{ data.recordName }}</template></Column
        >
        <Column field="account" header="Account" sortable
          ><template #body="{ data }"
            ><bdi>{{ data.accountName }}</bdi></template
          ></Column
        >
        <Column field="amount" header="Total" sortable class="end"
          ><template #body="{ data }">{{ sumText(data.amount, data.currency) }}</template></Column
        >
        <Column header="State"
          ><template #body="{ data }"
            ><span :class="data.state">{{ data.dueAt ? 'waiting' : SAID[data.state as DocumentRow['state']] }}</span
            ><span v-if="data.reason" class="quiet"> · {{ data.reason }}</span
            ><span v-if="data.dueAt" class="quiet"> Next try {{ momentText(data.dueAt) }}.</span></template
          ></Column
        >
        <Column field="created" header="Made" sortable class="end quiet"
          ><template #body="{ data }">{{ momentText(data.createdAt) }}</template></Column
        >
        <template #empty>
          <TableSkeleton v-if="page.loading.value" />
          <EmptyNote v-else-if="list.search.value || list.read('state')" title="No document fits">
            Nothing in the register has these words and this state.
            <template #action
              ><Button
                label="Show all documents"
                severity="secondary"
                outlined
                size="small"
                @click="list.change({ search: undefined, state: undefined })"
            /></template>
          </EmptyNote>
          <EmptyNote v-else title="Nothing produced yet">
            Every document that is produced is kept here, with the data it was made from. Choose a
            {{ oneType?.label.toLowerCase() ?? 'record' }} to make the first.
            <template #action><Button label="Choose one" size="small" @click="navigateTo('/')" /></template>
          </EmptyNote>
        </template>
      </DataTable>
    </ListScreen>
  </div>
</template>

<style scoped>
.screen-root {
  height: 100%;
}
.screen-root :deep(td) {
  height: 40px;
}
.screen-root :deep(.end) {
  white-space: nowrap;
}
.number {
  white-space: nowrap;
  color: var(--ink);
  font-weight: 500;
  text-decoration: none;
}
.number:hover {
  text-decoration: underline;
}
.number.failed {
  text-decoration: line-through;
}
span.failed {
  color: var(--brick);
}
span.filed {
  color: var(--verdigris);
}
</style>
