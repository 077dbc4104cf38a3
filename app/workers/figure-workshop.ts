import { pageView, type PageView } from '#core/production/page-view';
import { houseStyleOf } from '#core/template/house-style-of';
import { Checker, type CheckContext } from '#core/sheet/check';
import { completionsAt, type Completions } from '#core/sheet/complete';
import { dayOf } from '#core/formula/date';
import type { RegisteredDocument } from '#core/formula/functions/register';
import { Sheet } from '#core/sheet/sheet';
import { cellAt, formulaState, sheetView, type FormulaState, type SheetView } from '#core/sheet/view';
import { workingsOf, type Workings } from '#core/sheet/workings';
import type { RecordSchema } from '#core/record/schema';
import type { RecordSnapshot } from '#core/record/snapshot';
import { checkContext, placesOfUse } from '#core/template/check';
import { pathsAround } from '#core/record/paths';
import { readsOf } from '#core/template/reads';
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
  /** What it reads of the record; nothing where a formula cannot be read yet. */
  paths: string[];
}

/** A template off the page's thread: checked, computed and completed here while a person types. */
export class FigureWorkshop {
  #around!: Around;
  #record!: ShownRecord;
  #context!: CheckContext;
  #checker!: Checker;
  #sheet!: Sheet;
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
    this.#context = checkContext(template, schema, [houseStyle]);
    this.#checker = new Checker(this.#context);
    this.#sheet = new Sheet({
      ...this.#record,
      sheet: template.sheet,
      schema,
      root: template.record.root,
      roots: documentRoots({ company, issueDate, edition: template.editions[0]?.id ?? '', locale }),
      locale,
      today: dayOf(issueDate),
    });
    const places = [...placesOfUse(template, this.#context)].map(
      ([key, all]) => [key, all.map(({ words }) => words)] as const,
    );
    return {
      view: sheetView(this.#context, new Map(places), this.#sheet, locale),
      ...(withPage && { page: pageView({ template, pins, houseStyle, sheet: this.#sheet, locale }) }),
      paths: this.#pathsOrNone(template),
    };
  }

  /** What a template reads of its record. @throws FormulaError */
  paths(template: Template): string[] {
    const { schema, pins } = this.#around;
    return pathsAround(readsOf(template, pins, schema), schema, template.record.type);
  }

  #pathsOrNone(template: Template): string[] {
    try {
      return this.paths(template);
    } catch {
      return [];
    }
  }

  /** A formula as it is typed. */
  typed(source: string, list: string | undefined, row: number): FormulaState {
    return formulaState(source, this.#checker, this.#sheet, this.#locale, list, row);
  }

  completions(source: string, position: number, list: string | undefined): Completions {
    return completionsAt(source, position, this.#checker, this.#checker.itemOf(list));
  }

  workings(key: string, row: number): Workings | undefined {
    const cell = cellAt(this.#sheet, key, row);
    return cell && workingsOf(cell, this.#sheet, this.#locale);
  }
}
