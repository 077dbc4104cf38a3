<script setup lang="ts">
import { searchFor } from '#core/words/search';
import { fieldTree, outsideOf, type FieldEntry, type FieldGroup } from '~/editor/field-tree';

/** Everything of the record that can be brought onto the sheet, and the figures: by Enter, by a click or by dragging. */
const draft = useDraftStore();
const figures = useFiguresStore();
const sheet = useSheetStore();
const words = ref('');

// Each by itself, so that nothing here is drawn anew while the text is typed.
const record = computed(() => draft.template?.record);
const figuresOfDocument = computed(() => draft.template?.sheet.document);
const groups = computed(() =>
  draft.opened && record.value ? fieldTree(draft.opened.schema, record.value, figures.shown?.record) : [],
);
const found = computed(() => {
  const isFound = searchFor(words.value);
  return groups.value.flatMap((group) => {
    const fields = group.fields.filter(({ label, path }) => isFound([label, path, group.title]));
    return fields.length > 0 ? [{ ...group, fields }] : [];
  });
});
const foundFigures = computed(() => {
  const isFound = searchFor(words.value);
  return (figuresOfDocument.value ?? []).filter(({ label, name }) => isFound([label, name, 'figures']));
});
const formulaFor = ({ list }: FieldGroup, entry: FieldEntry) =>
  list === undefined || sheet.scope === list ? entry.formula : outsideOf(list, entry);
const broughtIn = (group: FieldGroup, entry: FieldEntry) => ({
  formula: formulaFor(group, entry),
  label: entry.label,
  type: entry.field.type,
});
</script>

<template>
  <div class="record-drawer">
    <InputText v-model="words" type="search" size="small" fluid placeholder="Find a field" aria-label="Find a field" />
    <label class="with-labels">
      <Checkbox v-model="sheet.withLabels" binary />
      With its label, on an empty line
    </label>
    <section v-for="group in found" :key="group.title">
      <h3>
        {{ group.title }} <span v-if="group.list" class="quiet">{{ group.count }}</span>
      </h3>
      <ul>
        <li v-for="entry in group.fields" :key="entry.path">
          <BroughtIn
            :field="broughtIn(group, entry)"
            :about="entry.path"
            :text="fieldText(entry.value, entry.field)"
            :is-blank="!!figures.shown && !fieldText(entry.value, entry.field)"
            :uses="figures.uses.fields[entry.path] ?? []"
          />
        </li>
      </ul>
    </section>
    <section v-if="foundFigures.length > 0">
      <h3>Figures</h3>
      <FigureEntries :figures="foundFigures" />
    </section>
    <p v-if="found.length + foundFigures.length === 0" class="quiet">Nothing has these words.</p>
  </div>
</template>

<style scoped>
.record-drawer {
  padding: 10px 0 24px;
}
.record-drawer > input {
  width: calc(100% - 28px);
  margin: 0 14px;
}
.with-labels {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 8px 14px 0;
  color: var(--ink-quiet);
  font-size: 12px;
}
h3 {
  display: flex;
  justify-content: space-between;
  padding: 14px 14px 4px;
  font: 600 13px/18px var(--sans);
}
.record-drawer > p {
  padding: 14px;
}
</style>
