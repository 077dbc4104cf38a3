<script setup lang="ts">
import { figureOfWorkings } from '~/editor/figure-of-workings';
import { useRecordTypesStore } from '~/stores/record-types';
import type { Finding } from '#core/production/findings/finding';

/** The draft as it prints for the record that is shown: a click on something goes to it on the sheet. */
const store = useDraftProofStore();
const draft = useDraftStore();
const sheet = useSheetStore();
const figures = useFiguresStore();
const route = useRoute();
const emit = defineEmits<{ sheet: [] }>();
onMounted(() => (store.isOpen = true));
onBeforeUnmount(store.close);

/** Stands for what the template chooses by itself. */
const OWN = '-';
const editions = computed(() => [
  { value: OWN, label: 'as the record asks' },
  ...(draft.template?.editions ?? []).map(({ id, label }) => ({ value: id, label })),
]);
const houseStyles = computed(() => [
  { value: OWN, label: 'as the template says' },
  ...(draft.opened?.pins.houseStyles ?? []).map(({ id, name }) => ({ value: id, label: name })),
]);

const pages = useTemplateRef<{ showValue(id: string): Promise<void> }>('pages');
/** Brings a finding into view on the page; where nothing of it is printed, on the sheet. */
function showFinding(finding: Finding): void {
  const [first] = finding.values;
  if (first === undefined) goToFinding(finding);
  else void pages.value?.showValue(first);
}
/** From the page to the block on the sheet. */
function goTo(value: string): void {
  const block = store.proof?.values[value]?.block;
  if (block === undefined) return;
  emit('sheet');
  void nextTick(() => sheet.choose(idOnSheet(value, block)));
}
/** A value in running text is chosen itself; whatever else is printed, with its block. */
function idOnSheet(value: string, block: string): string {
  const own = value.split(' ', 1)[0]!;
  return sheet.hasPart(own) ? own : block;
}
function goToFinding({ block, values }: Finding): void {
  if (block !== undefined) {
    emit('sheet');
    void nextTick(() => sheet.choose(block));
  } else if (values[0] !== undefined) goTo(values[0]);
}
/** Findings are listed beside the pages once somebody asks for them. */
const listOpen = ref(false);
const findings = computed(() => store.proof?.findings ?? []);
const isStopped = computed(() => findings.value.some(({ severity }) => severity === 'stops'));
const types = useRecordTypesStore();
const called = computed(() => types.called(store.proof!.record.type));
const figureOf = ({ workings }: Finding) => {
  const key = workings === undefined ? undefined : figureOfWorkings(workings);
  return key !== undefined && figures.formulas.some((each) => each.key === key) ? key : undefined;
};
const fieldTo = ({ path }: Finding) => ({
  path: recordPath(store.proof!.record.type, store.proof!.record.id),
  query: { field: path },
});
const isOfSheet = ({ block, values }: Finding) => block !== undefined || values.length > 0;

/** From the sheet to the page: what is chosen there is brought into view. */
watch(
  () => sheet.chosen[0]?.id,
  (id) => {
    if (id === undefined || !store.proof) return;
    const value = Object.entries(store.proof.values).find(
      ([key, { block }]) => key.split(' ', 1)[0] === id || block === id,
    )?.[0];
    if (value !== undefined) void pages.value?.showValue(value);
  },
);
</script>

<template>
  <section class="proof-desk" aria-label="Proof">
    <div class="choices">
      <label
        ><span class="quiet">Edition</span>
        <PickOne
          label="Edition of the proof"
          :value="store.edition ?? OWN"
          :options="editions"
          @choose="store.edition = $event === OWN ? undefined : $event"
        />
      </label>
      <label
        ><span class="quiet">House style</span>
        <PickOne
          label="House style of the proof"
          :value="store.houseStyle ?? OWN"
          :options="houseStyles"
          @choose="store.houseStyle = $event === OWN ? undefined : $event"
        />
      </label>
      <span class="quiet" role="status">{{ store.loading ? 'Setting …' : '' }}</span>
      <button
        v-if="findings.length > 0"
        type="button"
        class="in-words found"
        :class="{ stops: isStopped }"
        :aria-expanded="listOpen"
        @click="listOpen = !listOpen"
      >
        {{ findings.length === 1 ? 'One finding' : `${findings.length} findings` }}
      </button>
      <button type="button" class="in-words" @click="store.again(true)">Read the record again</button>
    </div>
    <ol v-if="listOpen && findings.length > 0" class="findings" aria-label="Findings">
      <FindingRow
        v-for="(finding, index) in findings"
        :key="finding.id"
        :finding="finding"
        :number="index + 1"
        @show="showFinding(finding)"
      >
        <p class="ways">
          <button v-if="isOfSheet(finding)" type="button" class="in-words" @click="goToFinding(finding)">
            Show on the sheet
          </button>
          <NuxtLink
            v-if="figureOf(finding)"
            class="in-words"
            :to="{
              path: `/templates/${draft.template!.id}/figures`,
              query: { record: route.query.record, figure: figureOf(finding) },
            }"
            >Open the figure</NuxtLink
          >
          <NuxtLink v-if="finding.path" class="in-words" :to="fieldTo(finding)">Set on the {{ called }}</NuxtLink>
        </p>
      </FindingRow>
    </ol>
    <p v-if="store.problem" class="problem" role="alert">
      <strong>{{ store.problem.title }}.</strong> {{ store.problem.detail }}
    </p>
    <div class="pages" :class="{ old: store.problem }">
      <ProofPages
        v-if="store.proof"
        ref="pages"
        :proof="store.proof"
        :findings="store.proof.findings"
        :failed="false"
        @value="goTo"
        @finding="goToFinding"
        @near="store.lookAt"
      />
      <div v-else-if="!store.problem" class="waiting on-paper">
        <Skeleton v-for="at in 9" :key="at" height="16px" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.proof-desk {
  position: relative;
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  background: var(--desk);
}
.choices {
  display: flex;
  flex: none;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  padding: 5px 14px;
  border-bottom: 1px solid var(--hairline);
  font-size: 12px;
}
.choices label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.choices [role='status'] {
  margin-right: auto;
}
.found.stops {
  color: var(--brick);
}
.findings {
  flex: none;
  max-height: 38%;
  overflow: auto;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.ways {
  display: flex;
  gap: 14px;
  margin-top: 4px;
}
.pages {
  position: relative;
  flex: 1;
  min-height: 0;
}
.old {
  opacity: 0.5;
}
.problem {
  padding: 6px 14px;
  background: var(--brick-50);
  color: var(--brick);
}
.waiting {
  display: grid;
  align-content: start;
  gap: 16px;
  width: 460px;
  height: 90%;
  margin: 16px auto;
  padding: 48px;
  box-shadow: var(--sheet-shadow);
}
</style>
