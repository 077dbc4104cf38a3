<script setup lang="ts">
import { ROLES, type Role } from '#core/contract/permissions';
import { useMeStore, type Me } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';

/** Which roles see and act on which kinds of documents and types of records. */
const store = useMeStore();
const toast = useToast();
const types = useRecordTypesStore();
const rules = ref<Me['rules']>(copied());
const { busy, problem, attempt } = useAttempt();
const changed = computed(() => JSON.stringify(rules.value) !== JSON.stringify(copied()));

const parts = computed(() => [
  { title: 'Kinds of documents', act: 'Filed by', rows: rules.value.kinds },
  { title: 'Types of records', act: 'Changed by', rows: rules.value.records },
]);

watch(() => types.types, discard);

const save = () =>
  attempt(async () => {
    await api('PUT /people/rules', { body: rules.value });
    store.me = await api('GET /me');
    discard();
    toast.add({ severity: 'secondary', summary: 'Rules saved.', life: 4_000 });
  });
function discard(): void {
  rules.value = copied();
}
function copied(): Me['rules'] {
  const kept = JSON.parse(JSON.stringify(store.me!.rules)) as Me['rules'];
  const open = (types.types ?? []).map(({ name }) => [name, { see: [], act: [] }]);
  return { ...kept, records: { ...(Object.fromEntries(open) as Me['rules']['records']), ...kept.records } };
}
/** Who files and changes is one of those who may do it at all. */
const ACTING: readonly Role[] = ['producer', 'finance'];
</script>

<template>
  <div class="rules">
    <p class="quiet">
      Where no role is selected, the usual rules apply: everyone who is signed in can see it, and producers and finance
      can act on it. People who cannot see a kind see neither its templates nor its documents.
    </p>
    <section v-for="part in parts" :key="part.title">
      <h2>{{ part.title }}</h2>
      <table>
        <thead>
          <tr>
            <th scope="col" class="what"><span class="visually-hidden">What</span></th>
            <th scope="col" class="see">Seen by</th>
            <th scope="col">{{ part.act }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(rule, name) in part.rows" :key="name">
            <th scope="row">{{ name }}</th>
            <td>
              <SelectButton
                v-model="rule.see"
                multiple
                size="small"
                :options="[...ROLES]"
                :aria-label="`${name}: seen by`"
              />
              <span v-if="rule.see.length === 0" class="quiet">everybody</span>
            </td>
            <td>
              <SelectButton
                v-model="rule.act"
                multiple
                size="small"
                :options="[...ACTING]"
                :aria-label="`${name}: ${part.act.toLowerCase()}`"
              />
              <span v-if="rule.act.length === 0" class="quiet">both</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <div class="act">
      <Button label="Save the rules" :disabled="!changed" :loading="busy" @click="save" />
      <Button v-if="changed" label="Discard" severity="secondary" text @click="discard" />
      <RefusedNote :problem="problem" />
    </div>
  </div>
</template>

<style scoped>
.rules {
  max-width: 860px;
  padding: 16px 24px 40px;
}
h2 {
  margin: 20px 0 8px;
  font: 600 14px/18px var(--serif);
}
table {
  width: 100%;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-collapse: collapse;
  table-layout: fixed;
}
th,
td {
  padding: 6px 10px;
  border-bottom: 1px solid var(--hairline-soft);
  font-weight: 400;
  text-align: start;
}
thead th {
  color: var(--ink-quiet);
  font-size: 12px;
  font-weight: 500;
}
tbody th {
  font-weight: 500;
}
.what {
  width: 150px;
}
.see {
  width: 460px;
}
tbody tr:last-child > * {
  border-bottom: 0;
}
td :deep(.p-selectbutton) {
  vertical-align: middle;
}
td :deep(.p-togglebutton-checked .p-togglebutton-content) {
  background: var(--verdigris);
  color: var(--on-colour);
}
td .quiet {
  margin-left: 8px;
  font-size: 12px;
}
.act {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 8px;
  margin-top: 16px;
  padding: 10px 0;
  background: var(--desk);
}
</style>
