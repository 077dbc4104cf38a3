<script setup lang="ts">
import { itemPath, memberPath, placeOf } from '#core/record/value-path';
import { isRecordList, type FieldValue } from '#core/record/snapshot';
import type { FieldSchema } from '#core/record/schema';
import { fieldTree } from '~/editor/field-tree';

/** Values that are tried in place of the record's own: shown on the sheet and in the proof, never saved, never filed. */
const draft = useDraftStore();
const figures = useFiguresStore();

interface Choice {
  path: string;
  label: string;
  field: FieldSchema;
  value: FieldValue | undefined;
}
/** Items of a list beyond these are tried in the CRM. */
const MOST_ITEMS = 30;

/** Every field that can be tried: the record's own, those next to it, and those of its items. */
const groups = computed((): { title: string; choices: Choice[] }[] => {
  const record = figures.shown?.record;
  if (!draft.opened || !draft.template || !record) return [];
  const { schema } = draft.opened;
  const { root } = draft.template.record;
  return fieldTree(schema, draft.template.record, record).flatMap(({ title, list, fields }) => {
    const plain = fields.filter(({ field }) => field.type !== 'image');
    if (list === undefined)
      return [
        {
          title,
          choices: plain.map(({ path, label, field, value }) => ({
            path: memberPath(root, path),
            label,
            field,
            value,
          })),
        },
      ];
    const name = list.split('.').at(-1)!;
    const items = record.fields[name];
    if (!items || !isRecordList(items)) return [];
    return items.slice(0, MOST_ITEMS).map((item, at) => ({
      title: placeOf(item, at, name, schema),
      choices: plain
        .filter(({ path }) => path.split('.').length === 2)
        .map(({ label, field }) => ({
          path: memberPath(itemPath(memberPath(root, name), item.id), field.name),
          label,
          field,
          value: item.fields[field.name],
        })),
    }));
  });
});
const all = computed(() => groups.value.flatMap(({ title, choices }) => choices.map((each) => ({ ...each, title }))));
/** What is being typed, before it is tried. */
const typing = ref<string>();
const rows = computed(() => {
  const paths = [...figures.tried.map(({ path }) => path), ...(typing.value === undefined ? [] : [typing.value])];
  return [...new Set(paths)].flatMap((path) => all.value.find((each) => each.path === path) ?? []);
});
const isTried = (path: string) => figures.tried.some((each) => each.path === path);
async function tryIt(path: string, value: string): Promise<undefined> {
  await figures.tryValue(path, value);
}
async function giveUp(path: string): Promise<void> {
  if (typing.value === path) typing.value = undefined;
  await figures.tryValue(path, undefined);
}
const times = ref(0);
function begin(path: string): void {
  times.value++;
  typing.value = path;
}
async function giveUpAll(): Promise<void> {
  for (const { path } of figures.tried) await figures.tryValue(path, undefined);
}
</script>

<template>
  <div class="what-if">
    <p class="quiet">
      Try another value: the sheet and the proof show what comes of it. Nothing of it is saved or filed.
    </p>
    <Select
      :key="times"
      :model-value="null"
      :options="groups"
      option-group-label="title"
      option-group-children="choices"
      option-label="label"
      option-value="path"
      :filter-fields="['label', 'path']"
      filter
      auto-filter-focus
      size="small"
      placeholder="Try a field"
      aria-label="Try a field"
      fluid
      @update:model-value="begin"
    />
    <ul>
      <li v-for="{ path, label, title, field, value } in rows" :key="path">
        <span class="name">
          {{ label }} <span class="quiet">{{ title }}</span>
        </span>
        <TypedValue
          :open="typing === path"
          :field="{ ...field, nullable: true }"
          :value="value"
          :label="`${label}, tried`"
          :write="(text) => tryIt(path, text)"
          @update:open="typing = $event ? path : undefined"
        />
        <button v-if="isTried(path)" type="button" class="in-words" @click="giveUp(path)">As it is</button>
      </li>
    </ul>
    <button v-if="figures.tried.length > 1" type="button" class="in-words" @click="giveUpAll">All as they are</button>
  </div>
</template>

<style scoped>
.what-if {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
  padding: 12px 14px 24px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  padding: 6px 0;
  border-top: 1px solid var(--hairline-soft);
}
.name {
  font-weight: 500;
}
.name .quiet {
  font-weight: 400;
}
.in-words {
  justify-self: start;
}
p {
  font-size: 12px;
}
</style>
