<script setup lang="ts">
/** What stands in the margin beside a section: made from its formula, or the author's own words. */
const { id, note, earlier } = defineProps<{
  /** Of the section. */
  id: string;
  note: string | undefined;
  /** What was written for a formula that was changed since. */
  earlier: string | undefined;
}>();
const emit = defineEmits<{ write: [note: string | undefined, earlier: string | undefined] }>();
const figures = useFiguresStore();
const made = computed(() => figures.page?.notes[id] ?? '');
/** What a note begins with is not the author's to write: it tells what kind of section it is. */
const beginning = computed(() => /^(when|for each) /.exec(made.value)?.[0] ?? '');
const words = computed(() => note ?? made.value.slice(beginning.value.length));
function keep(event: Event): void {
  const written = (event.target as HTMLTextAreaElement).value.trim();
  if (written === words.value) return;
  emit('write', written === '' ? undefined : written, undefined);
}
</script>

<template>
  <div class="note">
    <span class="words"
      ><i>{{ beginning }}</i
      ><Textarea
        :key="words"
        :model-value="words"
        aria-label="Said in the margin"
        auto-resize
        rows="1"
        maxlength="200"
        @change="keep"
        @keydown.enter.prevent="keep"
      />
    </span>
    <p v-if="earlier" class="fallen">
      You wrote “{{ earlier }}” for what it was before.
      <button type="button" class="in-words" @click="emit('write', earlier, undefined)">Use it again</button>
      <button type="button" class="in-words" @click="emit('write', note, undefined)">Forget it</button>
    </p>
    <p v-else-if="note" class="quiet">
      Your own words.
      <button type="button" class="in-words" @click="emit('write', undefined, undefined)">
        Make them from the formula
      </button>
    </p>
  </div>
</template>

<style scoped>
.note {
  display: grid;
  gap: 4px;
}
.words {
  display: flex;
  gap: 4px;
  align-items: baseline;
  padding: 4px 9px;
  border: 1px solid var(--hairline);
  border-radius: 3px;
  color: var(--verdigris);
  font: italic 13px/18px var(--serif);
}
.words:focus-within {
  outline: 2px solid var(--verdigris);
  outline-offset: 1px;
}
.words i {
  flex: none;
}
.words :deep(textarea) {
  flex: 1;
  min-width: 0;
  padding: 0;
  background: none;
  border: 0;
  outline: none;
  color: var(--ink);
  font: inherit;
}
p {
  font-size: 12px;
}
.in-words + .in-words {
  margin-left: 10px;
}
.fallen {
  padding: 4px 9px;
  background: var(--brass-50);
}
</style>
