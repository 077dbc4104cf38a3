<script setup lang="ts">
import type { ComposedTable } from '#core/template/blocks/line-table';
import PrintedPicture from '../picture/PrintedPicture.vue';
import PrintedRuns from '../../printed/PrintedRuns.vue';

/** A line table as it prints, its first rows. */
const { table } = defineProps<{ table: ComposedTable }>();

/** More than this says nothing more about how it looks. */
const MOST = 60;
const rows = computed(() => table.sections.reduce((sum, { rows: all }) => sum + all.length, 0));
const sections = computed(() => {
  let left = MOST;
  return table.sections.flatMap((section) => {
    const some = section.rows.slice(0, Math.max(0, left));
    left -= section.rows.length;
    return some.length === 0 && section.rows.length > 0 ? [] : [{ ...section, rows: some }];
  });
});
const widthOf = (width: ComposedTable['columns'][number]['width']) => {
  if (width === 'content') return '1%';
  return width === 'rest' ? 'auto' : `${width * 100}%`;
};
</script>

<template>
  <table class="lines" :data-style="table.style">
    <thead>
      <tr>
        <th
          v-for="(column, at) in table.columns"
          :key="at"
          :style="{ width: widthOf(column.width) }"
          :data-align="column.align"
        >
          <PrintedRuns :runs="column.heading" />
        </th>
      </tr>
    </thead>
    <tbody v-for="(section, part) in sections" :key="part">
      <tr v-if="section.heading" class="group">
        <td :colspan="table.columns.length"><PrintedRuns :runs="section.heading" /></td>
      </tr>
      <tr v-for="(row, at) in section.rows" :key="at" :class="{ part: row.part }">
        <td
          v-for="(cell, column) in row.cells"
          :key="column"
          :data-align="table.columns[column]!.align"
          :class="{ content: table.columns[column]!.width === 'content' }"
        >
          <PrintedPicture
            v-if="cell.picture"
            :picture="{ ...cell.picture, kind: 'picture', block: table.block, align: 'start' }"
          />
          <PrintedRuns :runs="cell.runs" />
          <div v-if="cell.detail && cell.detail.length > 0" class="detail"><PrintedRuns :runs="cell.detail" /></div>
        </td>
      </tr>
      <tr v-if="section.subtotal" class="sum">
        <td :colspan="table.columns.length - 1" data-align="end"><PrintedRuns :runs="section.subtotal.label" /></td>
        <td data-align="end"><PrintedRuns :runs="section.subtotal.value" /></td>
      </tr>
    </tbody>
  </table>
  <p v-if="rows > MOST" class="nothing">and {{ rows - MOST }} more rows</p>
</template>
