<script setup lang="ts">
import type { Finding } from '#core/preflight/finding';

type Leaf = 'preflight' | 'workings' | 'document';
const LEAVES: readonly { leaf: Leaf; word: string }[] = [
  { leaf: 'preflight', word: 'Preflight' },
  { leaf: 'workings', word: 'Workings' },
  { leaf: 'document', word: 'This document' },
];

const route = useRoute();
const store = useProofStore();
const dealId = computed(() => String(route.params.id));
const templateId = computed(() => String(route.params.template));
const leaf = ref<Leaf>('preflight');
const pages = useTemplateRef<{ showValue(id: string): void }>('pages');
const neighbours = useLoaded(() => api.deals({ view: 'all', sort: 'closes_on', top: 100 }));

const load = () => store.load(dealId.value, templateId.value);
watch(
  [dealId, templateId],
  () => {
    store.reset();
    void load();
  },
  { immediate: true },
);
onBeforeUnmount(store.reset);
void neighbours.reload();
// What is proofed is the deal as it is now: coming back to the window reads it again.
useEventListener(window, 'focus', () => !store.busy && !store.filing && load());
useKeys({ 'Control+Enter': () => store.file(), r: load, '[': () => step(-1), ']': () => step(1) });

async function step(by: number): Promise<void> {
  if (!neighbours.value.value) await neighbours.reload();
  const ids = (neighbours.value.value?.deals ?? []).map(({ deal }) => deal.id);
  const next = ids[ids.indexOf(dealId.value) + by];
  if (next) void navigateTo(`/deals/${next}/produce/${templateId.value}`);
}

function openWorkings(id: string | undefined): void {
  store.workingsId = id;
  leaf.value = 'workings';
}

function openValue(id: string): void {
  const value = store.proof?.values[id];
  if (value) openWorkings(value.workings);
}

function showFinding(finding: Finding): void {
  leaf.value = 'preflight';
  if (finding.values[0]) pages.value?.showValue(finding.values[0]);
}
</script>

<template>
  <div class="produce">
    <WhereAmI :title="store.proof ? `${store.proof.template.name} for ${store.proof.record.name}` : 'Produce'">
      <span class="quiet"
        >Deal · <NuxtLink :to="`/deals/${dealId}`">{{ store.proof?.record.name ?? dealId }}</NuxtLink> › </span
      >{{ store.proof?.template.name }}
    </WhereAmI>
    <ProblemNote v-if="store.problem" class="whole" :problem="store.problem" @again="load" />
    <template v-else>
      <section class="middle" aria-label="Proof">
        <ProofPages
          v-if="store.proof"
          ref="pages"
          :proof="store.proof"
          :findings="store.findings"
          @value="openValue"
          @finding="showFinding"
        />
        <div v-else class="waiting"><Skeleton width="566px" height="800px" border-radius="0" /></div>
      </section>
      <aside class="leaf">
        <div class="tabs" role="tablist">
          <button
            v-for="each in LEAVES"
            :key="each.leaf"
            type="button"
            role="tab"
            :aria-selected="leaf === each.leaf"
            :class="{ on: leaf === each.leaf }"
            @click="leaf = each.leaf"
          >
            {{ each.word }}
            <i v-if="each.leaf === 'preflight' && store.openFindings.length > 0">{{ store.openFindings.length }}</i>
          </button>
        </div>
        <div v-if="store.proof" class="content" role="tabpanel">
          <PreflightLeaf
            v-if="leaf === 'preflight'"
            :findings="store.findings"
            :skipped="store.skipped"
            :proved="store.proof.proved.sums"
            :read="Object.keys(store.proof.used).length"
            :deal-id="dealId"
            @show="showFinding"
            @workings="openWorkings"
            @skip="store.skip"
            @unskip="store.unskip"
          />
          <WorkingsLeaf
            v-else-if="leaf === 'workings'"
            :workings="store.proof.workings"
            :figures="store.proof.figures"
            :open="store.workingsId"
            @open="openWorkings"
          />
          <DocumentLeaf v-else :proof="store.proof" />
        </div>
      </aside>
      <FilingFoot
        class="whole"
        :file-name="store.proof?.fileName ?? ''"
        :may-file="store.mayFile"
        :busy="store.busy"
        :filing="store.filing"
        :problem="store.filingProblem"
        :open-count="store.openFindings.length"
        :deal-id="dealId"
        @file="store.file"
        @look="leaf = 'preflight'"
      />
    </template>
  </div>
</template>

<style scoped>
.produce {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 340px;
  height: 100%;
}
.whole {
  grid-column: 1 / 3;
}
.middle {
  min-height: 0;
}
.waiting {
  display: grid;
  justify-content: center;
  padding-top: 20px;
  overflow: hidden;
}
.leaf {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--sheet);
  border-left: 1px solid var(--hairline);
}
.tabs {
  display: flex;
  gap: 18px;
  padding: 0 14px;
  border-bottom: 1px solid var(--hairline);
}
.tabs button {
  padding: 11px 0 9px;
  background: none;
  border: 0;
  color: var(--ink-quiet);
  font-weight: 500;
  cursor: pointer;
}
.tabs .on {
  color: var(--ink);
  box-shadow: inset 0 -2px var(--ink);
}
.tabs i {
  color: var(--brick);
  font: 600 11px/16px var(--sans);
}
.content {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
</style>
