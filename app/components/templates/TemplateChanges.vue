<script setup lang="ts">
import type { TemplateChange } from '~~/core/template/compare';

/** What differs between two templates, in words. */
const { changes } = defineProps<{ changes: readonly TemplateChange[] }>();
const MOST = 6;

const rows = computed(() =>
  changes.flatMap(({ part, added, changed, deleted }) =>
    (
      [
        ['New', added],
        ['Changed', changed],
        ['Deleted', deleted],
      ] as const
    ).flatMap(([how, names]) => (names.length > 0 ? [{ part, how, names: listed(names) }] : [])),
  ),
);

function listed(names: readonly string[]): string {
  const different = [...new Set(names)];
  const counted = different.map((name) => {
    const count = names.filter((each) => each === name).length;
    return count > 1 ? `${name} (${count})` : name;
  });
  const more = different.length - MOST;
  return `${counted.slice(0, MOST).join(', ')}${more > 0 ? `, and ${more} more` : ''}`;
}
</script>

<template>
  <table>
    <thead>
      <tr>
        <th scope="col">Part</th>
        <th scope="col">Change</th>
        <th scope="col">What</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="{ part, how, names } in rows" :key="part + how">
        <td>{{ part }}</td>
        <td>{{ how }}</td>
        <td>{{ names }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  margin: 14px 0 16px;
  border-collapse: collapse;
}
th {
  color: var(--ink-quiet);
  font-weight: 400;
  text-align: start;
}
th,
td {
  padding: 5px 14px 5px 0;
  border-bottom: 1px solid var(--hairline);
  vertical-align: top;
}
td:first-child {
  white-space: nowrap;
}
</style>
