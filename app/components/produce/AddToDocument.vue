<script setup lang="ts">
import type { Block } from '#core/template/blocks';

/** A paragraph of one’s own, a picture or a clause, for one document. */
defineProps<{ busy: boolean }>();
const emit = defineEmits<{ close: []; add: [content: Block[], label: string] }>();
const clauses = useLoaded(() => api('GET /clauses'));
void clauses.reload();
const words = ref('');
const clause = ref<string>();
const KINDS = [
  { kind: 'paragraph', word: 'Paragraph' },
  { kind: 'picture', word: 'Picture' },
  { kind: 'clause', word: 'Clause' },
] as const;
const kind = ref<(typeof KINDS)[number]['kind']>('paragraph');
const picture = shallowRef<Extract<Block, { type: 'picture' }>>();
/** What would be added, and what people call it; undefined while something is missing. */
const wanted = computed((): { content: Block[]; label: string } | undefined => {
  switch (kind.value) {
    case 'paragraph':
      return words.value.trim() ? { content: paragraphsOf(words.value), label: 'A paragraph' } : undefined;
    case 'picture':
      return picture.value && { content: [picture.value], label: `The picture “${picture.value.attrs.alt}”` };
    case 'clause': {
      const chosen = clauses.value.value?.find(({ id }) => id === clause.value);
      const block = chosen && ({ type: 'clause', attrs: { id: 'clause', clause: chosen.id } } as const);
      return block && { content: [block], label: `The clause “${chosen.name}”` };
    }
  }
});

function paragraphsOf(typed: string): Block[] {
  const paragraphs = typed.trim().split(/\n{2,}/);
  return paragraphs.map((paragraph, at): Block => ({
    type: 'paragraph',
    attrs: { id: `paragraph-${at + 1}` },
    content: paragraph
      .split('\n')
      .flatMap((line, row) => [
        ...(row === 0 ? [] : [{ type: 'hardBreak' as const }]),
        ...(line ? [{ type: 'text' as const, text: line }] : []),
      ]),
  }));
}

function add(): void {
  if (wanted.value) emit('add', wanted.value.content, wanted.value.label);
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
      <PictureToAdd v-else-if="kind === 'picture'" v-model="picture" />
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
        <Button type="submit" label="Add" :disabled="!wanted" :loading="busy" />
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
