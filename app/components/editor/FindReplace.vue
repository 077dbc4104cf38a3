<script setup lang="ts">
import { chooseMatch, matchesOf, replaceMatches } from '~/editor/find';

/** Finds words of the sheet, in formulas too, and puts others in their place. */
const open = defineModel<boolean>('open', { required: true });
const sheet = useSheetStore();
const draft = useDraftStore();
const words = ref('');
const by = ref('');
const inFormulas = ref(true);
const at = ref(-1);
const field = useTemplateRef<{ $el: HTMLInputElement }>('field');

const search = computed(() => ({ words: words.value, inFormulas: inFormulas.value }));
// What is found follows the sheet.
const matches = computed(() =>
  open.value && draft.template?.layout && sheet.editor ? matchesOf(sheet.editor.state.doc, search.value) : [],
);
watch(search, () => (at.value = -1));
watch(open, async (isOpen) => {
  if (!isOpen) return void sheet.editor?.commands.focus();
  await nextTick();
  field.value?.$el.select();
});

function go(step: -1 | 1): void {
  const count = matches.value.length;
  if (count === 0) return;
  at.value = (at.value + step + count) % count;
  sheet.run(chooseMatch(matches.value[at.value]!));
}
function replaceOne(): void {
  const match = matches.value[at.value];
  if (!match) return go(1);
  sheet.run(replaceMatches([match], search.value, by.value));
  at.value -= 1;
  void nextTick(() => go(1));
}
const replaceAll = () => sheet.run(replaceMatches(matches.value, search.value, by.value));
</script>

<template>
  <form
    v-if="open"
    class="find"
    role="search"
    aria-label="Find and replace"
    @submit.prevent="go(1)"
    @keydown.esc.stop="open = false"
  >
    <InputText
      ref="field"
      v-model="words"
      size="small"
      placeholder="Find on the sheet"
      aria-label="Find on the sheet"
      @keydown.shift.enter.prevent="go(-1)"
    />
    <span class="quiet" role="status">{{
      words === '' ? '' : matches.length === 0 ? 'nothing' : `${at >= 0 ? `${at + 1} of ` : ''}${matches.length}`
    }}</span>
    <button type="button" class="in-words" :disabled="matches.length === 0" @click="go(-1)">Previous</button>
    <button type="submit" class="in-words" :disabled="matches.length === 0">Next</button>
    <InputText
      v-model="by"
      size="small"
      placeholder="Replace with"
      aria-label="Replace with"
      @keydown.enter.prevent="replaceOne"
    />
    <button type="button" class="in-words" :disabled="matches.length === 0" @click="replaceOne">Replace</button>
    <button type="button" class="in-words" :disabled="matches.length === 0" @click="replaceAll">Replace all</button>
    <label><Checkbox v-model="inFormulas" binary /> in formulas too</label>
    <button type="button" class="in-words close" @click="open = false">Close</button>
  </form>
</template>

<style scoped>
.find {
  display: flex;
  flex: none;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 16px;
  background: var(--stone-50);
  border-bottom: 1px solid var(--hairline);
}
.find input {
  width: 170px;
}
.quiet {
  min-width: 52px;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.close {
  margin-left: auto;
}
</style>
