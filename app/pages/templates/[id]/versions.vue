<script setup lang="ts">
import { templateDifferences, type Difference } from '#core/template/differences';
import type { Template } from '#core/template/template';
import type { ApiProblem } from '~/composables/api';
import { Drawings } from '~/composables/proof-drawings';
import { draftProof, type DraftProof } from '~/stores/draft-proof';

/** Two states of a template beside each other: what differs in words, and on the page for a record. Any of them can be gone back to. */
const route = useRoute();
const changeQuery = useChangeQuery();
const { barred } = useDraftScreen();
const draft = useDraftStore();
const templateId = computed(() => String(route.params.id));
const problem = shallowRef<ApiProblem>();

/** Stands for the draft among versions. */
const DRAFT = 'draft';
const versions = useLoaded(() => api('GET /templates/{id}/versions', { parameters: { id: templateId.value } }));
const bodies = shallowReactive(new Map<string, Template>());
async function bodyOf(id: string): Promise<Template> {
  if (id === DRAFT) return draft.template!;
  const known = bodies.get(id);
  if (known) return known;
  const parameters = { id: templateId.value, version: id };
  const { template } = await api('GET /templates/{id}/versions/{version}', { parameters });
  bodies.set(id, template);
  return template;
}

const options = computed(() => [
  ...(draft.isDraft ? [{ value: DRAFT, label: 'the draft' }] : []),
  ...(versions.value.value ?? []).map(({ versionId, version, isCurrent }) => ({
    value: versionId,
    label: `version ${version}${isCurrent ? ', in use' : ''}`,
  })),
]);
/** The later one: the draft, or the newest version. */
const after = computed(() => chosenIn('to') ?? options.value[0]?.value);
const before = computed(() => {
  const at = options.value.findIndex(({ value }) => value === after.value);
  return chosenIn('from') ?? options.value[at + 1]?.value ?? after.value;
});
function chosenIn(key: 'from' | 'to'): string | undefined {
  const value = route.query[key];
  return options.value.some((each) => each.value === value) ? String(value) : undefined;
}
const labelOf = (id: string | undefined) => options.value.find(({ value }) => value === id)?.label ?? '';
/** Without whether it is in use. */
const plainLabel = (id: string | undefined) => labelOf(id).replace(/,.*/, '');
const detailsOf = (id: string | undefined) => versions.value.value?.find(({ versionId }) => versionId === id);

/** A filed document, over whose kept data the two are shown. */
const documentId = computed(() => (route.query.document ? String(route.query.document) : undefined));
const differences = shallowRef<Difference[]>();
const record = ref<{ id: string; name: string }>();
const proofs = shallowRef<{ before?: DraftProof; after?: DraftProof }>({});
let newest = 0;

async function load(): Promise<void> {
  problem.value = undefined;
  try {
    await Promise.all([draft.load(templateId.value, !barred.value), versions.reload()]);
    if (!record.value && !barred.value) await chooseFirst();
  } catch (thrown) {
    problem.value = asProblem(thrown);
  }
}
watch(templateId, load, { immediate: true });

async function chooseFirst(): Promise<void> {
  const query = { sort: 'name', top: 1 } as const;
  const { records } = await api('GET /records/{type}', { parameters: { type: draft.template!.record.type }, query });
  record.value = records[0];
}
async function chooseRecord(id: string): Promise<void> {
  const { records } = await api('GET /records/{type}', {
    parameters: { type: draft.template!.record.type },
    query: { search: id, top: 20 },
  });
  record.value = records.find((each) => each.id === id) ?? { id, name: id };
}

watch([before, after, () => draft.template], compare, { immediate: true });
watch(record, prove);
async function compare(): Promise<void> {
  const [from, to] = [before.value, after.value];
  if (from === undefined || to === undefined || !draft.template) return;
  try {
    const [old, young] = await Promise.all([bodyOf(from), bodyOf(to)]);
    differences.value = templateDifferences(old, young);
    await prove();
  } catch (thrown) {
    problem.value = asProblem(thrown);
  }
}
async function prove(): Promise<void> {
  const mine = ++newest;
  const [from, to] = [before.value, after.value];
  if (!record.value || barred.value || from === undefined || to === undefined) return;
  const proofOf = async (id: string): Promise<DraftProof> => {
    const wanted = {
      template: await bodyOf(id),
      record: record.value!.id,
      document: documentId.value,
      tried: [],
      edition: undefined,
      houseStyle: undefined,
    };
    const answer = await draftProof(wanted, { has: [], near: [1, 2, 3, 4, 5, 6, 7, 8] });
    return { ...answer, pages: new Drawings().of(answer.pages) };
  };
  try {
    const [old, young] = await Promise.all([proofOf(from), proofOf(to)]);
    if (mine === newest) proofs.value = { before: old, after: young };
  } catch (thrown) {
    if (mine === newest) problem.value = asProblem(thrown);
  }
}

/** Values that the other one does not print, or prints otherwise. */
function otherThan(one: DraftProof | undefined, other: DraftProof | undefined): ReadonlySet<string> {
  if (!one || !other) return new Set();
  return new Set(Object.entries(one.values).flatMap(([id, { text }]) => (other.values[id]?.text === text ? [] : [id])));
}
const marked = computed(() => ({
  before: otherThan(proofs.value.before, proofs.value.after),
  after: otherThan(proofs.value.after, proofs.value.before),
}));

const sides = useTemplateRef<{ showValue(id: string): Promise<void> }[]>('sides');
/** Brings a block into view on both sides. */
function show(block: string | undefined): void {
  if (block === undefined) return;
  for (const [at, proof] of [proofs.value.before, proofs.value.after].entries()) {
    const value = Object.entries(proof?.values ?? {}).find(([, each]) => each.block === block)?.[0];
    if (value !== undefined) void sides.value?.[at]?.showValue(value);
  }
}

const KINDS = { added: 'added', changed: 'changed', deleted: 'deleted' } as const;
/** The most details that are listed of one piece at first. */
const MOST = 6;
const parts = computed(() => {
  const found = new Map<string, Difference[]>();
  for (const each of differences.value ?? []) found.set(each.part, [...(found.get(each.part) ?? []), each]);
  return [...found];
});

async function goBack(): Promise<void> {
  const template = await bodyOf(before.value!);
  draft.change(template, { words: `Back to ${plainLabel(before.value)}` });
  await draft.save();
  await navigateTo(`/templates/${templateId.value}`);
}
</script>

<template>
  <div class="versions">
    <WhereAmI
      :title="`Versions: ${draft.template?.name ?? ''}`"
      here="Versions"
      :way="[
        { label: 'Templates', to: '/templates' },
        { label: draft.template?.name ?? 'Template', to: `/templates/${templateId}` },
      ]"
    />
    <ProblemNote v-if="problem" :problem="problem" :way="{ label: 'All templates', to: '/templates' }" @again="load" />
    <template v-else>
      <div class="strip">
        <label
          >From
          <PickOne
            label="Compared from"
            :value="before"
            :options="options"
            @choose="changeQuery({ from: $event }, 'replace')"
          />
        </label>
        <label
          >to
          <PickOne
            label="Compared to"
            :value="after"
            :options="options"
            @choose="changeQuery({ to: $event }, 'replace')"
          />
        </label>
        <span v-if="documentId" class="record">
          <span class="quiet">over the data of</span>
          <NuxtLink :to="`/register/${documentId}`">{{ route.query.number ?? 'a filed document' }}</NuxtLink>
        </span>
        <span v-else-if="draft.template && record" class="record">
          <span class="quiet">on the page for</span>
          <RecordPicker
            :type="draft.template.record.type"
            :name="record.name"
            label="Record to compare on"
            @choose="chooseRecord"
          />
        </span>
        <span class="spring"></span>
        <PermittedButton
          v-if="before !== 'draft'"
          :label="`Go back to ${plainLabel(before)}`"
          size="small"
          :disabled="before === undefined"
          :why-not="barred"
          @press="goBack"
        />
      </div>
      <div class="work">
        <aside aria-label="What differs">
          <p v-for="id in [before, after]" :key="id" class="quiet about">
            <b>{{ labelOf(id) }}</b>
            <template v-if="detailsOf(id)">
              {{ detailsOf(id)!.publishedBy ?? 'came with Lumbix' }}, {{ momentText(detailsOf(id)!.publishedAt) }}
              <span v-if="detailsOf(id)!.note">{{ detailsOf(id)!.note }}</span>
            </template>
          </p>
          <p v-if="differences?.length === 0">Nothing differs.</p>
          <section v-for="[part, all] in parts" :key="part">
            <h2>{{ part }}</h2>
            <div v-for="(each, at) in all" :key="at" class="difference" :class="each.kind">
              <button v-if="each.block" type="button" class="in-words" @click="show(each.block)">
                {{ each.name }}
              </button>
              <b v-else>{{ each.name }}</b>
              <span class="quiet what">{{ KINDS[each.kind] }}</span>
              <dl v-if="each.kind === 'changed'">
                <template v-for="{ what, before: was, after: is } in each.details.slice(0, MOST)" :key="what">
                  <dt>{{ what }}</dt>
                  <dd>
                    <del v-if="was !== undefined">{{ was }}</del>
                    <ins v-if="is !== undefined">{{ is }}</ins>
                  </dd>
                </template>
              </dl>
              <p v-if="each.kind === 'changed' && each.details.length > MOST" class="quiet">
                and {{ each.details.length - MOST }} more
              </p>
            </div>
          </section>
        </aside>
        <section
          v-for="side in ['before', 'after'] as const"
          :key="side"
          class="side"
          :aria-label="labelOf(side === 'before' ? before : after)"
        >
          <h2>{{ labelOf(side === 'before' ? before : after) }}</h2>
          <div class="pages">
            <ProofPages
              v-if="proofs[side]"
              ref="sides"
              :proof="proofs[side]!"
              :findings="[]"
              :marked="marked[side]"
              :failed="false"
            />
          </div>
        </section>
      </div>
    </template>
  </div>
</template>

<style scoped>
.versions {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.strip {
  display: flex;
  flex: none;
  flex-wrap: wrap;
  gap: 6px 14px;
  align-items: center;
  padding: 8px 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.strip label,
.record {
  display: flex;
  gap: 7px;
  align-items: center;
}
.spring {
  flex: 1;
}
.work {
  display: grid;
  flex: 1;
  grid-template-columns: 300px minmax(0, 1fr) minmax(0, 1fr);
  min-height: 0;
}
aside {
  padding: 12px 16px 24px;
  overflow: auto;
  background: var(--sheet);
  border-right: 1px solid var(--hairline);
}
.about b {
  margin-right: 8px;
  color: var(--ink);
}
.about span {
  display: block;
}
h2 {
  padding: 12px 0 4px;
  font: 600 13px/18px var(--sans);
}
.difference {
  padding: 5px 0 5px 9px;
  border-left: 2px solid var(--brass);
}
.difference + .difference {
  margin-top: 6px;
}
.added {
  border-color: var(--verdigris);
}
.deleted {
  border-color: var(--brick);
}
.what {
  margin-left: 6px;
}
.difference .in-words {
  text-align: start;
}
dt {
  color: var(--ink-quiet);
  font-size: 12px;
}
dd {
  margin: 0 0 3px;
  font: 12px/17px var(--mono);
  overflow-wrap: anywhere;
}
del {
  display: block;
  color: var(--brick);
}
ins {
  display: block;
  color: var(--verdigris);
  text-decoration: none;
}
.side {
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.side + .side {
  border-left: 1px solid var(--hairline);
}
.side h2 {
  flex: none;
  padding: 6px 14px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.pages {
  position: relative;
  flex: 1;
  min-height: 0;
}
@media screen and (max-width: 1000px) {
  .work {
    grid-template: minmax(0, 1fr) minmax(0, 1fr) / 1fr 1fr;
  }
  aside {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
</style>
