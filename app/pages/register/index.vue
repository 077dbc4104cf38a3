<script setup lang="ts">
import { documentsAsked, ROWS } from '#core/contract/page-reads';
import type { DocumentRow } from '~/composables/api';
import { useRecordTypesStore } from '~/stores/record-types';

/** The register: every document, page by page. */
const list = useListQuery({ sort: 'created', descending: true });
const page = useLoaded(() => api('GET /documents', { query: documentsAsked(list.query.value) }));
const types = useRecordTypesStore();
/** Where documents are made from one type of records, they are called by it. */
const oneType = computed(() => (types.types?.length === 1 ? types.types[0] : undefined));
const filters = useLoaded(() => api('GET /register'));
void filters.reload();
const FILTERS = ['kind', 'state', 'by', 'from', 'until'] as const;
const isFiltered = computed(() => ['search', ...FILTERS].some((name) => list.read(name)));
/** What was filed, each kind for itself: a quote and the invoice after it are about the same money. */
const totals = computed(() => {
  const filed = (page.value.value?.totals ?? []).filter(({ amount }) => amount);
  const kinds = [...new Set(filed.map(({ kind }) => kind))];
  return kinds.map((kind) => ({
    kind,
    sums: filed.filter((each) => each.kind === kind).map(({ amount, currency }) => sumText(amount, currency)),
  }));
});
const SAID = {
  preparing: 'being prepared',
  rendered: 'being filed',
  filed: 'filed',
  failed: 'void',
} as const;
function stateWords({ state, validity, dueAt, isHeld, stepsLeft }: DocumentRow): string {
  if (validity !== 'current') return validity;
  if (state !== 'filed') return dueAt ? 'waiting' : SAID[state];
  if (isHeld) return 'filed, a step is held';
  return stepsLeft > 0 && dueAt ? 'filed, a step waits' : SAID[state];
}
const STATES = Object.entries(SAID).map(([value, label]) => ({ value, label }));

watch(list.whole, page.reload, { immediate: true });

const open = ({ id }: DocumentRow) => navigateTo(`/register/${id}`);

await soon(types.load(), page.first, filters.first);
</script>

<template>
  <div class="screen-root">
    <WhereAmI title="Register" />
    <ListScreen :problem="page.problem.value" @again="page.reload">
      <template #strip>
        <SearchField :value="list.search.value" label="Search the register" @search="list.change({ search: $event })" />
        <ChoiceFilter
          label="Kind"
          :value="list.read('kind') ?? ''"
          :options="filters.value.value?.kinds ?? []"
          @choose="list.change({ kind: $event })"
        />
        <ChoiceFilter
          label="State"
          :value="list.read('state') ?? ''"
          :options="STATES"
          @choose="list.change({ state: $event })"
        />
        <ChoiceFilter
          label="Filed by"
          :value="list.read('by') ?? ''"
          :options="filters.value.value?.people ?? []"
          @choose="list.change({ by: $event })"
        />
        <DaysFilter :list="list" />
        <Button
          v-if="isFiltered"
          label="Clear filters"
          severity="secondary"
          text
          size="small"
          @click="list.clear(...FILTERS)"
        />
        <p class="quiet count">
          <template v-if="page.value.value"
            >{{ page.value.value.total === 1 ? '1 document' : `${page.value.value.total} documents`
            }}<template v-for="({ kind, sums }, at) in totals" :key="kind"
              >{{ at === 0 ? '. Filed: ' : '; ' }}{{ kind }} {{ sums.slice(0, 2).join(', ')
              }}<template v-if="sums.length > 2"> and {{ sums.length - 2 }} other currencies</template></template
            ></template
          >
        </p>
      </template>

      <ListTable
        :rows="page.value.value?.documents"
        :total="page.value.value?.total ?? 0"
        :per-page="ROWS.documents"
        :list="list"
        @open="open"
      >
        <Column field="number" header="Number" sortable
          ><template #body="{ data }"
            ><NuxtLink class="number" :class="[data.state, data.validity]" :to="`/register/${data.id}`">{{
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
            ><span :class="[data.state, data.validity]">{{ stateWords(data) }}</span
            ><span v-if="data.reason" class="quiet"> · {{ data.reason }}</span
            ><span v-if="data.dueAt" class="quiet"> Next try {{ momentText(data.dueAt) }}.</span></template
          ></Column
        >
        <Column field="created" header="Created" sortable class="end quiet"
          ><template #body="{ data }">{{ momentText(data.createdAt) }}</template></Column
        >
        <template #empty>
          <EmptyNote v-if="isFiltered" title="No matching documents">
            Nothing in the register has these words and fits these filters.
            <template #action
              ><Button label="Clear filters" severity="secondary" outlined size="small" @click="list.clear(...FILTERS)"
            /></template>
          </EmptyNote>
          <EmptyNote v-else title="Nothing produced yet">
            Every document that is produced is kept here, with the data it was made from. Choose a
            {{ oneType?.label.toLowerCase() ?? 'record' }} to make the first.
            <template #action><Button label="Choose one" size="small" @click="navigateTo('/')" /></template>
          </EmptyNote>
        </template>
      </ListTable>
    </ListScreen>
  </div>
</template>

<style scoped>
.screen-root {
  height: 100%;
}
.screen-root :deep(.end) {
  white-space: nowrap;
}
.count {
  flex-basis: 100%;
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
.number.superseded {
  font-weight: 400;
}
.number.void,
.number.failed {
  text-decoration: line-through;
}
span.filed {
  color: var(--verdigris);
}
span.superseded,
.number.superseded {
  color: var(--ink-quiet);
}
span.void,
span.failed {
  color: var(--brick);
}
</style>
