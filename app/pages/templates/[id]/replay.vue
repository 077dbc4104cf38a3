<script setup lang="ts">
import { groupedChanges, type ReplayGroup } from '#core/production/replay-groups';
import type { Answer, ApiProblem } from '~/composables/api';

/** The draft over the data of the documents that were filed last: what would have come out otherwise, by its cause. */
const route = useRoute();
const { barred } = useDraftScreen();
const draft = useDraftStore();
const templateId = computed(() => String(route.params.id));
const problem = shallowRef<ApiProblem>();

type Document = Answer<'GET /templates/{id}/draft/replay'>[number];
type Replayed = Answer<'POST /templates/{id}/draft/replay'> & { document: Document };
const documents = shallowRef<Document[]>();
const replayed = shallowRef<Replayed[]>([]);
const failed = shallowRef<{ document: Document; detail: string }[]>([]);
/** How many are asked for at once. */
const AT_ONCE = 3;
let newest = 0;

async function load(): Promise<void> {
  problem.value = undefined;
  try {
    await draft.load(templateId.value, !barred.value);
    await replay();
  } catch (thrown) {
    problem.value = asProblem(thrown);
  }
}
watch(templateId, load, { immediate: true });

async function replay(): Promise<void> {
  const mine = ++newest;
  const parameters = { id: templateId.value };
  await draft.save();
  [replayed.value, failed.value] = [[], []];
  documents.value = [...(await api('GET /templates/{id}/draft/replay', { parameters }))];
  const isWanted = () => mine === newest;
  await inTurns(documents.value, AT_ONCE, isWanted, async (document) => {
    try {
      const body = { template: draft.template!, document: document.id };
      const answer = await api('POST /templates/{id}/draft/replay', { parameters, body });
      if (isWanted()) replayed.value = [...replayed.value, { ...answer, document }];
    } catch (thrown) {
      if (isWanted()) failed.value = [...failed.value, { document, detail: asProblem(thrown).detail }];
    }
  });
}
onBeforeUnmount(() => newest++);

const done = computed(() => replayed.value.length + failed.value.length);
const isDone = computed(() => documents.value !== undefined && done.value === documents.value.length);
const groups = computed(() => groupedChanges(replayed.value));
const changed = computed(() => replayed.value.filter(({ changes }) => changes.length > 0).length);
const unread = computed(() => [...new Set(replayed.value.flatMap(({ unread: fields }) => fields))]);
const opened = ref<string>();
const keyOf = ({ of, what, documents: [first] }: ReplayGroup<Document>) => `${of} ${what} ${first?.after ?? ''}`;

function sentence({ of, what, most, documents: all }: ReplayGroup<Document>): string {
  const count = all.length === 1 ? 'one document' : `${all.length} documents`;
  if (of === 'figure')
    return `${what}: ${count} ${all.length === 1 ? 'differs' : 'differ'}${most === undefined ? '' : ` by up to ${numberText(most)}`}`;
  if (of === 'pages') return `${count} would have another number of pages`;
  const [first] = all;
  if (of === 'section') return `“${what}” would ${first!.after === 'printed' ? '' : 'not '}print in ${count}`;
  return first!.after === 'none'
    ? `“${what}” would no longer be found in ${count}`
    : `“${what}” would be found in ${count}`;
}
const beside = ({ id, number, versionId }: Document) => ({
  path: `/templates/${templateId.value}/versions`,
  query: { document: id, number, from: versionId, to: 'draft' },
});
const summary = computed(() => {
  if (documents.value === undefined) return 'Looking for filed documents …';
  if (!isDone.value) return `Replaying ${done.value + 1} of ${documents.value.length} …`;
  if (documents.value.length === 0) return 'Nothing was filed from this template yet.';
  return changed.value === 0
    ? `All ${documents.value.length} would have come out the same.`
    : `${changed.value} of ${documents.value.length} would have come out otherwise.`;
});
useKeys({ r: () => void replay() });
</script>

<template>
  <div class="replay">
    <WhereAmI
      :title="`Replay: ${draft.template?.name ?? ''}`"
      here="Replay"
      :way="[
        { label: 'Templates', to: '/templates' },
        { label: draft.template?.name ?? 'Template', to: `/templates/${templateId}` },
      ]"
    />
    <ProblemNote v-if="problem" :problem="problem" :way="{ label: 'All templates', to: '/templates' }" @again="load" />
    <template v-else>
      <div class="strip">
        <b role="status">{{ summary }}</b>
        <progress v-if="documents && !isDone" :value="done" :max="documents.length" aria-label="Replayed"></progress>
        <span class="spring"></span>
        <button type="button" class="in-words" @click="replay">Replay again</button>
        <NuxtLink class="in-words" :to="`/templates/${templateId}/prove`">Prove on ten</NuxtLink>
      </div>
      <div class="groups">
        <p class="quiet">The draft over the data that was kept with each document. What was filed stays as it is.</p>
        <p v-if="unread.length > 0" class="unread">
          The draft reads fields that were not kept with all of them: {{ unread.join(', ') }}. What hangs on those
          cannot be told.
        </p>
        <section v-for="group in groups" :key="keyOf(group)" :class="group.of">
          <h2>
            <button
              type="button"
              :aria-expanded="opened === keyOf(group)"
              @click="opened = opened === keyOf(group) ? undefined : keyOf(group)"
            >
              {{ sentence(group) }}
            </button>
          </h2>
          <table v-if="opened === keyOf(group)">
            <thead>
              <tr>
                <th scope="col">Document</th>
                <th scope="col">Record</th>
                <th scope="col" class="value">As filed</th>
                <th scope="col" class="value">By the draft</th>
                <th scope="col"><span class="visually-hidden">Compare</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="{ document, before, after } in group.documents" :key="document.id">
                <td>
                  <NuxtLink :to="`/register/${document.id}`">{{ document.number }}</NuxtLink>
                </td>
                <td>{{ document.recordName }}</td>
                <td class="value">{{ before }}</td>
                <td class="value">{{ after }}</td>
                <td><NuxtLink :to="beside(document)">Side by side</NuxtLink></td>
              </tr>
            </tbody>
          </table>
        </section>
        <p v-for="{ document, detail } in failed" :key="document.id" class="fault">
          {{ document.number }}: {{ detail }}
        </p>
      </div>
    </template>
  </div>
</template>

<style scoped>
.replay {
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
  min-height: 44px;
  padding: 8px 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
progress {
  width: 180px;
  accent-color: var(--verdigris);
}
.spring {
  flex: 1;
}
.groups {
  flex: 1;
  padding: 14px 24px 30px;
  overflow: auto;
}
section {
  margin-top: 10px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-left: 3px solid var(--brass);
}
.section {
  border-left-color: var(--verdigris);
}
.finding {
  border-left-color: var(--brick);
}
.pages {
  border-left-color: var(--slate);
}
h2 button {
  width: 100%;
  padding: 9px 14px;
  background: none;
  border: 0;
  color: var(--ink);
  font: 600 14px/18px var(--sans);
  text-align: start;
  cursor: pointer;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 5px 14px;
  border-top: 1px solid var(--hairline-soft);
  text-align: start;
}
th {
  color: var(--ink-quiet);
  font-weight: 500;
}
.value {
  font-variant-numeric: tabular-nums;
  text-align: end;
}
.unread {
  margin-top: 8px;
  padding: 6px 10px;
  background: var(--brass-50);
}
.fault {
  margin-top: 8px;
  color: var(--brick);
}
</style>
