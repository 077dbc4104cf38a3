<script setup lang="ts">
import type { Answer } from '~/composables/api';

/** What is done after a document was filed, step by step: what was answered, what waits, and the ways on for what is held. */
type Step = Answer<'GET /documents/{id}'>['document']['steps'][number];
const { id, steps, filed } = defineProps<{
  /** Of the document. */
  id: string;
  steps: readonly Step[];
  /** Whether the document is filed: before, nothing of this is begun. */
  filed: boolean;
  /** Why the person may not act on it. */
  whyNot: string | undefined;
}>();
const emit = defineEmits<{ changed: [] }>();
const act = useAct(() => Promise.resolve(emit('changed')));
const lettingGo = ref<Step>();

/** The step that comes next: of those after it nothing is to be said but that they wait for it. */
const next = computed(() => (filed ? steps.find(({ state }) => state === 'open' || state === 'held') : undefined));

function said(step: Step): string {
  const { state, attempts, doneAt, letGo } = step;
  const tries = attempts > 1 ? `, after ${attempts} tries` : '';
  if (state === 'done') return `Done ${momentText(doneAt!)}${tries}`;
  if (state === 'let go') return `Let go by ${letGo!.by}, ${momentText(letGo!.at)}: “${letGo!.reason}”`;
  if (state === 'skipped') return 'Skipped: its condition does not hold';
  if (state === 'held') return `Held${tries}`;
  if (state === 'ended') return 'Not done: the document is void';
  if (!filed) return 'Once it is filed';
  if (step !== next.value) return 'Waits for the step before it';
  return step.reason ? `Waiting${tries}` : 'Under way';
}

const letGo = (reason: string) =>
  api('POST /documents/{id}/let-go', {
    parameters: { id },
    body: { position: lettingGo.value!.position, reason },
  });
const tryNow = () => act(() => api('POST /documents/{id}/try', { parameters: { id } }), 'It is being tried');
</script>

<template>
  <ol>
    <li v-for="step in steps" :key="step.position" :class="step.state.replace(' ', '-')">
      <p class="words">{{ step.words }}</p>
      <p class="quiet">{{ said(step) }}</p>
      <template v-if="step === next && step.reason">
        <p class="reason">
          {{ step.reason }}
          <span v-if="step.dueAt" class="quiet">Next try {{ momentText(step.dueAt) }}.</span>
        </p>
        <div class="act">
          <PermittedButton
            label="Try now"
            size="small"
            severity="secondary"
            outlined
            :why-not="whyNot"
            @press="tryNow"
          />
          <PermittedButton
            label="Let it go …"
            size="small"
            severity="secondary"
            text
            :why-not="whyNot"
            @press="lettingGo = step"
          />
        </div>
      </template>
    </li>
  </ol>
  <AskWhy
    id="let-go-reason"
    :open="lettingGo !== undefined"
    header="Let this step go"
    label="Let it go"
    :act="letGo"
    @close="lettingGo = undefined"
    @done="((lettingGo = undefined), emit('changed'))"
  >
    {{ lettingGo?.words }} It stays undone, and the steps after it go on. Your reason is kept with the document.
  </AskWhy>
</template>

<style scoped>
ol {
  display: grid;
}
li {
  position: relative;
  padding: 5px 0 7px 20px;
  border-bottom: 1px solid var(--hairline-soft);
  overflow-wrap: anywhere;
}
li::before {
  position: absolute;
  top: 10px;
  left: 2px;
  box-sizing: border-box;
  width: 9px;
  height: 9px;
  border: 1px solid var(--ink-quiet);
  border-radius: 50%;
  content: '';
}
.done::before {
  background: var(--verdigris);
  border-color: var(--verdigris);
}
.held::before {
  background: var(--brick);
  border-color: var(--brick);
}
.skipped .words,
.let-go .words {
  color: var(--ink-quiet);
}
.reason {
  margin-top: 2px;
  color: var(--brick);
}
.act {
  display: flex;
  gap: 6px;
  margin-top: 5px;
}
</style>
