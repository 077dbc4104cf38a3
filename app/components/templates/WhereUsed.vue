<script setup lang="ts">
import { sentence } from '#core/formula/value';
import type { Use } from '#core/template/where-used';

/** Places of the draft that use something; a click leads to each: on the sheet, or to the figure. */
const { uses, formula } = defineProps<{
  uses: readonly Use[];
  /** What is used: of a block that has it as a value, that value is chosen. */
  formula?: string;
}>();
const emit = defineEmits<{ go: [] }>();
const draft = useDraftStore();
const sheet = useSheetStore();
const route = useRoute();

async function goTo({ block, figure }: Use): Promise<void> {
  emit('go');
  const { record } = route.query;
  const path = `/templates/${draft.template!.id}`;
  if (figure !== undefined) await navigateTo({ path: `${path}/figures`, query: { record, figure } });
  else if (sheet.editor) sheet.chooseValue(block!, formula ?? '');
  else await navigateTo({ path, query: { record, block } });
}
</script>

<template>
  <ul class="where-used">
    <li v-for="use in uses" :key="`${use.block} ${use.figure} ${use.words}`">
      <button
        v-if="use.block !== undefined || use.figure !== undefined"
        type="button"
        class="in-words"
        @click="goTo(use)"
      >
        {{ sentence(use.words) }}
      </button>
      <span v-else class="quiet">{{ sentence(use.words) }}</span>
    </li>
  </ul>
</template>

<style scoped>
button {
  text-align: start;
}
</style>
