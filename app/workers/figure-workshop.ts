import type { HouseStyle } from '#core/template/house-style';
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

/** What a figure sheet is worked on with. */
export interface Workplace {
  template: Template;
  schema: RecordSchema;
  company: HouseStyle['company'];
  snapshot: RecordSnapshot;
  issueDate: string;
  /** Documents filed for the record before. */
  registered: RegisteredDocument[];
}

/** The figure sheet off the page's thread: checked, computed and completed here while a person types. */
export class FigureWorkshop {
  #place!: Workplace;
  #context!: CheckContext;
  #checker!: Checker;
  #sheet!: Sheet;
  #locale = 'en-GB';

  open(place: Workplace): SheetView {
    this.#place = place;
    this.#locale = place.template.editions[0]?.locale ?? 'en-GB';
    this.#context = checkContext(place.template, place.schema, [place]);
    this.#checker = new Checker(this.#context);
    const { template, schema, snapshot, company, issueDate, registered } = place;
    this.#sheet = new Sheet({
      sheet: template.sheet,
      schema,
      snapshot,
      root: template.record.root,
      roots: documentRoots({ company, issueDate, edition: template.editions[0]?.id ?? '', locale: this.#locale }),
      locale: this.#locale,
      today: dayOf(issueDate),
      registered,
    });
    const places = [...placesOfUse(template, this.#context)].map(
      ([key, all]) => [key, all.map(({ words }) => words)] as const,
    );
    return sheetView(this.#context, new Map(places), this.#sheet, this.#locale);
  }

  /** What a template reads of its record. */
  paths(template: Template, pins: Pins, schema: RecordSchema): string[] {
    return pathsAround(readsOf(template, pins, schema), schema, template.record.type);
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
