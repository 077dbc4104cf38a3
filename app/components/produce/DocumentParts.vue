<script setup lang="ts">
import type { DocumentChange } from '#core/production/document-change';
import { MARGIN_NOTES } from '#core/template/margin-note';
import type { Answer } from '~/composables/api';
import type { Proof } from '~/stores/proof';

/** What of a document can be otherwise: its sections switched, its words changed, blocks left out and put in. */
const { proof, frozen, make } = defineProps<{
  proof: Proof;
  frozen: boolean;
  /** Gives whether it was done. */
  make: (change: DocumentChange, label: string) => Promise<boolean>;
}>();
type Block = Answer<'GET /productions/{id}/parts'>['blocks'][number];

const parts = useLoaded(() => api('GET /productions/{id}/parts', { parameters: { id: proof.id } }));
watch(() => [proof.id, proof.revision], parts.reload, { immediate: true });
const sections = computed(() => parts.value.value?.sections ?? []);
const search = ref('');
/** A block with its words as they are printed. */
const blocks = computed(() =>
  (parts.value.value?.blocks ?? [])
    .map((block) => ({ block, words: wordsOf(block) || named(block) }))
    .filter(({ words }) => words.toLowerCase().includes(search.value.trim().toLowerCase())),
);
const named = ({ name }: Block) => name.charAt(0).toUpperCase() + name.slice(1);
function wordsOf({ texts }: Block): string {
  const one = ({ content }: Block['texts'][number]) =>
    content
      .map((inline) =>
        inline.type === 'text'
          ? inline.text
          : inline.type === 'value'
            ? (proof.values[inline.attrs.id]?.text ?? '…')
            : ' ',
      )
      .join('');
  return texts.map(one).join(' ').trim();
}

const open = ref<string>();
const rewording = ref<{ id: string; content: Block['texts'][number]['content']; label: string }>();
const adding = ref<{ after: string; label: string }>();
const busy = ref(false);
async function change(wanted: DocumentChange, label: string): Promise<void> {
  busy.value = true;
  const isDone = await make(wanted, label);
  busy.value = false;
  if (!isDone) return;
  rewording.value = undefined;
  adding.value = undefined;
}
const short = (words: string) => (words.length > 60 ? `${words.slice(0, 60).trimEnd()}…` : words);
</script>

<template>
  <ProblemNote v-if="parts.problem.value" :problem="parts.problem.value" @again="parts.reload" />
  <template v-else>
    <section v-if="sections.length > 0">
      <h3>Sections</h3>
      <ul class="sections">
        <li v-for="{ id, note, prints } in sections" :key="id">
          <Checkbox
            :model-value="prints"
            binary
            :input-id="`section-${id}`"
            :disabled="frozen || busy"
            @update:model-value="change({ type: 'section', block: id, prints: $event }, `The section “${note}”`)"
          />
          <label :for="`section-${id}`">{{ MARGIN_NOTES.when(note) }}</label>
        </li>
      </ul>
    </section>
    <section>
      <h3>Words and blocks</h3>
      <InputText
        v-model="search"
        size="small"
        fluid
        placeholder="Find in the document"
        aria-label="Find in the document"
      />
      <ul class="blocks">
        <li v-for="{ block, words } in blocks" :key="block.id">
          <button
            type="button"
            class="words"
            :aria-expanded="open === block.id"
            @click="open = open === block.id ? undefined : block.id"
          >
            <bdi>{{ short(words) }}</bdi>
          </button>
          <span v-if="open === block.id" class="do">
            <Button
              v-for="(text, at) in block.texts"
              :key="text.id"
              :label="block.texts.length === 1 ? 'Change the words' : `Change text ${at + 1}`"
              size="small"
              severity="secondary"
              outlined
              :disabled="frozen"
              @click="rewording = { ...text, label: `“${short(words)}”` }"
            />
            <Button
              v-if="block.mayBeLeftOut"
              label="Leave out"
              size="small"
              severity="secondary"
              outlined
              :disabled="frozen || busy"
              @click="change({ type: 'leaveOut', block: block.id }, `“${short(words)}”`)"
            />
            <span v-else class="quiet">Its sums prove the document, so it stays.</span>
            <Button
              label="Add below"
              size="small"
              severity="secondary"
              outlined
              :disabled="frozen"
              @click="adding = { after: block.id, label: `after “${short(words)}”` }"
            />
          </span>
        </li>
      </ul>
      <p v-if="parts.value.value && blocks.length === 0" class="quiet">Nothing in the document has these words.</p>
    </section>
  </template>
  <LazyRewordText
    v-if="rewording"
    :content="rewording.content"
    :values="proof.values"
    :busy="busy"
    @close="rewording = undefined"
    @save="change({ type: 'words', block: rewording.id, content: $event }, rewording.label)"
  />
  <LazyAddToDocument
    v-if="adding"
    :busy="busy"
    @close="adding = undefined"
    @add="(content, label) => change({ type: 'add', after: adding!.after, content }, `${label} ${adding!.label}`)"
  />
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
  font: 500 13px/18px var(--sans);
}
.sections li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 3px 0;
}
.sections label {
  color: var(--slate);
  font: italic 12.5px/18px var(--serif);
}
.blocks {
  margin-top: 6px;
}
.blocks li {
  border-bottom: 1px solid var(--hairline-soft);
}
.words {
  width: 100%;
  padding: 5px 0;
  background: none;
  border: 0;
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
.words:hover {
  color: var(--verdigris);
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding: 2px 0 8px;
}
</style>
