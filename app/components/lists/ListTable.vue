<script setup lang="ts" generic="Row extends { id: string }">
import type { DataTableRowClickEvent, DataTableSortEvent } from 'primevue/datatable';

/** The table of a list: its columns come as they are, and order and page are kept in the address. */
const {
  rows,
  list,
  rowHeight = 40,
  mayChoose = false,
} = defineProps<{
  /** Of the page that is shown; undefined until they are there. */
  rows: readonly Row[] | undefined;
  /** Of all pages. */
  total: number;
  perPage: number;
  list: ReturnType<typeof useListQuery>;
  /** In pixels. */
  rowHeight?: number;
  /** Whether rows can be chosen; otherwise a click opens one. */
  mayChoose?: boolean;
}>();
const chosen = defineModel<Row[]>('chosen', { default: () => [] });
const emit = defineEmits<{ open: [row: Row] }>();
const drawn = useDrawnRows(() => rows ?? [], rowHeight);

const sort = ({ sortField, sortOrder }: DataTableSortEvent) =>
  list.change({ sort: String(sortField ?? ''), descending: String(sortOrder === -1) });
const open = ({ data }: DataTableRowClickEvent<Row>) => emit('open', data);
</script>

<template>
  <TableSkeleton v-if="!rows" :row-height="rowHeight" />
  <slot v-else-if="rows.length === 0" name="empty" />
  <DataTable
    v-else
    v-model:selection="chosen"
    :value="drawn as Row[]"
    data-key="id"
    :selection-mode="mayChoose ? 'multiple' : undefined"
    meta-key-selection
    highlight-on-select
    lazy
    scrollable
    scroll-height="flex"
    row-hover
    :style="{ '--row-height': `${rowHeight}px` }"
    :pt="{ tableContainer: { tabindex: mayChoose ? undefined : 0 } }"
    :sort-field="list.sort.value"
    :sort-order="list.descending.value ? -1 : 1"
    paginator
    paginator-template="CurrentPageReport PrevPageLink NextPageLink"
    current-page-report-template="{first}–{last} of {totalRecords}"
    :rows="perPage"
    :first="list.skip.value"
    :total-records="total"
    @sort="sort"
    @page="list.change({ skip: String($event.first) })"
    @row-dblclick="mayChoose && open($event)"
    @row-click="mayChoose || open($event)"
  >
    <Column v-if="mayChoose" selection-mode="multiple" style="width: 42px" />
    <slot />
  </DataTable>
</template>

<style scoped>
:deep(td) {
  height: var(--row-height);
}
:deep(td.quiet) {
  color: var(--ink-quiet);
}
</style>
