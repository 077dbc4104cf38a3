<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** What a template file would change here: a person replaces the template, puts the file in as a new one, or leaves it. */
const { problem, busy } = defineProps<{ problem: ApiProblem | undefined; busy: boolean }>();
const emit = defineEmits<{ decide: [as: 'replacement' | 'new']; close: [] }>();
const MOST = 6;

const rows = computed(() =>
  (problem?.templateChanges ?? []).flatMap(({ part, added, changed, deleted }) =>
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
  <Dialog
    :visible="problem !== undefined"
    modal
    :header="problem?.title"
    :style="{ width: '620px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <p>{{ problem?.detail }} Documents already filed stay as they are.</p>
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
    <footer>
      <Button label="Cancel" severity="secondary" text @click="emit('close')" />
      <Button label="As a new template" severity="secondary" :disabled="busy" @click="emit('decide', 'new')" />
      <Button label="Replace" autofocus :loading="busy" @click="emit('decide', 'replacement')" />
    </footer>
  </Dialog>
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
footer {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
