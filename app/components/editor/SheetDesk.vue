<script setup lang="ts">
import { EditorContent } from '@tiptap/vue-3';
import { NodeSelection } from '@tiptap/pm/state';
import type { LineTable } from '#core/template/blocks/line-table';
import { houseStyleOf } from '#core/template/house-style-of';
import { pageEnds, paperOf, PER_MILLIMETRE } from '~/editor/paper';
import '~/assets/document-fonts.css';
import '~/editor/sheet.css';

/** The sheet of a template: as wide as its paper, in the fonts and colours of its house style. */
const { zoom } = defineProps<{ zoom: number }>();
const draft = useDraftStore();
const sheet = useSheetStore();
const figures = useFiguresStore();

// Each by itself, so that the desk is not drawn anew while the text is typed.
const wanted = computed(() => draft.template!.houseStyle);
const own = computed(() => draft.template!.style);
const itsPage = computed(() => draft.template!.layout.page);
const style = computed(
  () => houseStyleOf({ houseStyle: wanted.value, style: own.value }, draft.opened!.pins).houseStyle,
);
const paper = computed(() => {
  return { ...paperOf(itsPage.value), margins: itsPage.value.margins ?? style.value.margins };
});
const variables = computed(() => {
  const { fonts, type, colours } = style.value;
  const { width, height, margins } = paper.value;
  return {
    zoom,
    width: `${width}mm`,
    minHeight: `${height}mm`,
    // The header begins a little above the margin, as the press sets it.
    // The footer stands within the lower margin.
    padding: `${margins.top - 3}mm ${margins.right}mm ${Math.max(8, margins.bottom - 12)}mm ${margins.left}mm`,
    '--size': `${type.text}pt`,
    '--step': type.step,
    '--text-font': `'${fonts.text}', 'Noto Sans', 'IBM Plex Sans Arabic', sans-serif`,
    '--heading-font': `'${fonts.headings}', 'Noto Sans', 'IBM Plex Sans Arabic', serif`,
    '--page-ink': colours.ink,
    '--page-quiet': colours.quiet,
    '--accent': colours.accent,
    '--rule': colours.rule,
    '--tint': colours.tint,
  };
});

// On an empty sheet there is nothing to do but write.
onMounted(async () => {
  await nextTick();
  const { editor } = sheet;
  if (editor?.isEditable && editor.state.doc.textContent === '' && editor.state.doc.nodeSize < 12)
    editor.commands.focus('start');
});

const text = useTemplateRef<HTMLElement>('text');
const { height: written } = useElementSize(text);
const ends = shallowRef<ReturnType<typeof pageEnds>>([]);
// Measured at rest: typing does not wait for it.
watchDebounced([written, () => draft.template?.layout, paper], measureEnds, { debounce: 150 });
function measureEnds(): void {
  if (!text.value) return;
  const { height, margins } = paper.value;
  const { top } = text.value.getBoundingClientRect();
  const breaks = [...text.value.querySelectorAll('.page-break')].map(
    (each) => (each.getBoundingClientRect().top - top) / (zoom * PER_MILLIMETRE),
  );
  ends.value = pageEnds(written.value / PER_MILLIMETRE, breaks, height - margins.top - margins.bottom);
}

const page = useTemplateRef<HTMLElement>('page');
const held = useTemplateRef<HTMLElement>('held');

/** Where the formula line stands: under the caret. */
const place = shallowRef<{ left: string; top: string }>();
const frame = useTemplateRef<HTMLElement>('frame');
watch(
  () => sheet.writing,
  (writing) => {
    if (!writing || !sheet.editor || !frame.value) return void (place.value = undefined);
    const { view, state } = sheet.editor;
    const at = view.coordsAtPos(state.selection.from);
    const around = frame.value.getBoundingClientRect();
    const left = Math.min(Math.max(8, at.left - around.left - 20), Math.max(8, around.width - 440));
    place.value = { left: `${left}px`, top: `${at.bottom - around.top + 6}px` };
  },
);
const referenceOpen = ref(false);
const source = ref('');
watch(
  () => sheet.writing?.source,
  (given) => (source.value = given ?? ''),
);

/** Enter on a value opens its formula; so does a double click. On a line table, Enter opens its first column. */
function openValue(event: Event): void {
  const selection = sheet.editor?.state.selection;
  if (!(selection instanceof NodeSelection)) return;
  const { type, attrs } = selection.node;
  if (type.name === 'value') sheet.writeFormula(attrs.id as string);
  else if (type.name === 'lineTable' && event.type === 'keydown') sheet.column = (attrs as LineTable).columns[0]?.id;
  else return;
  event.preventDefault();
  event.stopPropagation();
}

/** A click on a cell of the chosen line table opens its column. */
function openColumn(event: MouseEvent): void {
  const part = sheet.chosen[0];
  const cell = (event.target as HTMLElement).closest('td, th');
  if (part?.type !== 'lineTable' || !cell || cell.hasAttribute('colspan')) return;
  if (cell.closest<HTMLElement>('[data-id][data-kind]')?.dataset.id !== part.id) return;
  const block = figures.page?.blocks[part.id]?.find(({ kind }) => kind === 'table');
  if (block?.kind === 'table') sheet.column = block.columns[(cell as HTMLTableCellElement).cellIndex]?.id;
}
</script>

<template>
  <div ref="frame" class="sheet-frame">
    <div ref="held" class="held" :style="{ width: `${paper.width * zoom * PER_MILLIMETRE}px` }">
      <MarginNotes v-if="page" :sheet="page" :zoom="zoom" />
      <template v-if="held">
        <BlockHandle :frame="held" />
        <WidthHandles :frame="held" :zoom="zoom" />
        <TableDesigner :frame="held" :zoom="zoom" />
      </template>
      <div ref="page" class="paper on-paper" :style="variables">
        <HouseStationery part="header" />
        <div ref="text" class="text" @keydown.enter.capture="openValue" @dblclick="openValue" @click="openColumn">
          <EditorContent v-if="sheet.editor" :editor="sheet.editor" />
        </div>
        <HouseStationery part="footer" />
        <div
          v-for="{ number, top } in ends"
          :key="number"
          class="page-end"
          :style="{ top: `${paper.margins.top + top}mm` }"
          aria-hidden="true"
        >
          <span>page {{ number }} about here</span>
        </div>
      </div>
    </div>
    <div v-if="sheet.writing && place" class="formula-popover" :style="place" role="dialog" aria-label="Formula">
      <FormulaLine
        :source="sheet.writing.source"
        :list="sheet.scope"
        :row="0"
        label="Formula of the value"
        @typed="source = $event"
        @done="sheet.written(source)"
        @left="sheet.leaveFormula"
        @help="referenceOpen = true"
      />
    </div>
    <FormulaReference v-model:visible="referenceOpen" />
  </div>
</template>

<style scoped>
.sheet-frame {
  position: relative;
  width: max-content;
  min-width: 100%;
  padding: 16px 16px 40px 120px;
}
.held {
  position: relative;
  margin: 0 auto;
}
.paper {
  position: relative;
  box-shadow: var(--sheet-shadow);
}
.formula-popover {
  position: absolute;
  z-index: 5;
  width: 430px;
  padding: 8px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
  box-shadow: var(--sheet-shadow);
}
</style>
