<script setup lang="ts">
/** Finds records, documents and templates by name, number or account. */
interface Hit {
  to: string;
  name: string;
  about: string;
  kind: string;
}

const open = defineModel<boolean>('open', { required: true });
const words = ref('');
const hits = ref<Hit[]>([]);
const chosen = ref(0);
const note = ref('');

watchDebounced(words, search, { debounce: 120 });
watch(open, (isOpen) => {
  if (isOpen) return;
  words.value = '';
  hits.value = [];
  note.value = '';
});

async function search(): Promise<void> {
  if (words.value.trim().length < 2) {
    hits.value = [];
    note.value = '';
    return;
  }
  try {
    const found = await api('GET /find', { query: { q: words.value } });
    hits.value = [
      ...found.records.map(({ type, id, name, account, called }): Hit => ({
        to: recordPath(type, id),
        name,
        about: account,
        kind: called,
      })),
      ...found.documents.map((each): Hit => ({
        to: `/register/${each.id}`,
        name: each.number,
        about: each.accountName,
        kind: 'Document',
      })),
      ...found.templates.map(({ id, name, kind }): Hit => ({
        to: `/templates/${id}/figures`,
        name,
        about: kind,
        kind: 'Template',
      })),
    ];
    note.value = hits.value.length === 0 ? `Nothing has “${words.value}” in its name or number.` : '';
    chosen.value = 0;
  } catch (problem) {
    note.value = asProblem(problem).detail;
  }
}

function move(step: number): void {
  if (hits.value.length > 0) chosen.value = (chosen.value + step + hits.value.length) % hits.value.length;
}

function go(hit: Hit | undefined): void {
  if (!hit) return;
  open.value = false;
  void navigateTo(hit.to);
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
    :pt="{ root: { 'aria-label': 'Find anything', 'aria-labelledby': null }, content: { style: 'padding: 0' } }"
  >
    <input
      v-model="words"
      class="words"
      type="search"
      autofocus
      aria-label="Find a record, a document or a template"
      placeholder="A name, an account, a number"
      @keydown.down.prevent="move(1)"
      @keydown.up.prevent="move(-1)"
      @keydown.enter.prevent="go(hits[chosen])"
    />
    <ul role="listbox" aria-label="Found">
      <li
        v-for="(hit, index) in hits"
        :key="hit.to"
        role="option"
        :aria-selected="index === chosen"
        :class="{ chosen: index === chosen }"
        @click="go(hit)"
        @mousemove="chosen = index"
      >
        <span class="name">{{ hit.name }}</span> <span class="quiet">{{ hit.about }}</span>
        <span class="kind quiet">{{ hit.kind }}</span>
      </li>
    </ul>
    <p v-if="note" class="note quiet">{{ note }}</p>
  </Dialog>
</template>

<style scoped>
.words {
  width: 100%;
  padding: 14px 16px;
  border: 0;
  border-bottom: 1px solid var(--hairline);
  font-size: 15px;
  outline: none;
  background: none;
}
li {
  display: flex;
  gap: 8px;
  padding: 8px 16px;
  cursor: pointer;
}
.chosen {
  background: var(--verdigris-50);
}
.name {
  font-weight: 500;
}
.kind {
  margin-left: auto;
}
.note {
  padding: 10px 16px;
}
</style>
