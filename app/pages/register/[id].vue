<script setup lang="ts">
import { useMeStore } from '~/stores/me';
import { useRecordTypesStore } from '~/stores/record-types';

/** One document of the register: its pages, what happened to it, and how its values came about. */
type Leaf = 'history' | 'workings';
const LEAVES: readonly { leaf: Leaf; word: string }[] = [
  { leaf: 'history', word: 'Document' },
  { leaf: 'workings', word: 'Workings' },
];

const route = useRoute();
const types = useRecordTypesStore();
const id = computed(() => String(route.params.id));
const file = computed(() => addressOf('GET /documents/{id}/file', { parameters: { id: id.value } }));
const loaded = useLoaded(() => api('GET /documents/{id}', { parameters: { id: id.value } }));
const leaf = ref<Leaf>('history');
const workingsId = ref<string>();
const document = computed(() => loaded.value.value?.document);
const hasPdf = computed(
  () => document.value && (document.value.state === 'filed' || document.value.state === 'rendered'),
);
const me = useMeStore();
const barred = computed(() => (document.value ? me.mayNotFile(document.value.kind) : undefined));
const voiding = ref(false);
let stop = () => {};
watch(
  id,
  async () => {
    stop();
    await loaded.reload();
    follow();
  },
  { immediate: true },
);
function follow(): void {
  stop();
  if (document.value && !isSettled(document.value)) stop = followDocument(id.value, loaded.reload);
}
/** What was held goes on: it is followed again. */
async function goOn(): Promise<void> {
  await loaded.reload();
  follow();
}
onBeforeUnmount(() => stop());
</script>

<template>
  <div class="document">
    <WhereAmI :title="document?.title ?? 'Document'" :way="[{ label: 'Register', to: '/register' }]" />
    <ProblemNote
      v-if="loaded.problem.value"
      :problem="loaded.problem.value"
      :way="{ label: 'To the register', to: '/register' }"
      @again="loaded.reload"
    />
    <DeskAndLeaf v-else-if="document" v-model="leaf" desk-label="Pages" :leaves="LEAVES">
      <template #desk>
        <PdfPages v-if="hasPdf" :src="file" />
        <EmptyNote v-else-if="document.state === 'failed'" title="This document was never filed"
          >{{ document.reason }} Its number, {{ document.number }}, is void.</EmptyNote
        >
        <EmptyNote v-else title="Being prepared">{{ document.reason ?? 'The PDF is on its way.' }}</EmptyNote>
      </template>
      <template #leaf>
        <WorkingsLeaf
          v-if="leaf === 'workings' && loaded.value.value?.explained"
          :shown="workingsId === undefined ? undefined : loaded.value.value.explained.workings[workingsId]"
          :figures="loaded.value.value.explained.figures"
          :bridge="loaded.value.value.explained.bridge"
          hint="Choose a figure to see how it came about."
          @open="workingsId = $event"
        />
        <p v-else-if="leaf === 'workings'" class="quiet none">Nothing was computed for this document.</p>
        <div v-else class="about">
          <dl>
            <dt>Number</dt>
            <dd>{{ document.number }}</dd>
            <template v-if="document.revises">
              <dt>Revises</dt>
              <dd>
                <NuxtLink :to="`/register/${document.revises.id}`">{{ document.revises.number }}</NuxtLink>
              </dd>
            </template>
            <template v-if="document.supersededBy">
              <dt>Superseded</dt>
              <dd>
                by <NuxtLink :to="`/register/${document.supersededBy.id}`">{{ document.supersededBy.number }}</NuxtLink>
              </dd>
            </template>
            <template v-if="document.voided">
              <dt>Void</dt>
              <dd class="void">
                {{ document.voided.reason }}
                <span class="quiet">{{ document.voided.by }}, {{ momentText(document.voided.at) }}</span>
              </dd>
            </template>
            <dt>{{ types.named(document.recordType)?.label ?? 'Record' }}</dt>
            <dd>
              <NuxtLink :to="recordPath(document.recordType, document.recordId)">{{ document.recordName }}</NuxtLink>
            </dd>
            <dt>Account</dt>
            <dd>
              <bdi>{{ document.accountName }}</bdi>
            </dd>
            <dt>Total</dt>
            <dd>{{ sumText(document.amount, document.currency) }}</dd>
            <template v-if="document.by">
              <dt>Filed by</dt>
              <dd>{{ document.by }}</dd>
            </template>
            <dt>Issue date</dt>
            <dd>{{ dayText(document.issueDate) }}</dd>
            <dt>File</dt>
            <dd class="mono">{{ document.fileName }}</dd>
          </dl>
          <template v-if="Object.keys(document.skips).length > 0">
            <h3>Skipped before filing</h3>
            <ul>
              <li v-for="(reason, finding) in document.skips" :key="finding" class="quiet">
                {{ loaded.value.value?.explained?.findings.find((each) => each.id === finding)?.title ?? finding }}: “{{
                  reason
                }}”
              </li>
            </ul>
          </template>
          <template v-if="document.changes.length > 0">
            <h3>Changed for this document</h3>
            <ul>
              <li v-for="change in document.changes" :key="change.id">
                {{ change.label }} {{ changeWords(change.change) }}
                <span class="quiet">{{ change.by }}, {{ momentText(change.at) }}</span>
              </li>
            </ul>
          </template>
          <template v-if="document.steps.length > 0">
            <h3>After filing</h3>
            <DocumentSteps
              :id="document.id"
              :steps="document.steps"
              :filed="document.state === 'filed'"
              :why-not="barred"
              @changed="goOn"
            />
          </template>
          <h3>History</h3>
          <ol>
            <li v-for="event in loaded.value.value?.history" :key="event.id">
              {{ event.sentence }}
              <span class="quiet">{{ event.by ? `${event.by}, ` : '' }}{{ momentText(event.at) }}</span>
            </li>
          </ol>
        </div>
      </template>
      <template #foot
        ><footer class="foot">
          <span class="mono">{{ document.fileName }}</span>
          <template v-if="!isEnded(document)">
            <WaitingNote
              v-if="document.reason && !document.toBeVoid"
              :id="document.id"
              :reason="document.reason"
              :due-at="document.dueAt"
              :why-not="barred"
            />
            <span v-else-if="document.toBeVoid" class="first">It will be void, unless the record holds its file.</span>
            <PermittedButton
              v-if="!document.toBeVoid"
              :class="{ first: !document.reason }"
              label="Void …"
              severity="secondary"
              outlined
              size="small"
              :why-not="me.mayNot('void')"
              @press="voiding = true"
            />
          </template>
          <PermittedButton
            v-if="document.state === 'filed' && document.validity === 'current'"
            class="first"
            label="Void …"
            severity="secondary"
            outlined
            size="small"
            :why-not="me.mayNot('void')"
            @press="voiding = true"
          />
          <Button
            v-if="hasPdf && isEnded(document)"
            as="a"
            :class="{ first: document.state !== 'filed' || document.validity !== 'current' }"
            label="Download"
            :href="file"
            :download="document.fileName"
          /></footer
      ></template>
    </DeskAndLeaf>
    <VoidDocument
      v-if="document"
      :id="document.id"
      :number="document.number"
      :filed="document.state === 'filed'"
      :open="voiding"
      @close="voiding = false"
      @asked="((voiding = false), loaded.reload())"
    />
  </div>
</template>

<style scoped>
.document {
  height: 100%;
}
.about,
.none {
  padding: 12px 14px;
}
dl {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: 5px 10px;
}
dt {
  color: var(--ink-quiet);
}
dd {
  overflow-wrap: anywhere;
}
h3 {
  margin: 18px 0 4px;
  font: 500 13px/18px var(--sans);
}
ol li,
ul li {
  padding: 4px 0;
  border-bottom: 1px solid var(--hairline-soft);
}
dd.void {
  color: var(--brick);
}
.foot {
  display: flex;
  gap: 16px;
  align-items: center;
  height: 56px;
  padding: 0 16px;
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.first {
  margin-left: auto;
}
</style>
