<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';
import { Drawings } from '~/composables/proof-drawings';
import { draftProof, type DraftProof } from '~/stores/draft-proof';

/** A draft over the records that it is proved on, all at once: what prints for each, what stops it, and which sections print. */
const route = useRoute();
const { barred } = useDraftScreen();
const draft = useDraftStore();
const proofs = useProofRecordsStore();
const publishOpen = ref(false);
const choosing = ref(false);
const problem = shallowRef<ApiProblem>();
const templateId = computed(() => String(route.params.id));

interface Tile {
  id: string;
  name: string;
  proof?: DraftProof;
  problem?: ApiProblem;
}
const tiles = shallowRef<Tile[]>([]);
/** How many are asked for at once: one more than the press sets, which is read meanwhile. */
const AT_ONCE = 3;
let newest = 0;

async function load(): Promise<void> {
  problem.value = undefined;
  try {
    await draft.load(templateId.value, !barred.value);
    await prove();
  } catch (thrown) {
    problem.value = asProblem(thrown);
  }
}
watch(templateId, load, { immediate: true });

async function prove(): Promise<void> {
  const mine = ++newest;
  await draft.save();
  tiles.value = (await proofs.choose()).map(({ id, name }) => ({ id, name }));
  const isWanted = () => mine === newest;
  await inTurns(tiles.value, AT_ONCE, isWanted, async (tile) => {
    const proved = { ...tile, ...(await proofOf(tile.id)) };
    if (isWanted()) tiles.value = tiles.value.map((each) => (each.id === proved.id ? proved : each));
  });
}

async function proofOf(record: string): Promise<Pick<Tile, 'proof' | 'problem'>> {
  const wanted = { template: draft.template!, record, tried: [], edition: undefined, houseStyle: undefined };
  try {
    const answer = await draftProof(wanted, { has: [], near: [1] });
    return { proof: { ...answer, pages: new Drawings().of(answer.pages) } };
  } catch (thrown) {
    return { problem: asProblem(thrown) };
  }
}

const done = computed(() => tiles.value.filter(({ proof, problem: failed }) => proof ?? failed));
const isDone = computed(() => tiles.value.length > 0 && done.value.length === tiles.value.length);
const stopsOf = ({ proof, problem: failed }: Tile) =>
  failed
    ? [failed.detail]
    : (proof?.findings ?? []).filter(({ severity }) => severity === 'stops').map(({ title }) => title);
const stopped = computed(() => done.value.filter((tile) => stopsOf(tile).length > 0));

/** Every section of the draft, with the records that it prints for. */
const sections = computed(() => {
  const found = new Map<string, { note: string; records: Set<string> }>();
  for (const { id, proof } of done.value) {
    for (const [block, note] of Object.entries(proof?.sections ?? {})) {
      const section = found.get(block) ?? { note: '', records: new Set() };
      found.set(block, { note, records: new Set([...section.records, id]) });
    }
    for (const { block, note } of proof?.leftOut ?? [])
      if (!found.has(block)) found.set(block, { note: `when ${note}`, records: new Set() });
  }
  return [...found].map(([block, section]) => ({ block, ...section }));
});
const chosenSection = ref<string>();
const chosen = computed(() => sections.value.find(({ block }) => block === chosenSection.value));
const isDimmed = (id: string) => chosen.value !== undefined && !chosen.value.records.has(id);
const never = computed(() => sections.value.filter(({ records }) => records.size === 0));

const words = new Intl.ListFormat('en-GB');
/** So many are named; the others are counted. */
const NAMED = 3;
const listed = (names: readonly string[]) =>
  words.format(names.length > NAMED + 1 ? [...names.slice(0, NAMED), `${names.length - NAMED} more`] : names);
const summary = computed(() => {
  if (!isDone.value) return `Setting ${done.value.length + 1} of ${tiles.value.length || 10} …`;
  const parts = [];
  if (stopped.value.length > 0)
    parts.push(
      `${stopped.value.length === 1 ? 'One stops' : `${stopped.value.length} stop`}: ${listed(stopped.value.map(({ name }) => name))}.`,
    );
  if (never.value.length > 0)
    parts.push(
      `${never.value.length === 1 ? 'One section prints' : `${never.value.length} sections print`} for none of them: ${listed(never.value.map(({ note }) => note))}.`,
    );
  return parts.join(' ') || 'Every section prints for one of them at least.';
});
const open = (id: string) => navigateTo({ path: `/templates/${templateId.value}`, query: { record: id, proof: '1' } });
useKeys({ 'Control+Enter': () => (publishOpen.value = !barred.value && draft.isDraft), r: () => void prove() });
</script>

<template>
  <div class="prove">
    <WhereAmI
      :title="`Prove on ten: ${draft.template?.name ?? ''}`"
      here="Prove on ten"
      :way="[
        { label: 'Templates', to: '/templates' },
        { label: draft.template?.name ?? 'Template', to: `/templates/${templateId}` },
      ]"
    />
    <ProblemNote v-if="problem" :problem="problem" :way="{ label: 'All templates', to: '/templates' }" @again="load" />
    <template v-else>
      <div class="strip">
        <span
          >The draft over <b>{{ tiles.length || 10 }} records</b>
          {{ draft.template?.proofRecords ? 'that were chosen' : 'that differ most' }}</span
        >
        <button v-if="!barred" type="button" class="in-words" @click="choosing = true">Choose others…</button>
        <span class="announcement" role="status">{{ draft.announcement }}</span>
        <div v-if="sections.length > 0" class="sections" role="group" aria-label="Sections that print">
          <span class="quiet">Sections that print</span>
          <button
            v-for="{ block, note, records } in sections"
            :key="block"
            v-tooltip.bottom="note"
            type="button"
            :aria-pressed="chosenSection === block"
            :class="{ none: records.size === 0 }"
            @click="chosenSection = chosenSection === block ? undefined : block"
          >
            <span>{{ note }}</span> <b>{{ records.size }}</b>
          </button>
        </div>
      </div>
      <ol class="tiles" aria-label="Records">
        <li v-for="tile in tiles" :key="tile.id" :class="{ dimmed: isDimmed(tile.id) }">
          <button type="button" class="tile" :aria-label="`Open the proof for ${tile.name}`" @click="open(tile.id)">
            <FirstPage v-if="tile.proof" :pages="tile.proof.pages" />
            <span v-else class="blank on-paper" :class="{ failed: tile.problem }"></span>
          </button>
          <strong>{{ tile.name }}</strong>
          <span v-if="stopsOf(tile).length > 0" class="stops">
            {{ stopsOf(tile)[0] }}{{ stopsOf(tile).length > 1 ? ` and ${stopsOf(tile).length - 1} more` : '' }}; stops
            filing
          </span>
          <template v-else-if="tile.proof">
            <span v-if="tile.proof.findings.some(({ severity }) => severity === 'warns')" class="warns">
              {{ tile.proof.findings.find(({ severity }) => severity === 'warns')!.title }}
            </span>
            <span v-else class="quiet">no issues</span>
          </template>
          <span v-if="tile.proof" class="quiet facts">
            {{ tile.proof.pages.pages.length === 1 ? '1 page' : `${tile.proof.pages.pages.length} pages` }} ·
            {{ tile.proof.currency ?? 'no currency' }}
          </span>
        </li>
      </ol>
      <footer>
        <b v-if="isDone">{{ tiles.length - stopped.length }} of {{ tiles.length }} can be filed.</b>
        <span role="status">{{ summary }}</span>
        <span class="spring"></span>
        <button type="button" class="in-words" @click="prove">Prove again</button>
        <NuxtLink v-if="draft.opened?.version" class="in-words" :to="`/templates/${templateId}/replay`"
          >Replay on filed documents</NuxtLink
        >
        <PermittedButton
          label="Publish"
          size="small"
          :disabled="!barred && !draft.isDraft"
          :why-not="barred"
          @press="publishOpen = true"
        />
      </footer>
    </template>
    <LazyProofRecords v-if="choosing" v-model:open="choosing" @chosen="prove" />
    <PublishDraft v-model:open="publishOpen" />
  </div>
</template>

<style scoped>
.prove {
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
.announcement {
  color: var(--verdigris);
}
.sections {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-left: auto;
}
.sections button {
  padding: 2px 9px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  color: var(--ink);
  font-size: 12px;
  cursor: pointer;
}
.sections button span {
  display: inline-block;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
  vertical-align: bottom;
  white-space: nowrap;
}
.sections button b {
  color: var(--slate);
}
.sections .none b {
  color: var(--brick);
}
.sections button[aria-pressed='true'] {
  background: var(--verdigris-100);
  border-color: var(--verdigris);
}
.tiles {
  display: grid;
  flex: 1;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 18px 26px;
  align-content: start;
  padding: 18px 30px 24px;
  overflow: auto;
  background: var(--desk);
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  align-content: start;
  transition: opacity 120ms;
}
.dimmed {
  opacity: 0.35;
}
.tile {
  padding: 0;
  background: none;
  border: 0;
  cursor: pointer;
}
.blank {
  display: block;
  aspect-ratio: 1 / 1.2;
  background: var(--paper);
  box-shadow: var(--sheet-shadow);
}
.failed {
  background: var(--brick-50);
}
li strong {
  margin-top: 7px;
  overflow: hidden;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}
li span {
  font-size: 12px;
}
.stops {
  color: var(--brick);
}
.warns {
  color: var(--brass-text);
}
footer {
  display: flex;
  flex: none;
  gap: 14px;
  align-items: center;
  min-height: 52px;
  padding: 8px 16px;
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.spring {
  flex: 1;
}
footer :is(b, .in-words) {
  flex: none;
  white-space: nowrap;
}
</style>
