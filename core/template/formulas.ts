import { mapSheetFormulas, sheetFormulas } from '../sheet/formulas';
import { withFormulas, wordsFor, type Block } from './blocks';
import type { FormulaChanges } from './changes';
import { splitPlaceholders } from './placeholders';
import type { Plan, PlanStep } from './plan';
import type { Fits, Template } from './template';
import { mapBlocks, mapOwnBlocks } from './walk';

/** Where a formula of a template stands. */
export interface FormulaPlace {
  /** For people: "the table “Lines”", "the file name". */
  words: string;
  /** Id of the block on the page. */
  block?: string;
  /** Key of the figure whose formula it is. */
  figure?: string;
  /** Lists whose items are in scope, from the outside in: names of the figure sheet's lists, or formulas that give a list. */
  within: readonly string[];
}

/** What to put in place of a formula: itself, to leave all as it is. */
export type FormulaChange = (formula: string, place: FormulaPlace) => string;

/** The same template with every formula changed, wherever it stands. */
export function mapFormulas(template: Template, change: FormulaChange): Template {
  const labels = new Map(
    sheetFormulas(template.sheet).map(({ key, figure, derived }) => [key, (figure ?? derived)!.label]),
  );
  const at = (words: string) => changesAt({ words, within: [] }, change);
  return {
    ...mapOwnBlocks(template, (blocks) => mapBlockFormulas(blocks, change)),
    sheet: mapSheetFormulas(template.sheet, (formula, list, key) =>
      change(formula, {
        words: key === undefined ? 'the currency, or a column proved to add up' : `the figure “${labels.get(key)}”`,
        figure: key,
        within: list === undefined ? [] : [list],
      }),
    ),
    plans: template.plans.map((plan) => ({
      ...plan,
      fileName: at(`the file name of “${plan.label}”`).text(plan.fileName),
      title: at(`the title of “${plan.label}”`).text(plan.title),
      ...(plan.pdf && { pdf: mapOutput(plan.pdf, at(`the PDF of “${plan.label}”`)) }),
      ...(plan.steps && { steps: plan.steps.map((step) => mapStep(step, at(`the steps of “${plan.label}”`))) }),
    })),
    ...(template.edition !== undefined && { edition: at('the choice of the edition').formula(template.edition) }),
    ...(template.annexes && {
      annexes: template.annexes.map((annex) => ({
        ...annex,
        file: at(`the annex “${annex.label}”`).formula(annex.file),
      })),
    }),
    ...(template.asks && {
      asks: template.asks.map((ask) =>
        ask.default === undefined
          ? ask
          : { ...ask, default: at(`what “${ask.label}” usually is`).formula(ask.default) },
      ),
    }),
    ...(template.fits && { fits: fitsAt(template.fits, at('which records it is for')) }),
    checks: template.checks.map((check) => {
      const { formula, text } = at(`the check “${check.title}”`);
      return { ...check, formula: formula(check.formula), sentence: text(check.sentence) };
    }),
  };
}

const fitsAt = (fits: Fits, { formula, text }: FormulaChanges): Fits => ({
  ...fits,
  formula: formula(fits.formula),
  sentence: text(fits.sentence),
});

function mapBlockFormulas(blocks: readonly Block[], change: FormulaChange): Block[] {
  return mapBlocks(blocks, (block, within) =>
    withFormulas(block, changesAt({ words: wordsFor(block), block: block.attrs.id, within }, change)),
  );
}

/** The formulas of blocks and of those inside. */
export function formulasIn(blocks: readonly Block[]): string[] {
  const found: string[] = [];
  mapBlockFormulas(blocks, (formula) => {
    found.push(formula);
    return formula;
  });
  return found;
}

function mapOutput(pdf: NonNullable<Plan['pdf']>, { formula }: FormulaChanges): NonNullable<Plan['pdf']> {
  const { protection } = pdf;
  if (protection?.password === undefined) return pdf;
  return { ...pdf, protection: { ...protection, password: formula(protection.password) } };
}

function mapStep(step: PlanStep, { formula, text }: FormulaChanges): PlanStep {
  const common = step.when === undefined ? step : { ...step, when: formula(step.when) };
  switch (common.type) {
    case 'setFields':
      return { ...common, fields: common.fields.map((each) => ({ ...each, value: formula(each.value) })) };
    case 'activity':
      return {
        ...common,
        subject: text(common.subject),
        ...(common.text !== undefined && { text: text(common.text) }),
      };
    case 'copy':
      return { ...common, path: text(common.path) };
    case 'address':
      return common;
  }
}

/** The changes of the formulas of one place. */
function changesAt(place: FormulaPlace, change: FormulaChange): FormulaChanges {
  const formula = (source: string, ...within: readonly string[]) =>
    change(source, within.length === 0 ? place : { ...place, within: [...place.within, ...within] });
  const text = (source: string, ...within: readonly string[]) =>
    splitPlaceholders(source)
      .map((part) => (part.kind === 'text' ? part.text : `=[${formula(part.formula, ...within)}]`))
      .join('');
  return { formula, text };
}

/** A formula of a template, and where it stands. */
export interface PlacedFormula {
  formula: string;
  place: FormulaPlace;
}

/** Every formula of a template with its place. */
export function placedFormulas(template: Template): PlacedFormula[] {
  const found: PlacedFormula[] = [];
  mapFormulas(template, (formula, place) => {
    found.push({ formula, place });
    return formula;
  });
  return found;
}
