import { LINES } from '#core/record/schema';
import { firstFree } from '#core/shape/first-free';
import { defineStore, storeToRefs } from 'pinia';
import { takeCalculation, type Calculation } from '#core/calculations';
import { refuseName } from '#core/sheet/check-sheet';
import { type DerivedList, type Figure, type FigureSheet } from '#core/sheet/figure';
import { figureKey, sheetFormulas } from '#core/sheet/formulas';
import type { PageView } from '#core/production/page-view';
import type { MissingField } from '#core/template/missing-fields';
import { SAMPLE_ID, sampleRecord } from '#core/template/sample-record';
import { withTried, type Tried } from '#core/template/what-if';
import { pathsNear } from '#core/record/paths';
import type { SheetView } from '#core/sheet/view';
import type { Workings } from '#core/sheet/workings';
import type { RegisteredDocument } from '#core/formula/functions/register';
import type { RecordSnapshot } from '#core/record/snapshot';
import { checkContext, renameInTemplate } from '#core/template/check';
import type { Template } from '#core/template/template';
import type { Uses } from '#core/template/where-used';
import type { ApiProblem } from '~/composables/api';
import { withoutUnsaid } from '~/editor/without-unsaid';
import { useDraftStore } from './draft';

/** The figure sheet of the draft that is worked on: the selected figure, and its values for a record. */
export const useFiguresStore = defineStore('figures', () => {
  const workshop = useWorkshop();
  const draft = useDraftStore();
  const { opened, template } = storeToRefs(draft);
  /** The record that values are shown for, with what was filed for it before. */
  const shown = shallowRef<{ record: RecordSnapshot; registered: RegisteredDocument[]; paths: ReadonlySet<string> }>();
  const problem = shallowRef<ApiProblem>();
  const view = shallowRef<SheetView>();
  /** What the sheet of the template shows, where that is looked at; with it every field of the record is read. */
  const page = shallowRef<PageView>();
  const showsPage = ref(false);
  /** Fields that the draft reads and that there are not. */
  const missing = shallowRef<readonly MissingField[]>([]);
  /** Where the draft uses figures, fields and clauses. */
  const uses = shallowRef<Uses>({ figures: {}, fields: {}, clauses: {} });
  const workings = shallowRef<Workings>();
  const selected = ref<string>();
  /** The line, or row of a list, that values are shown for. */
  const row = ref(0);

  const formulas = computed(() => (template.value ? sheetFormulas(template.value.sheet) : []));
  const current = computed(() => formulas.value.find(({ key }) => key === selected.value));
  const faults = computed(() => [
    ...Object.values(view.value?.figures ?? {}).flatMap(({ key, diagnostics, problems }) => [
      ...diagnostics.map(({ message }) => ({ key, message })),
      ...problems.map((message) => ({ key, message })),
    ]),
    ...(view.value?.problems ?? []).map((message) => ({ key: undefined, message })),
  ]);

  /** Figures that are written rightly and have no value for this record, with the reason. */
  const failures = computed(() =>
    Object.values(view.value?.figures ?? {}).flatMap(({ key, diagnostics, values }) => {
      const failed = diagnostics.length === 0 ? values.find((value) => value.failed) : undefined;
      return failed ? [{ key, message: failed.text }] : [];
    }),
  );

  /** Opens a template; whoever may not change it looks at what is published. */
  async function load(
    templateId: string,
    recordId: string | undefined,
    mayChange: boolean,
    withPage = false,
  ): Promise<void> {
    showsPage.value = withPage;
    tried.value = [];
    [shown.value, view.value, page.value, problem.value, selected.value, row.value] = [
      undefined,
      undefined,
      undefined,
      undefined,
      undefined,
      0,
    ];
    try {
      await draft.load(templateId, mayChange);
      // The sheet can be worked on from here on, while a record is being read for it.
      const { schema, pins, issueDate } = opened.value!;
      await workshop.open({ schema, pins, issueDate });
      if (recordId === SAMPLE_ID && template.value!.sample) await lookAtSample();
      else await look(recordId ?? (await firstRecord()), pathsWith(await workshop.paths(template.value!)));
      await compute();
    } catch (thrown) {
      problem.value = asProblem(thrown);
    }
  }

  const recordType = () => template.value!.record.type;

  async function firstRecord(): Promise<string> {
    const query = { sort: 'name', top: 1 };
    const { records } = await api('GET /records/{type}', { parameters: { type: recordType() }, query });
    const id = records[0]?.id ?? (template.value!.sample && SAMPLE_ID);
    if (!id)
      throw {
        data: {
          status: 404,
          title: 'There is no record yet',
          detail: 'Figures are shown for a record: add one in the CRM, or write a sample record.',
        },
      };
    return id;
  }

  /** What is read of a record for the template as it is now, and all that is next to it where its sheet is looked at. */
  const pathsWith = (read: readonly string[]): string[] =>
    showsPage.value ? [...new Set([...read, ...pathsNear(opened.value!.schema, recordType())])] : [...read];

  /** Whether what is shown is the made-up record that is kept with the template. */
  const isSample = computed(() => shown.value?.record.id === SAMPLE_ID);
  let sampleShown: Template['sample'];
  /** Takes the made-up record as it is now; what is wrong in it is left blank, and is told where it is written. */
  async function lookAtSample(): Promise<void> {
    const { sample, record } = template.value!;
    sampleShown = sample;
    const { record: snapshot } = sampleRecord(sample ?? {}, opened.value!.schema, record.type);
    await show({ record: snapshot, registered: [], paths: new Set() });
  }

  /** Values that are tried in place of the record's own: shown, never saved, never filed. */
  const tried = shallowRef<readonly Tried[]>([]);
  /** What was read, without them. */
  let read: { record: RecordSnapshot; registered: RegisteredDocument[]; paths: ReadonlySet<string> } | undefined;
  async function show(now: NonNullable<typeof read>): Promise<void> {
    read = now;
    const { record: snapshot } = withTried(now.record, tried.value, opened.value!.schema);
    shown.value = { ...now, record: snapshot };
    await workshop.look({ snapshot, registered: now.registered });
  }
  /** Tries a value, or no longer. */
  async function tryValue(path: string, value: string | undefined): Promise<void> {
    const others = tried.value.filter((each) => each.path !== path);
    tried.value = value === undefined ? others : [...others, { path, value }];
    if (read) await show(read);
    await compute();
  }

  /** The pictures that were asked for already, by the record and their paths. */
  let picturesRead = '';
  async function look(id: string, paths: readonly string[]): Promise<void> {
    if (id === SAMPLE_ID) return lookAtSample();
    const parameters = { type: recordType(), id };
    const [record, registered] = await Promise.all([
      api('GET /records/{type}/{id}/values', { parameters, query: { paths: paths.join() } }),
      api('GET /records/{type}/{id}/registered', { parameters }),
    ]);
    picturesRead = '';
    await show({ record, registered, paths: new Set(paths) });
  }

  /** Shows the values for another record. */
  async function choose(recordId: string): Promise<void> {
    tried.value = [];
    await look(recordId, pathsWith(await workshop.paths(template.value!)));
    row.value = 0;
    await compute();
  }

  let computing: Promise<void> | undefined;
  let isStale = false;

  /** Computes everything for the record. Changes that come while that goes on are computed once, after it. */
  function compute(): Promise<void> {
    isStale = true;
    computing ??= computeUntilNew().finally(() => (computing = undefined));
    return computing;
  }

  async function computeUntilNew(): Promise<void> {
    while (isStale) {
      isStale = false;
      await computeNow();
    }
  }

  async function computeNow(): Promise<void> {
    if (!opened.value || !template.value || !shown.value) return;
    if (isSample.value && template.value.sample !== sampleShown) await lookAtSample();
    let computed = await workshop.compute(template.value, showsPage.value);
    if (await readWhatIsNew(computed.paths)) computed = await workshop.compute(template.value, showsPage.value);
    if (!shown.value) return;
    [view.value, page.value] = [computed.view, computed.page && withSame(page.value, computed.page)];
    missing.value = computed.missing;
    uses.value = withSameUses(uses.value, computed.uses);
    if (showsPage.value) void readPictures(computed.pictures);
    await explain();
  }

  /** Reads the record again where a new formula asks for what was not read yet. */
  async function readWhatIsNew(paths: readonly string[]): Promise<boolean> {
    const { record, paths: known } = shown.value!;
    if (isSample.value) return false;
    if (paths.every((path) => known.has(path))) return false;
    try {
      await look(record.id, pathsWith(paths));
      return true;
    } catch {
      // What the CRM does not give now is shown as not read.
      return false;
    }
  }

  /** Has the pictures fetched that the page shows; everything else is there before them. */
  async function readPictures(pictures: readonly string[]): Promise<void> {
    const { record, registered, paths } = shown.value!;
    const wanted = `${record.id} ${pictures.join()}`;
    if (pictures.length === 0 || isSample.value || wanted === picturesRead) return;
    picturesRead = wanted;
    const parameters = { type: recordType(), id: record.id };
    try {
      const query = { paths: [...paths].join(), pictures: pictures.join() };
      const snapshot = await api('GET /records/{type}/{id}/values', { parameters, query });
      if (shown.value?.record !== record) return;
      await show({ record: snapshot, registered, paths });
      await compute();
    } catch {
      // A picture that does not come is shown as not read.
      picturesRead = '';
    }
  }

  async function explain(): Promise<void> {
    const key = selected.value;
    const found = key === undefined ? undefined : await workshop.workings(key, row.value);
    if (key === selected.value) workings.value = found;
  }

  function select(key: string | undefined): void {
    selected.value = key;
    void explain();
  }

  // Whatever changes the draft, the figures follow.
  watch(template, () => {
    if (selected.value !== undefined && !current.value) selected.value = undefined;
    void compute();
  });

  // What the CRM holds is another by now: the record is read anew with the fields that there are.
  watch(opened, async (now, before) => {
    if (!now || !before || now.schemaDigest === before.schemaDigest || !shown.value) return;
    const { schema, pins, issueDate } = now;
    await workshop.open({ schema, pins, issueDate });
    try {
      await look(shown.value.record.id, pathsWith(await workshop.paths(template.value!)));
    } catch {
      // What is shown stays, without what is gone.
    }
    await compute();
  });

  function change(next: Template, words: string, opens?: string): void {
    draft.change(next, { words, selected: selected.value });
    if (opens !== undefined) selected.value = opens;
  }

  const undo = () => opensWhatWas(draft.undo(selected.value)?.selected);
  const redo = () => opensWhatWas(draft.redo(selected.value)?.selected);
  /** What is open stays open, under the name it has now. */
  function opensWhatWas(open: string | undefined): void {
    if (selected.value !== undefined && !current.value) selected.value = open;
  }

  const changeSheet = (sheet: FigureSheet, words: string, opens?: string) =>
    change({ ...template.value!, sheet }, words, opens);

  /** Changes one figure of the sheet, or a list's own formula and label. */
  function edit(key: string, part: Partial<Figure>, words: string): void {
    const { sheet } = template.value!;
    const found = formulas.value.find((each) => each.key === key);
    if (!found) return;
    if (found.derived) {
      const lists = sheet.lists.map((list) => (list.name === key ? ({ ...list, ...part } as DerivedList) : list));
      return changeSheet({ ...sheet, lists }, words);
    }
    const name = found.figure!.name;
    const all = figuresOf(sheet, found.list).map((each) =>
      each.name === name ? withoutUnsaid({ ...each, ...part }) : each,
    );
    changeSheet(withFigures(sheet, found.list, all), words);
  }

  /** Adds a figure at the end of a list's figures, or of the document's, and opens it. */
  function add(list: string | undefined): void {
    const { sheet } = template.value!;
    const name = freeName(
      'figure',
      formulas.value.filter((each) => each.list === list).map(({ key }) => key.split('.').at(-1)!),
    );
    const figure: Figure = { name, label: 'New figure', formula: '0', type: 'amount' };
    const all = [...figuresOf(sheet, list), figure];
    changeSheet(withFigures(sheet, list, all), 'Figure added', figureKey(name, list));
  }

  function addList(): void {
    const { sheet } = template.value!;
    const name = freeName(
      'list',
      formulas.value.map(({ key }) => key),
    );
    const list: DerivedList = { name, label: 'New list', formula: 'GROUP(lines, section)', columns: [] };
    changeSheet({ ...sheet, lists: [...sheet.lists, list] }, 'List added', name);
  }

  /** Takes a figure or list out. Only what nothing uses can go; what uses it is told otherwise. */
  function remove(key: string): string | undefined {
    const figure = view.value?.figures[key];
    const inner = formulas.value.filter(({ list }) => list === key).map((each) => each.key);
    const users = [key, ...inner].flatMap((each) => [
      ...(view.value?.figures[each]?.usedBy ?? []),
      ...(view.value?.figures[each]?.places ?? []).map(({ words }) => words),
    ]);
    const others = users.filter((user) => user !== key && !inner.includes(user));
    const sums = template.value!.sheet.sums.filter((sum) => sum.figure === key).length;
    if (!figure) return undefined;
    if (others.length > 0 || sums > 0)
      return `Can’t be deleted; used by ${listWords([...new Set(others.map(labelOf)), ...(sums ? ['a total that must match'] : [])])}.`;
    const { sheet } = template.value!;
    const found = formulas.value.find((each) => each.key === key)!;
    const label = (found.figure ?? found.derived)!.label;
    const next = found.derived
      ? { ...sheet, lists: sheet.lists.filter(({ name }) => name !== key) }
      : withFigures(
          sheet,
          found.list,
          figuresOf(sheet, found.list).filter(({ name }) => name !== found.figure!.name),
        );
    selected.value = undefined;
    changeSheet(next, `“${label}” deleted`);
    return undefined;
  }

  /** Gives a figure or list another name, and every use of it follows. Says what is wrong with the name, if anything. */
  function rename(key: string, name: string): string | undefined {
    const list = key.includes('.') ? key.split('.')[0] : undefined;
    const next = figureKey(name, list);
    if (next === key) return undefined;
    const refused = refuseName(name);
    if (refused) return refused;
    if (formulas.value.some((each) => each.key === next)) return `There is a figure called “${name}” already.`;
    const { schema, pins } = opened.value!;
    const context = checkContext(template.value!, schema, pins.houseStyles);
    const renamed = renameInTemplate(template.value!, context, key, name);
    change(renamed, `Renamed to ${name}, with every use of it`, next);
    return undefined;
  }

  /** Puts the figures of a list, or of the document, into another order. */
  function reorder(list: string | undefined, from: number, to: number): void {
    const { sheet } = template.value!;
    const all = [...figuresOf(sheet, list)];
    const [moved] = all.splice(from, 1);
    if (!moved || from === to) return;
    all.splice(to, 0, moved);
    changeSheet(withFigures(sheet, list, all), `“${moved.label}” moved`);
  }

  function take(calculation: Calculation): void {
    const { sheet, added, replaced } = takeCalculation(template.value!.sheet, calculation);
    const counts = `${added.length} added${replaced.length ? `, ${replaced.length} replaced: ${replaced.join(', ')}` : ''}`;
    changeSheet(sheet, `“${calculation.label}” taken: ${counts}`);
  }

  /** Changes what holds for the whole sheet: its rounding, currency, proved sums and tables. */
  function setSheet(part: Partial<FigureSheet>, words: string): void {
    changeSheet({ ...template.value!.sheet, ...part }, words);
  }

  /** Reads another field wherever one that there is not is read, in one step. */
  async function replaceField(field: MissingField, by: string): Promise<void> {
    const next = await workshop.withFieldReplaced(template.value!, field, by);
    change(next, `“${field.name}” replaced by “${by}”`);
  }

  function labelOf(key: string | undefined): string {
    if (key === undefined) return 'The sheet';
    const found = formulas.value.find((each) => each.key === key);
    return found ? (found.figure ?? found.derived)!.label : key;
  }

  return {
    opened,
    template,
    shown,
    isSample,
    tried,
    tryValue,
    problem,
    view,
    page,
    workings,
    selected,
    row,
    formulas,
    current,
    faults,
    failures,
    load,
    choose,
    select,
    explain,
    edit,
    add,
    addList,
    remove,
    rename,
    reorder,
    take,
    setSheet,
    undo,
    redo,
    labelOf,
    missing,
    uses,
    replaceField,
  };
});

/** A page with those parts that are as they were before in place of their likes: nothing that shows them is drawn anew. */
function withSame(before: PageView | undefined, now: PageView): PageView {
  if (!before) return now;
  const { header, footer } = before.letterhead;
  return {
    ...now,
    blocks: Object.fromEntries(Object.entries(now.blocks).map(([id, blocks]) => [id, same(before.blocks[id], blocks)])),
    letterhead: { header: same(header, now.letterhead.header), footer: same(footer, now.letterhead.footer) },
  };
}

function figuresOf(sheet: FigureSheet, list: string | undefined): readonly Figure[] {
  if (list === undefined) return sheet.document;
  return list === LINES ? sheet.perLine : (sheet.lists.find(({ name }) => name === list)?.columns ?? []);
}

function withFigures(sheet: FigureSheet, list: string | undefined, figures: Figure[]): FigureSheet {
  if (list === undefined) return { ...sheet, document: figures };
  if (list === LINES) return { ...sheet, perLine: figures };
  return { ...sheet, lists: sheet.lists.map((each) => (each.name === list ? { ...each, columns: figures } : each)) };
}

function freeName(stem: string, taken: readonly string[]): string {
  return firstFree((count) => `${stem}_${count}`, taken);
}

const listWords = (words: readonly string[]) => new Intl.ListFormat('en', { type: 'conjunction' }).format(words);

/** What was there before in place of its like. */
function same<Part>(old: Part | undefined, next: Part): Part {
  return old !== undefined && JSON.stringify(old) === JSON.stringify(next) ? old : next;
}

/** Uses with those that are as they were before in place of their likes: only what is used otherwise is drawn anew. */
function withSameUses(before: Uses, now: Uses): Uses {
  const kept = (old: Uses['fields'], next: Uses['fields']) =>
    Object.fromEntries(Object.entries(next).map(([key, places]) => [key, same(old[key], places)]));
  return {
    figures: kept(before.figures, now.figures),
    fields: kept(before.fields, now.fields),
    clauses: kept(before.clauses, now.clauses),
  };
}
