<script setup lang="ts">
import type { Block } from '#core/template/blocks';

/** A paragraph of one’s own, or a clause, for one document. */
defineProps<{ busy: boolean }>();
const emit = defineEmits<{ close: []; add: [content: Block[], label: string] }>();
const clauses = useLoaded(() => api('GET /clauses'));
void clauses.reload();
const words = ref('');
const clause = ref<string>();
const KINDS = [
  { kind: 'paragraph', word: 'Paragraph' },
  { kind: 'clause', word: 'Clause' },
] as const;
const kind = ref<(typeof KINDS)[number]['kind']>('paragraph');
const mayAdd = computed(() => (kind.value === 'paragraph' ? words.value.trim() !== '' : clause.value !== undefined));

function add(): void {
  if (!mayAdd.value) return;
  if (kind.value === 'clause') {
    const name = clauses.value.value!.find(({ id }) => id === clause.value)!.name;
    return emit('add', [{ type: 'clause', attrs: { id: 'clause', clause: clause.value! } }], `The clause “${name}”`);
  }
  const paragraphs = words.value.trim().split(/\n{2,}/);
  const content = paragraphs.map((paragraph, at): Block => ({
    type: 'paragraph',
    attrs: { id: `paragraph-${at + 1}` },
    content: paragraph
      .split('\n')
      .flatMap((line, row) => [
        ...(row === 0 ? [] : [{ type: 'hardBreak' as const }]),
        ...(line ? [{ type: 'text' as const, text: line }] : []),
      ]),
  }));
  emit('add', content, 'A paragraph');
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Add to this document"
    :style="{ width: '560px' }"
    :draggable="false"
    @update:visible="emit('close')"
  >
    <form @submit.prevent="add" @keydown.ctrl.enter.stop.prevent="add">
      <SelectButton
        v-model="kind"
        :options="[...KINDS]"
        option-value="kind"
        option-label="word"
        :allow-empty="false"
        size="small"
        aria-label="What to add"
      />
      <Textarea
        v-if="kind === 'paragraph'"
        v-model="words"
        rows="5"
        fluid
        autofocus
        aria-label="Words"
        placeholder="Words that stand in this document alone"
      />
      <template v-else>
        <ProblemNote v-if="clauses.problem.value" :problem="clauses.problem.value" @again="clauses.reload" />
        <Select
          v-else
          v-model="clause"
          :options="[...(clauses.value.value ?? [])]"
          option-label="name"
          option-value="id"
          placeholder="Choose a clause"
          aria-label="Clause"
          fluid
        />
      </template>
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="emit('close')" />
        <Button type="submit" label="Add" :disabled="!mayAdd" :loading="busy" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
</style>
