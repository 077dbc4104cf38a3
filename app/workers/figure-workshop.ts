import { pageView, type PageView } from '#core/production/page-view';
import { houseStyleOf } from '#core/template/house-style-of';
import { asCondition } from '#core/formula/functions';
import type { Value } from '#core/formula/value';
import { Subjects, type Subject, type SubjectGroup } from '#core/condition/subjects';
import { conditionView, type ConditionView } from '#core/condition/view';
import type { FigureSheet } from '#core/sheet/figure';
import type { ColumnDefinition, LineTable } from '#core/template/blocks/line-table';
import type { Totals } from '#core/template/blocks/totals';
import {
  columnFor,
  groupedBy,
  optionalWay,
  tableOf,
  withGroups,
  withOptional,
  type Designed,
} from '#core/template/design/tables';
import type { OptionalWay } from '#core/template/design/optional-ways';
import {
  scheduleOf,
  totalsOf,
  totalsOffered,
  type Schedule,
  type TotalId,
  type TotalOffer,
} from '#core/template/design/totals';
import { newId } from '~/editor/new-id';
import { FormulaError } from '#core/formula/ast';
import type { Checker } from '#core/sheet/check';
import { checkerFor } from '#core/sheet/checkers';
import { missingFields, withFieldReplaced, type MissingField } from '#core/template/missing-fields';
import { completionsAt, type Completions } from '#core/sheet/complete';
import { dayOf } from '#core/formula/date';
import type { RegisteredDocument } from '#core/formula/functions/register';
import { Sheet } from '#core/sheet/sheet';
import { lookExamples, type LookExample } from '#core/sheet/looks';
import { cellAt, formulaState, sheetView, type FormulaState, type SheetView } from '#core/sheet/view';
import { workingsOf, type Workings } from '#core/sheet/workings';
import { emptySample, sampleOf, sampleSchema, type Sample } from '#core/template/sample-record';
import type { RecordSchema } from '#core/record/schema';
import type { RecordSnapshot } from '#core/record/snapshot';
import { checkContext } from '#core/template/check';
import { usesIn, type Uses } from '#core/template/where-used';
import { pathsAround, picturePaths } from '#core/record/paths';
import { readsOf } from '#core/template/reads';
import { answersOf } from '#core/production/answers';
import type { Answer } from '#core/template/asks';
import { documentRoots } from '#core/template/roots';
import type { Pins, Template } from '#core/template/template';

/** What is the same for a template however it is changed. */
export interface Around {
  schema: RecordSchema;
  pins: Pins;
  issueDate: string;
}

/** The record that values are shown for, with the documents filed for it before. */
export interface ShownRecord {
  snapshot: RecordSnapshot;
  registered: RegisteredDocument[];
}

/** Everything that a template comes to for a record. */
export interface Computed {
  view: SheetView;
  /** What its sheet shows, where that was asked for. */
  page?: PageView;
  /** Where it uses figures, fields and clauses. */
  uses: Uses;
  /** Fields that it reads and that there are not. */
  missing: MissingField[];
  /** What it reads of the record, and which of that are pictures; nothing where a formula cannot be read yet. */
  paths: string[];
  pictures: string[];
}

/** Whether a condition holds for a record; `why` it cannot be told. */
export interface Holding {
  id: string;
  name: string;
  holds?: boolean;
  why?: string;
}

/** A field of items that a table can be grouped by. */
export interface GroupField {
  formula: string;
  label: string;
}

/** What a line table does with its items, and could do. */
export interface TableState {
  groupedBy: string | undefined;
  groupFields: GroupField[];
  optional: (GroupField & { way: OptionalWay })[];
}

/** A template off the page's thread: checked, computed and completed here while a person types. */
export class FigureWorkshop {
  #around!: Around;
  #record!: ShownRecord;
  #checker: Checker | undefined;
  #sheet: Sheet | undefined;
  #subjects: Subjects | undefined;
  #proofs: readonly { name: string; shown: ShownRecord }[] = [];
  #sheetOf!: (record: ShownRecord) => Sheet;
  /** Sheets of records for the template as it is now; `sheetsOf` tells what else they are made of. */
  #sheets = new WeakMap<ShownRecord, Sheet>();
  #sheetsOf = '';
  #locale = 'en-GB';

  open(around: Around): void {
    this.#around = around;
  }

  look(record: ShownRecord): void {
    this.#record = record;
  }

  /** Computes a template for the record that is looked at. */
  compute(template: Template, withPage: boolean): Computed {
    const { schema, pins, issueDate } = this.#around;
    const { houseStyle } = houseStyleOf(template, pins);
    const { company } = houseStyle;
    const locale = template.editions[0]?.locale ?? 'en-GB';
    this.#locale = locale;
    // One checker for all: what it found for a formula once is not found again.
    const checker = checkerFor(checkContext(template, schema, [houseStyle]));
    const { context } = checker;
    const edition = template.editions[0]?.id ?? '';
    const { asks = [] } = template;
    const sheetOf = JSON.stringify([locale, edition, company, issueDate, asks]);
    // What a record comes to stays, while only words are changed.
    if (checker !== this.#checker || sheetOf !== this.#sheetsOf) {
      const around = {
        sheet: context.sheet,
        schema,
        root: template.record.root,
        locale,
        today: dayOf(issueDate),
      };
      const answered = (record: ShownRecord, answers: readonly Answer[]) => {
        const roots = documentRoots({ company, issueDate, edition, locale, asks, answers });
        return new Sheet({ ...record, ...around, roots });
      };
      const usual = (record: ShownRecord) =>
        answersOf(asks, [], (formula) => answered(record, []).evaluate('ask', formula).value).answers;
      this.#sheetOf = (record) => answered(record, usual(record));
      this.#sheets = new WeakMap();
      [this.#checker, this.#subjects, this.#sheetsOf] = [checker, new Subjects(checker), sheetOf];
    }
    const sheet = this.#sheetFor(this.#record);
    this.#sheet = sheet;
    const uses = usesIn(template, checker);
    const onPage = Object.entries(uses.figures).map(([key, places]) => [key, places.filter((each) => !each.figure)]);
    return {
      view: sheetView(checker, Object.fromEntries(onPage), sheet, locale),
      ...(withPage && { page: pageView({ checker, template, pins, houseStyle, sheet, locale }) }),
      uses,
      missing: missingFieldsOrNone(template, checker),
      ...this.#readsOrNone(template),
    };
  }

  /** What a template reads of its record. @throws FormulaError */
  paths(template: Template): string[] {
    const { schema, pins } = this.#around;
    return pathsAround(readsOf(template, pins, schema), schema, template.record.type);
  }

  /** What a made-up record for a template has, as its JSON Schema; with what it would be if it were made of a record. @throws FormulaError */
  sampleFor(template: Template, record: RecordSnapshot | undefined): { schema: object; sample: Sample } {
    const { schema, pins } = this.#around;
    const { type } = template.record;
    const reads = readsOf(template, pins, schema);
    return {
      schema: sampleSchema(reads, schema, type),
      sample: record ? sampleOf(record, reads, schema) : emptySample(reads, schema, type),
    };
  }

  #readsOrNone(template: Template): Pick<Computed, 'paths' | 'pictures'> {
    const { schema, pins } = this.#around;
    const { type } = template.record;
    try {
      const reads = readsOf(template, pins, schema);
      return { paths: pathsAround(reads, schema, type), pictures: picturePaths(reads, schema, type) };
    } catch {
      return { paths: [], pictures: [] };
    }
  }

  /** A formula as it is typed; nothing is known of it before a record was looked at. */
  typed(source: string, list: string | undefined, row: number): FormulaState {
    if (!this.#checker || !this.#sheet) return { diagnostics: [], type: '', value: null };
    return formulaState(source, this.#checker, this.#sheet, this.#locale, list, row);
  }

  /** The looks that what a formula gives may have, each by what it would print. */
  looks(source: string, list: string | undefined): LookExample[] {
    if (!this.#checker || !this.#sheet) return [];
    return lookExamples(source, this.#checker, this.#sheet, this.#locale, list);
  }

  completions(source: string, position: number, list: string | undefined): Completions {
    if (!this.#checker) return { from: position, options: [] };
    return completionsAt(source, position, this.#checker, this.#checker.itemOf(list));
  }

  /** A condition as a form shows it; `list`: where it stands for each item of one. */
  condition(source: string, list: string | undefined): ConditionView | undefined {
    if (!this.#subjects) return undefined;
    return conditionView(source, this.#subjects, this.#subjects.checker.itemOf(list));
  }

  /** Everything that a condition can look at. */
  subjects(list: string | undefined): SubjectGroup[] {
    return this.#subjects?.offered(this.#subjects.checker.itemOf(list)) ?? [];
  }

  /** The template with another field wherever it reads one that there is not. */
  withFieldReplaced(template: Template, missing: MissingField, by: string): Template {
    const { schema, pins } = this.#around;
    const { houseStyle } = houseStyleOf(template, pins);
    return withFieldReplaced(template, checkContext(template, schema, [houseStyle]), missing, by);
  }

  /** What a formula looks at. */
  subject(formula: string, list: string | undefined): Subject | undefined {
    return this.#subjects?.of(formula, this.#subjects.checker.itemOf(list));
  }

  /** Takes the records that the template is proved on. */
  proveOn(records: readonly { name: string; record: RecordSnapshot }[]): void {
    this.#proofs = records.map(({ name, record }) => ({ name, shown: { snapshot: record, registered: [] } }));
  }

  /** For which of the records that the template is proved on a condition holds, in their order. */
  holdsFor(source: string): Holding[] {
    return this.#proofs.map(({ name, shown }) => {
      const value = asCondition(this.#sheetFor(shown).evaluate('typed', source).value);
      return {
        id: shown.snapshot.id,
        name,
        ...(typeof value === 'boolean' ? { holds: value } : { why: messageOf(value) }),
      };
    });
  }

  #sheetFor(record: ShownRecord): Sheet {
    let sheet = this.#sheets.get(record);
    if (!sheet) this.#sheets.set(record, (sheet = this.#sheetOf(record)));
    return sheet;
  }

  /** A table of a list, with the figures that it needs. */
  table(template: Template, list: string): Designed {
    return tableOf(template, this.#around.schema, list, newId);
  }

  /** A summary of tax or a schedule of payments; undefined where the records have nothing to compute one from. */
  schedule(template: Template, what: Schedule): Designed | undefined {
    const found = scheduleOf(template, this.#around.schema, what);
    return found && this.table({ ...template, sheet: found.sheet }, found.list);
  }

  totalsOffered(template: Template): TotalOffer[] {
    return totalsOffered(template, this.#around.schema);
  }

  totals(template: Template, wanted: readonly TotalId[]): { sheet: FigureSheet; block: Totals } {
    return totalsOf(template, this.#around.schema, wanted, newId);
  }

  /** A table grouped by a field of its items, or no more. */
  grouped(template: Template, table: LineTable, by: GroupField | undefined): ReturnType<typeof withGroups> {
    return withGroups(template, this.#around.schema, table, by);
  }

  /** A table that treats optional items in another way. */
  treatingOptional(table: LineTable, field: string, way: OptionalWay): ReturnType<typeof withOptional> {
    return withOptional(table, field, way, newId);
  }

  /** What a table does already: the field that it is grouped by, and how it treats items by each of their yes-or-no fields. */
  tableState(template: Template, table: LineTable): TableState {
    const item = this.#checker?.itemOf(table.list);
    const fields = item ? this.#checker!.namesIn(item) : [];
    return {
      groupedBy: groupedBy(template, table),
      groupFields: fields
        .filter(({ type }) => type.is === 'text' || type.is === 'boolean')
        .map(({ name, label, figure }) => ({ formula: name, label: figure ? `${label}, computed` : label })),
      optional: fields
        .filter(({ type, figure }) => type.is === 'boolean' && !figure)
        .map(({ name, label }) => ({ formula: name, label, way: optionalWay(table, name) })),
    };
  }

  /** A column of what is chosen for it. */
  column(formula: string, label: string, list: string): ColumnDefinition {
    const { type } = this.#checker!.formula(formula, this.#checker!.itemOf(list));
    return columnFor(formula, label, type);
  }

  workings(key: string, row: number): Workings | undefined {
    const cell = this.#sheet && cellAt(this.#sheet, key, row);
    return cell && workingsOf(cell, this.#sheet!, this.#locale);
  }
}

const messageOf = (value: Value): string => (value.type === 'error' ? value.message : 'It is neither yes nor no.');

/** Nothing while a placeholder is not closed yet. */
function missingFieldsOrNone(template: Template, checker: Checker): MissingField[] {
  try {
    return missingFields(template, checker.context, checker);
  } catch (problem) {
    if (problem instanceof FormulaError) return [];
    throw problem;
  }
}
