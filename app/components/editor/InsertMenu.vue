<script setup lang="ts">
import type { Menu } from 'primevue';
import { startOnPage } from '~/editor/commands';
import { PANELS } from '~/editor/kinds/panels';
import type { KindPanel } from '~/editor/panel';

/** Everything that can be put onto the sheet, by what it is for. */
const sheet = useSheetStore();
const menu = useTemplateRef<InstanceType<typeof Menu>>('menu');
const files = useTemplateRef<HTMLInputElement>('files');
function putPictures(event: Event): void {
  const input = event.target as HTMLInputElement;
  void sheet.putPictures([...(input.files ?? [])]);
  input.value = '';
}
type Insert = NonNullable<KindPanel['insert']>;

const HEADINGS: readonly Insert['among'][] = ['Text', 'Record', 'Page', 'Around'];
const WORDS: Record<Insert['among'], string> = {
  Text: 'Text',
  Record: 'From the record',
  Page: 'The page',
  Around: 'Around blocks',
};

function startOnNewPage(): void {
  sheet.run(startOnPage);
  sheet.editor?.commands.focus();
}

const { groups } = useOfferedSubjects(() => undefined);
/** A table of each list that there is, and of those that are made for one. */
const tables = computed(() => {
  const lists = groups.value.flatMap(({ subjects }) => subjects.filter(({ kind }) => kind === 'records'));
  return [
    ...lists.map(({ formula, label }) => ({
      label: `Line table: ${label.toLowerCase()}`,
      keys: undefined,
      command: () => void sheet.insertTable(formula),
    })),
    { label: 'Tax summary', keys: undefined, command: () => void sheet.insertSchedule('tax summary') },
    { label: 'Payment schedule', keys: undefined, command: () => void sheet.insertSchedule('payment schedule') },
  ];
});

const model = computed(() =>
  HEADINGS.map((among) => ({
    label: WORDS[among],
    items: [
      ...(among === 'Page' ? [{ label: 'Picture…', keys: undefined, command: () => files.value?.click() }] : []),
      ...(among === 'Record'
        ? [
            { label: 'Value', keys: '=[', command: () => sheet.writeFormula() },
            ...tables.value,
            { label: 'Totals…', keys: undefined, command: () => (sheet.askingTotals = true) },
          ]
        : []),
      ...PANELS.filter(({ insert }) => insert?.among === among).map((panel) => ({
        label: panel.insert!.words ?? panel.label,
        keys: panel.insert!.keys,
        command: () => sheet.insertKind(panel),
      })),
      ...(among === 'Around' ? [{ label: 'Start on a new page', keys: undefined, command: startOnNewPage }] : []),
    ],
  })),
);
</script>

<template>
  <Button
    label="Insert"
    size="small"
    severity="secondary"
    outlined
    aria-haspopup="menu"
    @click="menu?.toggle($event)"
  />
  <input
    ref="files"
    type="file"
    accept="image/png,image/jpeg,image/svg+xml"
    multiple
    hidden
    aria-label="Pictures to put in"
    @change="putPictures"
  />
  <LazyInsertTotals v-if="sheet.askingTotals" v-model:open="sheet.askingTotals" />
  <Menu ref="menu" :model="model" popup class="insert-menu">
    <template #item="{ item, props }">
      <a v-bind="props.action" class="item">
        <span>{{ item.label }}</span>
        <span v-if="item.keys" class="quiet">{{ item.keys }}</span>
      </a>
    </template>
  </Menu>
</template>

<style scoped>
.item {
  display: flex;
  justify-content: space-between;
  gap: 16px;
}
.item .quiet {
  font-size: 11.5px;
}
</style>
<style>
.insert-menu.p-menu {
  max-height: 70vh;
  overflow: auto;
}
</style>
