<script setup lang="ts">
import { outlineOf } from '~/editor/outline';

/** The blocks of the sheet by their first words: a click goes there, Alt with an arrow moves one. */
const draft = useDraftStore();
const sheet = useSheetStore();
/** Listed at rest: typing does not wait for it. */
const layout = refDebounced(
  computed(() => draft.template?.layout),
  150,
);
const entries = computed(() => (layout.value ? outlineOf(layout.value) : []));
const chosen = computed(() => sheet.chosen.map(({ id }) => id));
const isChosen = (id: string) => chosen.value.includes(id);
</script>

<template>
  <ol v-if="entries.length > 0" class="outline">
    <li v-for="{ id, kind, words, depth } in entries" :key="id">
      <button
        type="button"
        :style="{ paddingInlineStart: `${14 + depth * 14}px` }"
        :aria-current="isChosen(id) ? 'true' : undefined"
        @click="sheet.choose(id)"
        @keydown.alt.up.prevent="sheet.moveById(id, -1)"
        @keydown.alt.down.prevent="sheet.moveById(id, 1)"
      >
        <span v-if="words">{{ words }}</span>
        <span class="quiet">{{ kind }}</span>
      </button>
    </li>
  </ol>
  <EmptyNote v-else title="Nothing on the sheet yet">Click on it and write, or put something in.</EmptyNote>
</template>

<style scoped>
.outline {
  padding: 8px 0 24px;
}
button {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  width: 100%;
  padding: 3px 14px;
  background: none;
  border: 0;
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
button:hover {
  background: var(--stone-50);
}
button[aria-current] {
  background: var(--verdigris-50);
  box-shadow: inset 3px 0 var(--verdigris);
}
span:first-child:not(.quiet) {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.quiet {
  flex: none;
  font-size: 11.5px;
}
</style>
