<script setup lang="ts">
import type { LineTable } from '#core/template/blocks/line-table';
import { OPTIONAL_WAYS, type OptionalWay } from '#core/template/design/optional-ways';
import { placeholderWords } from '~/editor/formula-words';
import type { TableState } from '~/workers/figure-workshop';

/** What a line table does with its items as a whole, chosen among what its items have. */
const { table, what, label } = defineProps<{
  table: LineTable;
  what: 'groups' | 'optional' | 'carry';
  label: string;
}>();
const workshop = useWorkshop();
const draft = useDraftStore();
const figures = useFiguresStore();
const sheet = useSheetStore();
const state = shallowRef<TableState>();
watch(
  () => [table, figures.view] as const,
  async ([now]) => (state.value = await workshop.tableState(draft.template!, now)),
  { immediate: true },
);

/** Stands for what is not said. */
const NONE = '-';
const none = { value: NONE, label: 'nothing' };
const groupOptions = computed(() => {
  const fields = (state.value?.groupFields ?? []).map((each) => ({ value: each.formula, label: each.label }));
  const current = state.value?.groupedBy;
  const isKnown = current === undefined || fields.some(({ value }) => value === current);
  return [none, ...fields, ...(isKnown ? [] : [{ value: current, label: current }])];
});
const isGroupedOtherwise = computed(
  () => table.groups !== undefined && table.groups !== null && !state.value?.groupedBy,
);
function group(formula: string): void {
  const field = state.value?.groupFields.find((each) => each.formula === formula);
  void sheet.groupTable(table.id, formula === NONE ? undefined : field);
}

const changeGroups = (part: Partial<NonNullable<LineTable['groups']>>) =>
  sheet.change(table.id, { groups: { ...table.groups, ...part } }, 'Groups changed');

const WAYS: Record<OptionalWay, string> = {
  printed: 'printed as the others',
  'left out': 'left out',
  marked: 'marked as optional',
  'own table': 'in a table of their own',
};
const ways = OPTIONAL_WAYS.map((value) => ({ value, label: WAYS[value] }));

const sums = computed(() => [
  none,
  ...table.columns
    .filter(({ total }) => total)
    .map(({ id, heading }) => ({ value: id, label: placeholderWords(heading) || id })),
]);
const carry = (id: string) =>
  sheet.change(
    table.id,
    { carry: id === NONE ? undefined : id },
    id === NONE ? 'No sum is carried' : 'A sum is carried',
  );
</script>

<template>
  <template v-if="what === 'groups'">
    <p v-if="isGroupedOtherwise" class="quiet">by a list of the figure sheet: {{ table.groups!.list }}</p>
    <PickOne v-else :label="label" :value="state?.groupedBy ?? NONE" :options="groupOptions" @choose="group" />
    <template v-if="table.groups">
      <PropertyField
        :field="{ is: 'text', key: 'heading', label: 'Heading of a group' }"
        :value="table.groups.heading"
        @change="changeGroups({ heading: String($event) })"
      />
      <PropertyField
        v-if="table.groups.subtotal"
        :field="{ is: 'text', key: 'label', label: 'Words before its sum' }"
        :value="table.groups.subtotal.label"
        @change="changeGroups({ subtotal: { ...table.groups.subtotal, label: String($event) } })"
      />
    </template>
  </template>
  <template v-else-if="what === 'optional'">
    <div v-for="{ formula, label: field, way } in state?.optional" :key="formula" class="way">
      <span class="quiet">{{ field }}</span>
      <PickOne
        :label="`${label}: ${field}`"
        :value="way"
        :options="ways"
        @choose="sheet.treatOptional(table.id, formula, $event)"
      />
    </div>
    <p v-if="state?.optional.length === 0" class="quiet">They have no field that says yes or no.</p>
  </template>
  <PickOne v-else :label="label" :value="table.carry ?? NONE" :options="sums" @choose="carry" />
</template>

<style scoped>
.way {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
