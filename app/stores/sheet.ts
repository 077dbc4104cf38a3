import { firstFree } from '#core/shape/first-free';
import { Editor } from '@tiptap/vue-3';
import type { Node, Schema } from '@tiptap/pm/model';
import { TextSelection, type Command } from '@tiptap/pm/state';
import { defineStore } from 'pinia';
import { houseStyleOf } from '#core/template/house-style-of';
import { calledByType } from '#core/record/schema';
import type { FigureSheet } from '#core/sheet/figure';
import type { ColumnDefinition, LineTable } from '#core/template/blocks/line-table';
import type { OptionalWay } from '#core/template/design/optional-ways';
import type { Schedule, TotalId } from '#core/template/design/totals';
import type { GroupField } from '~/workers/figure-workshop';
import type { Template } from '#core/template/template';
import {
  dropRegion,
  ownRegion,
  JOINS,
  chosenParts,
  hasChosenBlocks,
  insertBlock,
  insertInline,
  moveBeside,
  moveChosen,
  partOf,
  setAttributes,
  setWidths,
  wrapChosen,
} from '~/editor/commands';
import { historyWords } from '~/editor/history-words';
import { clipboard } from '~/editor/paste/clipboard';
import { sheetKeys } from '~/editor/keys';
import { showValues } from '~/editor/kinds/value/value-view';
import { LayoutDoc } from '~/editor/layout-doc';
import { setLeftOut } from '~/editor/left-out';
import type { KindPanel, NewPart } from '~/editor/panel';
import { newId } from '~/editor/new-id';
import { FROM_DRAFT, takeDoc } from '~/editor/take-layout';
import { withoutUnsaid } from '~/editor/without-unsaid';
import { viewedExtensions } from '~/editor/views';
import { useDraftStore } from './draft';
import { useFiguresStore } from './figures';

/** A part of the sheet that is chosen, or around what is. */
export interface Chosen {
  type: string;
  id: string;
  attrs: Readonly<Record<string, unknown>>;
}

/** A formula that is being written on the sheet: a new value at the caret, or the one of a value that is there. */
interface Writing {
  /** Of the value whose formula it is. */
  id?: string;
  source: string;
}

const MARKS = ['bold', 'italic', 'underline', 'quiet', 'colour', 'link'];

/** How wide a picture is put in at most, in points. */
const PICTURE_WIDTH = 240;

/** A name for a file that no other has: letters, digits, “.”, “-” and “_”. */
function freeName(name: string, taken: readonly string[]): string {
  const plain =
    name
      .normalize('NFD')
      .replaceAll(/[^\w.-]+/g, '-')
      .slice(-60) || 'picture';
  return firstFree((count) => (count === 1 ? plain : `${count}-${plain}`), taken);
}

/** The sheet of the draft that is worked on: its editor, and what of it is chosen. */
export const useSheetStore = defineStore('sheet', () => {
  const draft = useDraftStore();
  const figures = useFiguresStore();
  const workshop = useWorkshop();
  const editor = shallowRef<Editor>();
  /** What is chosen, and the parts around it, from the innermost out. */
  const chosen = shallowRef<readonly Chosen[]>([]);
  /** The looks of the text at the caret, with commas between them. */
  const marks = ref('');
  const writing = ref<Writing>();
  /** What could not be done, or was done in part, in words. */
  const notice = ref('');
  /** Whether words are looked for. */
  const finding = ref(false);
  /** Whether it is asked which totals are put in. */
  const askingTotals = ref(false);
  let docs: LayoutDoc | undefined;
  /** The layout that the editor shows. */
  let shown: Template['layout'] | undefined;

  /** Opens the editor over the draft. */
  function open(editable: boolean, label: string): Editor {
    close();
    const opened = new Editor({
      extensions: [
        ...viewedExtensions,
        sheetKeys({ undo, redo, writeFormula: () => writeFormula(), find: () => (finding.value = true) }),
        clipboard({ putPictures: (files) => void putPictures(files), tell: (words) => (notice.value = words) }),
      ],
      editable,
      injectCSS: false,
      editorProps: {
        attributes: {
          'aria-label': label,
          'aria-multiline': 'true',
          role: 'textbox',
          class: 'sheet-text',
          // What is written is spelt as in the first edition; the others are translations.
          lang: draft.template?.editions[0]?.locale ?? 'en-GB',
          spellcheck: 'true',
        },
      },
      onUpdate: ({ transaction }) => void (transaction.getMeta(FROM_DRAFT) || tell(transaction)),
      onTransaction: look,
    });
    docs = new LayoutDoc(opened.schema);
    shown = undefined;
    editor.value = opened;
    take();
    return opened;
  }

  function close(): void {
    editor.value?.destroy();
    [editor.value, docs, shown, chosen.value, writing.value] = [undefined, undefined, undefined, [], undefined];
    finding.value = false;
  }

  /** Tells the draft what was changed on the sheet. */
  function tell(transaction: Parameters<typeof historyWords>[0]): void {
    const template = draft.template!;
    const layout = docs!.layoutOf(editor.value!.state.doc, template.layout);
    if (layout === template.layout) return;
    shown = layout;
    draft.change({ ...template, layout }, historyWords(transaction));
  }

  /** Takes what the draft became in another way: by undoing, by the figure sheet, by somebody else. */
  function take(): void {
    const layout = draft.template?.layout;
    if (!editor.value || !docs || !layout || layout === shown) return;
    const isFirst = shown === undefined;
    shown = layout;
    const { state, view } = editor.value;
    const transaction = takeDoc(state, docs.docOf(layout));
    if (!transaction) return;
    if (isFirst) transaction.setSelection(TextSelection.atStart(transaction.doc));
    view.dispatch(isFirst ? transaction : transaction.scrollIntoView());
  }
  watch(() => draft.template?.layout, take, { flush: 'sync' });

  /** Follows what is chosen, and says so only where it is something else. */
  function look(): void {
    if (!editor.value) return;
    const parts = chosenParts(editor.value.state);
    const isSame = ({ node }: (typeof parts)[number], at: number) => chosen.value[at]?.attrs === node.attrs;
    if (parts.length !== chosen.value.length || !parts.every(isSame))
      chosen.value = parts.map(({ node }) => ({
        type: node.type.name,
        id: node.attrs.id as string,
        attrs: node.attrs,
      }));
    const active = MARKS.filter((mark) => editor.value!.isActive(mark)).join();
    if (active !== marks.value) marks.value = active;
  }

  watch(
    () => [figures.page, draft.template?.sheet] as const,
    ([page, sheet]) => showValues({ page, figures: new Set((sheet?.document ?? []).map(({ name }) => name)) }),
    { immediate: true },
  );

  watch(
    () => figures.page?.leftOut.join(' '),
    (ids) => {
      if (!editor.value || ids === undefined || !draft.opened) return;
      const record = calledByType(draft.opened.schema, draft.template!.record.type);
      editor.value.view.dispatch(setLeftOut(editor.value.state.tr, { ids: new Set(ids.split(' ')), record }));
    },
  );

  function run(command: Command): boolean {
    if (!editor.value) return false;
    const { state, view } = editor.value;
    return command(state, view.dispatch, view);
  }

  /** Puts a new part in at the caret: into the text, or behind the block that is chosen. */
  function insert(part: NewPart, words: string): void {
    const node = editor.value!.schema.nodeFromJSON(part);
    run(node.isInline ? insertInline(node, words) : insertBlock(node, words));
    editor.value!.commands.focus();
  }

  /** Puts a new part of a kind in; what holds blocks around those that are chosen. */
  function insertKind({ insert: put, label }: KindPanel): void {
    const part = put!.make(newId);
    const words = `${put!.done ?? label} put in`;
    if (put!.among !== 'Around' || !hasChosenBlocks(editor.value!.state)) return insert(part, words);
    const around = (made: Schema, inside: readonly Node[]) =>
      made.nodeFromJSON(
        filled(
          part,
          inside.map((node) => node.toJSON() as NewPart),
        ),
      );
    run(wrapChosen(around, words));
    editor.value!.commands.focus();
  }

  /** Puts pictures in, each once it was looked over and kept. */
  async function putPictures(files: readonly File[]): Promise<void> {
    notice.value = '';
    for (const file of files) {
      const answer = await keepFile(file, 'picture', 'It cannot stand on the page. Save it as PNG first.');
      if ('refused' in answer) {
        notice.value = answer.refused;
        continue;
      }
      const { kept } = answer;
      const template = draft.template!;
      const name = freeName(file.name, Object.keys(template.files ?? {}));
      draft.change(
        { ...template, files: { ...template.files, [name]: kept } },
        { words: 'Picture put in', joins: name },
      );
      const width = Math.min(PICTURE_WIDTH, ((kept.width ?? PICTURE_WIDTH) * 72) / 96);
      const node = editor.value!.schema.node('picture', { id: newId(), file: name, width, alt: '' });
      run((state, dispatch) =>
        insertBlock(node, 'Picture put in')(state, dispatch && ((tr) => dispatch(tr.setMeta(JOINS, name)))),
      );
    }
  }

  /** Whether a field that is put on an empty line brings its label. */
  const withLabels = useLocalStorage('lumbix.labels', false);

  /** Puts a value in; one with a label brings it along where that is wanted. */
  function insertValue(formula: string, words: string, label?: string): void {
    const node = editor.value!.schema.node('value', { id: newId(), formula });
    run(insertInline(node, words, withLabels.value ? label : undefined));
    editor.value!.commands.focus();
  }

  /** Brings a field in as what it is: a picture, a formatted text, or a value in the text. */
  function insertField({ formula, label, type }: { formula: string; label: string; type?: string }): void {
    const words = `“${label}” put in`;
    const id = newId();
    if (type === 'image')
      return insert({ type: 'picture', attrs: { id, formula, width: PICTURE_WIDTH, alt: label } }, words);
    if (type === 'rich') return insert({ type: 'richText', attrs: { id, formula, mayBeBlank: true } }, words);
    insertValue(formula, words, label);
  }

  /** The list whose items are in scope where the caret is. */
  const scope = computed(() => chosen.value.find(({ type }) => type === 'forEach')?.attrs.list as string | undefined);

  const change = (id: string, attributes: Readonly<Record<string, unknown>>, words: string) =>
    run(setAttributes(id, { ...wordsOutOfDate(id, attributes), ...attributes }, words));

  /** A section's own words were written for its formula as it was: with another one they are set aside. */
  function wordsOutOfDate(id: string, attributes: Readonly<Record<string, unknown>>): object {
    const part = editor.value && partOf(editor.value.state.doc, id);
    const note = part?.node.attrs.note as string | null | undefined;
    const isOther = 'when' in attributes || 'list' in attributes;
    return isOther && note ? { note: null, earlierNote: note } : {};
  }

  /** The column of the chosen line table that is worked on, by its id. */
  const column = ref<string>();
  watch(
    () => chosen.value[0]?.id,
    () => (column.value = undefined),
  );
  /** A line table as a layout has it: the editor has what is not said as null. */
  const tableOf = (id: string) =>
    withoutUnsaid(partOf(editor.value!.state.doc, id)!.node.attrs) as unknown as LineTable;
  const changeTable = (id: string, attributes: Partial<LineTable>, words: string) => change(id, attributes, words);

  function changeColumn(id: string, columnId: string, part: Readonly<Record<string, unknown>>, words: string): void {
    const columns = tableOf(id).columns.map((each) =>
      each.id === columnId ? withoutUnsaid({ ...each, ...part }) : each,
    );
    changeTable(id, { columns: columns as ColumnDefinition[] }, words);
  }

  /** Moves a column before another one, or to the end. */
  function moveColumn(id: string, columnId: string, before: string | undefined): void {
    const all = tableOf(id).columns;
    const moved = all.find((each) => each.id === columnId);
    if (!moved || before === columnId) return;
    const others = all.filter((each) => each !== moved);
    const at = before === undefined ? others.length : others.findIndex((each) => each.id === before);
    changeTable(id, { columns: others.toSpliced(at, 0, moved) }, 'Column moved');
  }

  /** Adds a column behind another one, or at the end, and opens it. */
  function addTableColumn(id: string, made: ColumnDefinition, behind?: string): void {
    const all = tableOf(id).columns;
    const named = { ...made, id: newId() };
    const at = all.findIndex((each) => each.id === behind);
    changeTable(
      id,
      { columns: all.toSpliced(at === -1 ? all.length : at + 1, 0, named) },
      `Column “${made.heading}” added`,
    );
    column.value = named.id;
  }

  function removeColumn(id: string, columnId: string): void {
    const all = tableOf(id).columns;
    if (all.length === 1) return;
    const { carry } = tableOf(id);
    const columns = all.filter((each) => each.id !== columnId);
    changeTable(id, { columns, ...(carry === columnId && { carry: undefined }) }, 'Column deleted');
    column.value = undefined;
  }

  /** Changes the figures and the sheet in one step. */
  function changeWithFigures(next: FigureSheet, words: string, command: Command, joins = newId()): void {
    const template = draft.template!;
    if (next !== template.sheet) draft.change({ ...template, sheet: next }, { words, joins });
    run((state, dispatch) => command(state, dispatch && ((tr) => dispatch(tr.setMeta(JOINS, joins)))));
  }

  /** Groups a table by a field of its items, or no more. */
  async function groupTable(id: string, by: GroupField | undefined): Promise<void> {
    const { sheet: next, groups } = await workshop.grouped(draft.template!, tableOf(id), by);
    const words = by ? `Grouped by ${by.label.toLowerCase()}` : 'Groups taken away';
    changeWithFigures(next, words, setAttributes(id, { groups }, words));
  }

  /** Has a table treat optional items in another way. */
  async function treatOptional(id: string, field: string, way: OptionalWay): Promise<void> {
    const { table, behind } = await workshop.treatingOptional(tableOf(id), field, way);
    const words = 'Optional lines changed';
    const { list, columns } = table;
    const { sheet: same } = draft.template!;
    const joins = newId();
    changeWithFigures(same, words, setAttributes(id, { list, columns }, words), joins);
    if (behind) changeWithFigures(same, words, insertBlock(editor.value!.schema.nodeFromJSON(behind), words), joins);
  }

  /** Puts a table of a list in, with the columns that suit it and the figures that it needs. */
  async function insertTable(list: string): Promise<void> {
    const { sheet: next, block } = await workshop.table(draft.template!, list);
    insertWithFigures(next, block, 'Line table put in');
  }

  /** Puts totals in, with the figures that they need. */
  async function insertTotals(wanted: readonly TotalId[]): Promise<void> {
    const { sheet: next, block } = await workshop.totals(draft.template!, [...wanted]);
    insertWithFigures(next, block, 'Totals put in');
  }

  /** Puts a summary of tax or a schedule of payments in, as a table of the list that is made for it. */
  async function insertSchedule(what: Schedule): Promise<void> {
    const found = await workshop.schedule(draft.template!, what);
    if (!found) return void (notice.value = `These records have no fields that a ${what} can be computed from.`);
    insertWithFigures(found.sheet, found.block, `${what[0]!.toUpperCase()}${what.slice(1)} put in`);
  }

  function insertWithFigures(next: FigureSheet, block: object, words: string): void {
    changeWithFigures(next, words, insertBlock(editor.value!.schema.nodeFromJSON(block), words));
    editor.value!.commands.focus();
  }

  /** Whether there is a part of an id. */
  const hasPart = (id: string) => !!editor.value && partOf(editor.value.state.doc, id) !== undefined;

  /** Whether a part holds another one of a kind. */
  function holdsPart(id: string, type: string): boolean {
    const part = editor.value && partOf(editor.value.state.doc, id);
    return part?.node.children.some((node) => node.type.name === type) ?? false;
  }

  /** Makes the header or footer of the house style the template's own, or goes back to it. */
  function setOwn(part: 'header' | 'footer', isOwn: boolean): void {
    const type = part === 'header' ? 'pageHeader' : 'pageFooter';
    if (!isOwn) return void run(dropRegion(type, `The house style’s ${part} again`));
    const { letterhead } = houseStyleOf(draft.template!, draft.opened!.pins).houseStyle;
    const blocks = letterhead[part].map((block) => docs!.nodeOf(block as Parameters<LayoutDoc['nodeOf']>[0]));
    run(ownRegion(type, blocks, `A ${part} of its own`));
    editor.value?.commands.focus();
  }

  /** Chooses a part and brings it into view. */
  function choose(id: string): void {
    const part = editor.value && partOf(editor.value.state.doc, id);
    if (!part) return;
    const { node, position } = part;
    const chain = editor.value!.chain();
    if (node.isTextblock) chain.setTextSelection(position + 1);
    else chain.setNodeSelection(position);
    chain.scrollIntoView().focus().run();
  }

  /** Chooses a block as a whole. */
  function chooseWhole(id: string): void {
    const part = editor.value && partOf(editor.value.state.doc, id);
    if (part) editor.value!.chain().setNodeSelection(part.position).focus().run();
  }

  /** Chooses a value of a block by its formula; the block itself where it has none such. */
  function chooseValue(id: string, formula: string): void {
    const part = editor.value && partOf(editor.value.state.doc, id);
    let value: string | undefined;
    part?.node.descendants(({ type, attrs }) => {
      if (type.name === 'value' && attrs.formula === formula) value ??= attrs.id as string;
    });
    choose(value ?? id);
  }

  const changeWidths = (id: string, widths: readonly number[]) => run(setWidths(id, widths));

  /** Moves a block, or all that are chosen with it, beside another one. */
  function moveTo(id: string, other: string, side: 'before' | 'after'): void {
    if (run(moveBeside(id, other, side))) editor.value!.commands.focus();
  }

  /** Moves a block before the one above it, or behind the one below. */
  function moveById(id: string, direction: -1 | 1): void {
    const part = editor.value && partOf(editor.value.state.doc, id);
    if (!part) return;
    editor.value!.commands.setNodeSelection(part.position);
    run(moveChosen(direction));
  }

  /** Opens the formula line: for a new value, or for one that is there. */
  function writeFormula(id?: string): void {
    const value = id === undefined ? undefined : chosen.value.find((part) => part.id === id);
    writing.value = { id, source: String(value?.attrs.formula ?? '') };
  }

  /** Takes a formula that was written. */
  function written(source: string): void {
    const { id } = writing.value!;
    writing.value = undefined;
    if (source.trim() !== '') {
      if (id === undefined) insertValue(source.trim(), 'Value put in');
      else change(id, { formula: source.trim() }, 'Formula changed');
    }
    editor.value?.commands.focus();
  }

  /** Gives the formula line up; what was typed to open it stays as it was typed. */
  function leaveFormula(): void {
    const { id } = writing.value!;
    writing.value = undefined;
    if (id === undefined) editor.value?.chain().focus().insertContent('=[').run();
    else editor.value?.commands.focus();
  }

  // Declared, since the editor's keys are made before.
  function undo(): void {
    figures.undo();
  }
  function redo(): void {
    figures.redo();
  }

  return {
    editor,
    chosen,
    scope,
    marks,
    writing,
    notice,
    finding,
    putPictures,
    open,
    close,
    run,
    insertKind,
    insertField,
    change,
    column,
    changeColumn,
    moveColumn,
    addTableColumn,
    removeColumn,
    groupTable,
    treatOptional,
    askingTotals,
    insertTable,
    insertTotals,
    insertSchedule,
    hasPart,
    holdsPart,
    setOwn,
    choose,
    chooseWhole,
    chooseValue,
    withLabels,
    moveBeside: moveTo,
    setWidths: changeWidths,
    moveById,
    writeFormula,
    written,
    leaveFormula,
    undo,
    redo,
  };
});

/** A part with blocks in place of the empty line that it would be put in with. */
function filled(part: NewPart, blocks: NewPart[]): NewPart {
  const [first, ...rest] = part.content ?? [];
  if (!first) return part;
  const isLine = first.type === 'paragraph' && !first.content;
  return { ...part, content: isLine ? blocks : [filled(first, blocks), ...rest] };
}
