<script setup lang="ts">
import type { ApiProblem } from '~/composables/api';
import type { FilingProgress, Proof } from '~/stores/proof';
import { useRecordTypesStore } from '~/stores/record-types';

/** The foot of Produce: what filing will do in words, the one dark button, and how far the filing is. */
const { fileName, kind, afterFiling, revises, mayFile, busy, filing, openCount, record, next } = defineProps<{
  fileName: string;
  /** Of the document: quote, invoice. */
  kind: string;
  /** What is done once it is filed, in sentences. */
  afterFiling: readonly string[];
  /** What it is the next revision of, unless it takes a new number all the same. */
  revises: Proof['revises'] | undefined;
  mayFile: boolean;
  /** Why the person may not file documents of this kind. */
  whyNot: string | undefined;
  busy: boolean;
  filing?: FilingProgress;
  problem?: ApiProblem;
  openCount: number;
  /** A newer proof is being made: what would be filed is not shown yet. */
  renewing: boolean;
  record: { type: string; id: string };
  /** The record after this one in the list that one came from. */
  next: string | undefined;
}>();
const types = useRecordTypesStore();
const called = computed(() => types.called(record.type));
defineEmits<{ file: []; look: []; next: [] }>();
/** What filing does, in its order, before it is done. */
const willHappen = computed(() =>
  [
    revises && !revises.asNew
      ? `Filing makes this ${revises.next}, puts the PDF on the ${called.value}${revises.replaces ? ' in the place of the earlier file' : ''}, and supersedes ${revises.number}.`
      : `Filing takes the next number of ${kind}s and puts the PDF on the ${called.value}.`,
    ...afterFiling,
    'Nothing is sent.',
  ].join(' '),
);
/** What is left to do once it is filed, in words. */
const stepsWords = computed(() => {
  const { stepsLeft = 0, isHeld = false, reason } = filing ?? {};
  if (stepsLeft === 0) return undefined;
  if (isHeld) return `A step after filing is held: ${reason}`;
  if (reason) return `A step after filing waits: ${reason}`;
  return stepsLeft === 1 ? 'One step after filing is under way.' : `${stepsLeft} steps after filing are under way.`;
});
const file = computed(() => (filing ? addressOf('GET /documents/{id}/file', { parameters: { id: filing.id } }) : ''));
// Browsers lend the clipboard to secure pages alone; elsewhere there is the old way.
const { copy, copied } = useClipboard({ legacy: true });
const copyLink = () => copy(new URL(`/register/${filing!.id}`, location.origin).href);
/** What is done by the time that a state is reached. */
const STEPS = [
  { state: 'preparing', words: 'Assigning the number' },
  { state: 'rendered', words: 'Creating the PDF' },
  { state: 'filed', words: 'Attaching it to the record' },
] as const;
const reached = computed(() => STEPS.findIndex(({ state }) => state === filing?.state));
</script>

<template>
  <footer class="foot" aria-live="polite">
    <template v-if="filing?.state === 'filed'">
      <span
        ><b>{{ filing.number }}</b> is filed and attached to the {{ called }}.
        <span v-if="stepsWords" :class="filing.isHeld ? 'failed' : 'quiet'">{{ stepsWords }}</span></span
      >
      <Button class="first" :label="copied ? 'Link copied' : 'Copy link'" severity="secondary" text @click="copyLink" />
      <Button as="a" label="Download" severity="secondary" text :href="file" download />
      <Button
        :label="`Back to the ${called}`"
        severity="secondary"
        outlined
        @click="navigateTo(recordPath(record.type, record.id))"
      />
      <Button
        label="Open the PDF"
        :severity="next ? 'secondary' : undefined"
        :outlined="next !== undefined"
        @click="navigateTo(`/register/${filing.id}`)"
      />
      <Button v-if="next" :label="`Next ${called}`" @click="$emit('next')" />
    </template>
    <template v-else-if="filing?.state === 'failed'">
      <span class="failed"
        ><b>{{ filing.number }}</b> failed and its number is void: {{ filing.reason }}</span
      >
      <Button
        class="first"
        label="Open in the register"
        severity="secondary"
        outlined
        @click="navigateTo(`/register/${filing.id}`)"
      />
    </template>
    <template v-else-if="filing?.reason">
      <b>{{ filing.number }}</b>
      <WaitingNote :id="filing.id" :reason="filing.reason" :due-at="filing.dueAt" :why-not="whyNot" />
      <Button
        label="Open in the register"
        severity="secondary"
        text
        size="small"
        @click="navigateTo(`/register/${filing.id}`)"
      />
    </template>
    <template v-else-if="busy">
      <!-- Steps are counted from one; the one that is under way comes after what is reached. -->
      <Stepper :value="reached + 2" linear class="steps" aria-label="Filing">
        <StepList>
          <Step
            v-for="(step, index) in STEPS"
            :key="step.state"
            :value="index + 1"
            :class="{ done: index <= reached }"
            >{{ step.words }}</Step
          >
        </StepList>
      </Stepper>
    </template>
    <template v-else>
      <span class="mono name">{{ fileName }}</span>
      <span v-if="problem" class="failed announcement" role="alert">
        <b>{{ problem.title }}.</b>{{ ' ' }}
        <template v-if="problem.changes">
          <template v-for="change in problem.changes.slice(0, 2)" :key="change.what"
            >{{ change.what }}: {{ change.before || 'blank' }} → {{ change.after || 'blank' }}. </template
          ><template v-if="problem.changes.length > 2">And {{ problem.changes.length - 2 }} more. </template>This is the
          new proof.</template
        >
        <template v-else> {{ problem.detail }}</template>
      </span>
      <span v-else-if="whyNot" class="quiet words">{{ whyNot }}</span>
      <span v-else v-tooltip.top="willHappen" class="quiet words">{{ willHappen }}</span>
      <Button
        v-if="openCount > 0"
        class="first"
        :label="openCount === 1 ? '1 issue to resolve' : `${openCount} issues to resolve`"
        severity="secondary"
        outlined
        @click="$emit('look')"
      />
      <PermittedButton
        :class="{ first: openCount === 0 }"
        label="File"
        :disabled="!mayFile && !whyNot"
        :loading="renewing"
        :why-not="whyNot"
        @press="$emit('file')"
      />
    </template>
  </footer>
</template>

<style scoped>
.foot {
  display: flex;
  gap: 16px;
  align-items: center;
  min-height: 56px;
  padding: 8px 16px;
  background: var(--sheet);
  border-top: 1px solid var(--hairline);
}
.name {
  overflow: hidden;
  max-width: 36%;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.words,
.announcement {
  overflow: hidden;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
.first {
  margin-left: auto;
}
.foot :deep(button) {
  flex: none;
}
.failed {
  color: var(--brick);
}
b {
  font-weight: 600;
}
.steps {
  width: min(620px, 100%);
}
.steps :deep(.done .p-step-number) {
  background: var(--verdigris);
  font-size: 0;
}
.steps :deep(.done .p-step-number::after) {
  color: var(--on-colour);
  font-size: 11px;
  content: '✓';
}
.steps :deep(.done .p-step-title) {
  color: var(--ink);
}
</style>
