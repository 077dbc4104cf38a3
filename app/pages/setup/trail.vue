<script setup lang="ts">
import type { Answer } from '~/composables/api';
import { useRecordTypesStore } from '~/stores/record-types';

/** The audit trail: who did what, when, to which. */
const PAGE = 50;
const types = useRecordTypesStore();
const list = useListQuery({ sort: 'at', descending: true });
const KINDS = ['document', 'template', 'record', 'record type', 'person', 'token', 'rules', 'connection'];
const filter = computed(() => ({
  search: list.search.value || undefined,
  person: list.read('person'),
  subjectKind: list.read('subjectKind'),
  subjectId: list.read('subjectId'),
  from: list.read('from'),
  until: list.read('until'),
}));
const page = useLoaded(() => api('GET /trail', { query: { ...filter.value, skip: list.skip.value, top: PAGE } }));
watch(list.whole, page.reload, { immediate: true });
const isFiltered = computed(() => Object.values(filter.value).some(Boolean));

/** Where something is found, if it has a page. */
function pageOf({ subjectKind, subjectId }: Answer<'GET /trail'>['entries'][number]): string | undefined {
  if (subjectKind === 'document') return `/register/${subjectId}`;
  if (subjectKind === 'template') return `/templates/${subjectId}/figures`;
  // Records are named by their type and id.
  const [, type, id] = /^(\S+) (.+)$/.exec(subjectId) ?? [];
  return subjectKind === 'record' && type && id && types.named(type) ? recordPath(type, id) : undefined;
}
</script>

<template>
  <ListScreen :problem="page.problem.value" @again="page.reload">
    <template #strip>
      <SearchField :value="list.search.value" label="Search the trail" @search="list.change({ search: $event })" />
      <span v-if="list.read('person') || list.read('subjectId')" class="one"
        >One {{ list.read('person') ? 'person' : 'subject' }} only
        <button type="button" @click="list.change({ person: undefined, subjectId: undefined })">Show all</button></span
      >
      <ChoiceFilter
        label="Of"
        :value="list.read('subjectKind') ?? ''"
        :options="KINDS"
        @choose="list.change({ subjectKind: $event })"
      />
      <DaysFilter :list="list" />
      <a class="out" :href="addressOf('GET /trail.csv', { query: filter })" download>Export as CSV</a>
    </template>
    <ListTable :rows="page.value.value?.entries" :total="page.value.value?.total ?? 0" :per-page="PAGE" :list="list">
      <Column header="When" style="width: 150px"
        ><template #body="{ data }"
          ><span class="quiet">{{ momentText(data.at) }}</span></template
        ></Column
      >
      <Column header="Who" style="width: 170px"
        ><template #body="{ data }"
          >{{ data.personName }}<span v-if="data.via === 'token'" class="quiet">, by a program</span></template
        ></Column
      >
      <Column header="What"
        ><template #body="{ data }">{{ data.sentence }}</template></Column
      >
      <Column header="To which" style="width: 220px"
        ><template #body="{ data }"
          ><NuxtLink v-if="pageOf(data)" :to="pageOf(data)!">{{ data.subjectName }}</NuxtLink
          ><template v-else>{{ data.subjectName }}</template>
          <span class="quiet kind">{{ data.subjectKind }}</span></template
        ></Column
      >
      <template #empty>
        <EmptyNote v-if="isFiltered" title="No matching entries">Search for less, or choose other dates.</EmptyNote>
        <EmptyNote v-else title="Nothing has happened yet">Whatever people change from now on is told here.</EmptyNote>
      </template>
    </ListTable>
  </ListScreen>
</template>

<style scoped>
.one {
  color: var(--ink-quiet);
}
.one button {
  padding: 0;
  background: none;
  border: 0;
  color: var(--verdigris);
  text-decoration: underline;
  cursor: pointer;
}
.kind {
  margin-left: 6px;
}
.out {
  margin-left: 6px;
  font-size: 12px;
}
:deep(.p-datatable-tbody > tr) {
  cursor: default;
}
</style>
