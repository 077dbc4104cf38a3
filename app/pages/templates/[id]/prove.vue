<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';

/** A draft over the records that it is proved on, all at once: what prints for each, what stops it, and which sections print. */
const route = useRoute();
const { barred } = useDraftScreen();
const draft = useDraftStore();
const ten = useTenProofsStore();
const publishOpen = ref(false);
const choosing = ref(false);
const problem = shallowRef<ApiProblem>();
const templateId = computed(() => String(route.params.id));

async function load(): Promise<void> {
  problem.value = undefined;
  try {
    await draft.load(templateId.value, !barred.value);
    await ten.prove();
  } catch (thrown) {
    problem.value = asProblem(thrown);
  }
}
/** Proves the draft that is open, as it is now. */
async function prove(): Promise<void> {
  try {
    await ten.prove();
  } catch (thrown) {
    problem.value = asProblem(thrown);
  }
}
watch(templateId, load, { immediate: true });
onBeforeUnmount(ten.leave);

const chosenSection = ref<string>();
const chosen = computed(() => ten.sections.find(({ block }) => block === chosenSection.value));
const isDimmed = (id: string) => chosen.value !== undefined && !chosen.value.records.has(id);
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
          >The draft over <b>{{ ten.proofs.length || 10 }} records</b>
          {{ draft.template?.proofRecords ? 'that were chosen' : 'that differ most' }}</span
        >
        <button v-if="!barred" type="button" class="in-words" @click="choosing = true">Choose others…</button>
        <span class="announcement" role="status">{{ draft.announcement }}</span>
        <div v-if="ten.sections.length > 0" class="sections" role="group" aria-label="Sections that print">
          <span class="quiet">Sections that print</span>
          <button
            v-for="{ block, note, records } in ten.sections"
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
        <li v-for="tile in ten.proofs" :key="tile.id" :class="{ dimmed: isDimmed(tile.id) }">
          <button type="button" class="tile" :aria-label="`Open the proof for ${tile.name}`" @click="open(tile.id)">
            <FirstPage :pages="tile.proof?.pages" :class="{ failed: tile.problem }" />
          </button>
          <strong>{{ tile.name }}</strong>
          <span v-if="ten.stopsOf(tile).length > 0" class="stops">
            {{ ten.stopsOf(tile)[0]
            }}{{ ten.stopsOf(tile).length > 1 ? ` and ${ten.stopsOf(tile).length - 1} more` : '' }}; stops filing
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
        <b v-if="ten.isDone">{{ ten.proofs.length - ten.stopped.length }} of {{ ten.proofs.length }} can be filed.</b>
        <span role="status">{{ ten.summary }}</span>
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
