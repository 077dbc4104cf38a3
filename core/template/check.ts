import { Checker, DOCUMENT_ROOT, type CheckContext, type Diagnostic } from '../sheet/check';
import { renamed, renameInFormula } from '../sheet/rename';
import { TEXT, type Type } from '../formula/type';
import type { RecordSchema } from '../record/schema';
import { ASK, askTypes } from './asks';
import { mapFormulas, placedFormulas, type FormulaPlace } from './formulas';
import type { HouseStyle } from './house-style';
import type { Template } from './template';

/** Something wrong with a formula of a template, and where it stands. */
export interface PlacedDiagnostic extends Diagnostic {
  formula: string;
  place: FormulaPlace;
}

/** What the formulas of a template are checked against. */
export function checkContext(
  template: Pick<Template, 'sheet' | 'record' | 'asks'>,
  schema: RecordSchema,
  houseStyles: readonly Pick<HouseStyle, 'company'>[] = [],
): CheckContext {
  const details = houseStyles.flatMap(({ company }) => Object.keys(company));
  const company = Object.fromEntries(details.map((key): [string, Type] => [key, TEXT]));
  return {
    sheet: template.sheet,
    schema,
    record: template.record,
    roots: { company, document: DOCUMENT_ROOT, [ASK]: askTypes(template.asks) },
  };
}

/** What is wrong with the formulas of a template, found without data: of its figures, its page, its file names and its checks. */
export function* diagnosticsOf(template: Template, checker: Checker): Generator<PlacedDiagnostic> {
  for (const { formula, place } of placedFormulas(template)) {
    const { diagnostics } = checker.formula(formula, checker.itemIn(place.within));
    for (const diagnostic of diagnostics) yield { ...diagnostic, formula, place };
  }
}

/** The template with a figure or list under a new name, and every use of it following, on the page too. */
export function renameInTemplate(template: Template, context: CheckContext, key: string, name: string): Template {
  const checker = new Checker(context);
  const followed = mapFormulas(template, (formula, place) => {
    const { uses } = checker.formula(formula, checker.itemIn(place.within));
    return renameInFormula(formula, uses, key, name);
  });
  return { ...followed, sheet: renamed(followed.sheet, key, name) };
}
