<script setup lang="ts">
import type { AutoCompleteOptionSelectEvent } from 'primevue/autocomplete';
import { searchFor } from '#core/words/search';
import { useCommandsStore } from '~/stores/commands';

/** Finds records, documents and templates by name, number or account, and what the open screen can do. */
interface Hit {
  /** An address, or a name of its own. */
  to: string;
  run?: () => void;
  name: string;
  about: string;
  kind: string;
}

/** What was typed before it was there. */
const { typed } = defineProps<{ typed: string }>();
const emit = defineEmits<{ ready: [] }>();
const open = defineModel<boolean>('open', { required: true });
const field = useTemplateRef<{ $el: HTMLElement }>('field');
const words = ref<string | Hit>('');
const hits = ref<Hit[]>([]);
const trouble = ref('');

/** Takes what was typed while it opened. */
async function ready(): Promise<void> {
  await nextTick();
  // The dialog gives it the focus only once it is drawn in full.
  const input = field.value?.$el.querySelector('input');
  input?.focus();
  emit('ready');
  if (typed === '' || !input) return;
  input.value = typed;
  input.dispatchEvent(new Event('input', { bubbles: true }));
}

async function search({ query }: { query: string }): Promise<void> {
  trouble.value = '';
  const here = commandsFor(query);
  try {
    hits.value = [...here, ...(await found(query))];
  } catch (problem) {
    hits.value = here;
    trouble.value = asProblem(problem).detail;
  }
}

const MOST_COMMANDS = 8;
const store = useCommandsStore();
function commandsFor(query: string): Hit[] {
  const isFound = searchFor(query);
  return store
    .commands()
    .filter(({ name }) => isFound([name]))
    .slice(0, MOST_COMMANDS)
    .map(({ name, about, run }, at) => ({ to: `here ${at} ${name}`, name, about, kind: 'on this sheet', run }));
}

async function found(q: string): Promise<Hit[]> {
  const { records, documents, templates } = await api('GET /find', { query: { q } });
  return [
    ...records.map(({ type, id, name, account, called }) => ({
      to: recordPath(type, id),
      name,
      about: account,
      kind: called,
    })),
    ...documents.map(({ id, number, accountName }) => ({
      to: `/register/${id}`,
      name: number,
      about: accountName,
      kind: 'document',
    })),
    ...templates.map(({ id, name, kind }) => ({
      to: `/templates/${id}`,
      name,
      about: kind,
      kind: 'template',
    })),
  ];
}

function go({ value }: AutoCompleteOptionSelectEvent): void {
  open.value = false;
  const { run, to } = value as Hit;
  // The dialog gives the focus back before what was chosen takes it.
  if (run) void nextTick(run);
  else void navigateTo(to);
}
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    :show-header="false"
    dismissable-mask
    position="top"
    :style="{ width: '520px', marginTop: '64px' }"
    :pt="{
      root: { 'aria-label': 'Find anything', 'aria-labelledby': null },
      content: { style: 'padding: 8px; overflow: visible' },
    }"
    @show="ready"
  >
    <AutoComplete
      ref="field"
      v-model="words"
      :suggestions="hits"
      option-label="name"
      data-key="to"
      :min-length="2"
      :delay="120"
      auto-option-focus
      fluid
      append-to="self"
      scroll-height="60vh"
      aria-label="Find a record, a document or a template"
      placeholder="A name, an account, a number"
      :pt="{ pcInputText: { root: { autofocus: true } } }"
      :empty-search-message="trouble || `Nothing has “${words}” in its name or number.`"
      @complete="search"
      @option-select="go"
    >
      <template #option="{ option }">
        <span class="name">{{ option.name }}</span> <span class="quiet">{{ option.about }}</span>
        <span class="kind quiet">{{ option.kind }}</span>
      </template>
    </AutoComplete>
  </Dialog>
</template>

<style scoped>
.name {
  font-weight: 500;
}
.kind {
  margin-left: auto;
}
:deep(.p-autocomplete-option) {
  gap: 8px;
}
:deep(.p-autocomplete-input) {
  font-size: 15px;
}
</style>
