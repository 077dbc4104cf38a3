<script setup lang="ts">
import { useDocumentVisibility, useIntervalFn } from '@vueuse/core';
import type { RouteLocationRaw } from 'vue-router';
import { documentIn, type Chosen } from '#core/contract/page-reads';
import type { FieldSchema } from '#core/record/schema';
import type { Finding } from '#core/production/findings/finding';
import { figureOfWorkings } from '~/editor/figure-of-workings';
import { useMeStore } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';
import type { ApiProblem } from '~/composables/api';
import { chosenOf, isSameChoice } from '~/stores/proof';

definePageMeta({
  middleware: ({ params: { id, template }, query }, { params: before, query: queryBefore }) => {
    const wanted = documentIn(queryTexts(query));
    // Another leaf of the same proof needs nothing new.
    const isSame =
      before.id === id && before.template === template && isSameChoice(documentIn(queryTexts(queryBefore)), wanted);
    if (!isSame) useProofStore().sendFor({ record: String(id), template: String(template), ...wanted });
  },
});

type Leaf = 'preflight' | 'workings' | 'document';
const route = useRoute();
const changeQuery = useChangeQuery();
const toast = useToast();
const store = useProofStore();
const me = useMeStore();
const barred = computed(() => (store.proof ? me.mayNotFile(store.proof.template.kind) : undefined));
const type = computed(() => String(route.params.type));
const recordId = computed(() => String(route.params.id));
const types = useRecordTypesStore();
const templateId = computed(() => String(route.params.template));
const LEAVES: readonly string[] = ['preflight', 'workings', 'document'] satisfies Leaf[];
/** Which leaf, which edition and which plan are shown is in the address, so that Back goes through them. */
const leaf = computed({
  get: () => (LEAVES.includes(String(route.query.leaf)) ? (route.query.leaf as Leaf) : 'preflight'),
  set: (shown) => void changeQuery({ leaf: shown === 'preflight' ? undefined : shown }),
});
const chosen = computed(() => chosenOf(documentIn(queryTexts(route.query))));
const leaves = computed(() => [
  { leaf: 'preflight' as const, word: 'Preflight', count: store.openFindings.length },
  { leaf: 'workings' as const, word: 'Workings' },
  { leaf: 'document' as const, word: 'This document' },
]);
const pages = useTemplateRef<{ showValue(id: string): Promise<void> }>('pages');
const walk = useWalk();
/** Whether a newer proof has been under way for longer than a blink. */
const isRenewed = refDebounced(
  computed(() => store.loading && !!store.proof),
  120,
);

const load = () => store.load(recordId.value, templateId.value);
watch(
  [recordId, templateId, () => JSON.stringify(chosen.value)],
  () =>
    void store.open({
      record: recordId.value,
      template: templateId.value,
      ...documentIn(queryTexts(route.query)),
    }),
  { immediate: true },
);
// A document in hand has an address of its own, for coming back and for colleagues; what was chosen in it is kept with it.
watch(
  () => store.inHand,
  (production) => {
    if (!store.proof) return;
    const choices = chosenOf(production ? {} : store.proof.choices);
    void changeQuery({ production, ...inAddress(choices) }, 'replace');
  },
);
/** As choices stand in the address: only those that are made. */
const inAddress = (choice: Chosen) =>
  Object.fromEntries(Object.entries(choice).map(([name, chosen]) => [name, chosen ? String(chosen) : undefined]));
/** Chooses otherwise than the template does: in the address, or in the document in hand. */
function choose(choice: Chosen): void {
  if (store.inHand) void told(store.choose(choice));
  else void changeQuery(inAddress(choice));
}
onBeforeUnmount(store.leave);
// What is proofed is the record as it is now: coming back to the window reads it again.
useEventListener(window, 'focus', () => !store.busy && !store.filing && load());
const visibility = useDocumentVisibility();
useIntervalFn(() => visibility.value === 'visible' && void store.lookAgain(), 15_000);
useKeys({
  'Control+p': print,
  'Control+Enter': () => barred.value ?? store.file(),
  'Control+z': () => told(store.undo()),
  'Control+Shift+z': () => told(store.redo()),
  'Control+y': () => told(store.redo()),
  r: load,
  '[': () => step(-1),
  ']': () => step(1),
});

/** Says why something was not done; gives whether it was. */
async function told(doing: Promise<ApiProblem | undefined>): Promise<boolean> {
  const refused = await doing;
  if (refused) toast.add({ severity: 'error', summary: refused.title, detail: refused.detail, life: 9_000 });
  return refused === undefined;
}

/** Writes a value to the record that it belongs to. Gives why it was refused. */
async function setOnRecord(path: string, { name }: FieldSchema, value: string): Promise<string | undefined> {
  const record = store.proof?.fields[path]?.record;
  if (!record) return 'The proof is another one by now. Close this, and look at it again.';
  try {
    const { type: of, id, version = '' } = record;
    await api('PATCH /fields', { body: { type: of, id, version, field: name, value } });
  } catch (thrown) {
    const { title, detail, status } = asProblem(thrown);
    // Somebody else was faster: the proof is of the record as it is now, and may have nothing to set any more.
    if (status === 409) {
      toast.add({ severity: 'error', summary: title, detail, life: 12_000 });
      await load();
    }
    return `${title}. ${detail}`;
  }
  toast.add({ severity: 'secondary', summary: 'Written to the CRM', life: 4_000 });
  await store.load(recordId.value, templateId.value, [{ path, value }]);
  return undefined;
}

/** A value for this document alone. Gives why it was refused. */
async function give(path: string, { label }: FieldSchema, value: string): Promise<string | undefined> {
  const place = store.findings.find((finding) => finding.path === path)?.sentence.split(':')[0];
  const called = place && place.length < 80 && path.includes('{') ? `${place}: ${label.toLowerCase()}` : label;
  const refused = await store.make({ type: 'value', path, value }, called);
  return refused && `${refused.title}. ${refused.detail}`;
}

/** For authors: where the figure of some workings is declared. Other values have no formula of their own on the sheet. */
function figureTo(workings: string | undefined): RouteLocationRaw | undefined {
  if (workings === undefined || me.mayNot('publish')) return undefined;
  const isFigure = workings.includes(' of ') || store.proof?.figures.some(({ name }) => name === workings);
  const figure = isFigure ? figureOfWorkings(workings) : undefined;
  return figure && { path: `/templates/${templateId.value}/figures`, query: { record: recordId.value, figure } };
}

/** The total whose workings are shown: it can be worked back from. */
const agreed = computed(() =>
  store.proof?.figures.find(({ workings, isSum, internal }) => workings === store.workings?.id && isSum && !internal),
);

/** Writes a value that was given for this document to its record, where it stands from then on. */
async function writeGiven(id: string): Promise<void> {
  const given = store.changes.find((each) => each.id === id)?.change;
  const field = given?.type === 'value' ? store.proof?.fields[given.path]?.field : undefined;
  if (given?.type !== 'value' || !field) return;
  const refused = await setOnRecord(given.path, field, given.value);
  if (refused) toast.add({ severity: 'error', summary: `${field.label} is as it was`, detail: refused, life: 9_000 });
  // The record says it itself now.
  else await told(store.takeBack(id));
}

/** The document on paper, once all of its pages are drawn. */
async function print(): Promise<void> {
  await store.drawPages();
  window.print();
}

/** Goes to the record before or after this one in the list that one came from. */
async function step(by: 1 | -1): Promise<void> {
  const next = await walk.beside(type.value, recordId.value, by).catch(() => undefined);
  if (next) void navigateTo(producePath(type.value, next, templateId.value));
  else
    toast.add({
      severity: 'secondary',
      summary: by === 1 ? 'This is the last of the list' : 'This is the first of the list',
      life: 2_500,
    });
}

/** The filed PDF, with its number in its place. */
const filed = computed(() =>
  store.filing?.state === 'filed'
    ? addressOf('GET /documents/{id}/file', { parameters: { id: store.filing.id } })
    : undefined,
);
/** Where to go on, once this one is filed. */
const next = shallowRef<string>();
watch(
  filed,
  async (is) => (next.value = is && (await walk.beside(type.value, recordId.value, 1).catch(() => undefined))),
);

function openWorkings(id: string | undefined): void {
  void store.explain(id);
  leaf.value = 'workings';
}

function openValue(id: string): void {
  const value = store.proof?.values[id];
  if (value) openWorkings(value.workings);
}

function showFinding(finding: Finding): void {
  leaf.value = 'preflight';
  if (finding.values[0]) void pages.value?.showValue(finding.values[0]);
}
</script>

<template>
  <div class="produce">
    <WhereAmI
      :title="store.proof ? `${store.proof.template.name} for ${store.proof.record.name}` : 'Produce'"
      :here="store.proof?.template.name ?? 'Produce'"
      :way="[
        { label: types.named(type)?.plural ?? type, to: listPath(type) },
        { label: store.proof?.record.name ?? recordId, to: recordPath(type, recordId) },
      ]"
    />
    <ProblemNote
      v-if="store.problem"
      :problem="store.problem"
      :way="{ label: `Back to the ${types.called(type)}`, to: recordPath(type, recordId) }"
      @again="load"
    />
    <DeskAndLeaf v-else v-model="leaf" desk-label="Proof" :leaves="leaves">
      <template #desk>
        <p v-if="store.proof && isRenewed" class="renewing" role="status">Making the proof …</p>
        <LazyPdfPages v-if="filed" :src="filed" />
        <ProofPages
          v-else-if="store.proof"
          ref="pages"
          :class="{ old: isRenewed }"
          :proof="store.proof"
          :findings="store.findings"
          :failed="store.pagesFailed"
          @near="store.lookAt"
          @value="openValue"
          @finding="showFinding"
        />
        <div v-else class="waiting"><Skeleton width="566px" height="800px" border-radius="0" /></div>
      </template>
      <template v-if="store.proof" #leaf>
        <PreflightLeaf
          v-if="leaf === 'preflight'"
          :findings="store.findings"
          :skipped="store.skipped"
          :proved="store.proof.proved.sums"
          :read="store.proof.read"
          :record="{ type, id: recordId }"
          :template="templateId"
          :why-not="barred"
          :fields="store.proof.fields"
          :may-not-set="me.mayNotChange(type)"
          :set="setOnRecord"
          :give="give"
          :figure-to="figureTo"
          @show="showFinding"
          @workings="openWorkings"
          @skip="store.skip"
          @unskip="store.unskip"
        />
        <template v-else-if="leaf === 'workings'">
          <WorkingsLeaf
            :shown="store.workings"
            :figures="store.proof.figures"
            :bridge="store.proof.bridge"
            :figure-to="figureTo(store.workings?.id)"
            @open="openWorkings"
          />
          <WorkBack
            v-if="agreed && barred === undefined"
            :production="store.proof.id"
            :figure="agreed"
            :make="(change, label) => told(store.make(change, label))"
          />
        </template>
        <DocumentLeaf
          v-else
          :proof="store.proof"
          :frozen="store.busy || store.filing !== undefined || barred !== undefined"
          :make="(change, label) => told(store.make(change, label))"
          :give="give"
          :may-write="me.mayNotChange(type) === undefined"
          @write="writeGiven"
          @take-back="told(store.takeBack($event))"
          @show="pages?.showValue($event)"
          @choose="choose"
        />
      </template>
      <template #foot>
        <FilingFoot
          :file-name="store.proof?.fileName ?? ''"
          :kind="store.proof?.template.kind ?? 'document'"
          :after-filing="store.proof?.afterFiling ?? []"
          :revises="store.proof?.revises ?? undefined"
          :may-file="store.mayFile"
          :why-not="barred"
          :busy="store.busy"
          :filing="store.filing"
          :problem="store.filingProblem"
          :open-count="store.openFindings.length"
          :renewing="store.loading && !!store.proof"
          :record="{ type, id: recordId }"
          :next="next"
          @next="step(1)"
          @file="store.file"
          @look="leaf = 'preflight'"
        />
      </template>
    </DeskAndLeaf>
  </div>
</template>

<style scoped>
.produce {
  height: 100%;
}
.produce :deep(.old [data-page]) {
  opacity: 0.45;
}
.renewing {
  position: absolute;
  z-index: 1;
  top: 60px;
  left: 50%;
  padding: 6px 12px;
  background: var(--night);
  border-radius: 3px;
  color: #fff;
}
.waiting {
  display: grid;
  justify-content: center;
  padding-top: 20px;
  overflow: hidden;
}
</style>
