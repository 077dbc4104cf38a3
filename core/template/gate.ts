/** The one gate: everything that is asked of a template, whoever brings it, before it is a version to make documents from. */
import { askFaults } from './asks';
import { MOST_TOLD, reportOf, type Fault, type FaultReport } from '../shape/faults';
import type { RecordSchema } from '../record/schema';
import { Checker } from '../sheet/check';
import { checkSheet } from '../sheet/check-sheet';
import { FormulaError } from '../formula/ast';
import { assemble, type Assembled } from './assemble';
import { faultsIn } from './blocks';
import { twice } from './blocks/kind';
import { checkContext, diagnosticsOf } from './check';
import { idsIn } from './node';
import { stepFaults } from './plan-faults';
import type { Pins, Template } from './template';
import { everyBlock, ownBlockLists } from './walk';

/** Every fault of a template in all of its editions, with the house styles and clauses it would be published with. */
export function faultsOf(template: Template, pins: Pins, schema: RecordSchema): FaultReport {
  const checker = new Checker(checkContext(template, schema, pins.houseStyles));
  const found = new Map<string, Fault>();
  for (const fault of allFaults(template, pins, checker)) {
    if (!found.has(fault.sentence)) found.set(fault.sentence, fault);
    // Those that are only counted need not say what was probably meant.
    if (found.size === MOST_TOLD) checker.suggests = false;
  }
  return reportOf([...found.values()]);
}

function* allFaults(template: Template, pins: Pins, checker: Checker): Generator<Fault> {
  yield* nameFaults(template);
  yield* outputFaults(template);
  yield* stepFaults(template, checker.context.schema);
  yield* askFaults(template.asks, checker);
  for (const block of ownBlockLists(template).flatMap(everyBlock)) {
    for (const sentence of faultsIn(block, template)) yield { path: block.attrs.id, sentence };
  }
  yield* sheetFaults(checker);
  for (const { id, label } of template.editions) {
    try {
      yield* editionFaults(assemble(template, pins, id), checker);
    } catch (problem) {
      // A placeholder without an end: the text cannot be taken apart.
      if (!(problem instanceof FormulaError)) throw problem;
      yield { path: id, sentence: `In the edition “${label}”: ${problem.message}` };
    }
  }
}

function* editionFaults(whole: Assembled, checker: Checker): Generator<Fault> {
  yield* idFaults(whole);
  yield* referenceFaults(whole);
  for (const { place, formula, message } of diagnosticsOf(whole.template, checker)) {
    // Figures were checked with their sheet.
    if (place.figure === undefined)
      yield { path: place.block ?? '', sentence: `In ${place.words}, ${shortened(formula)}: ${message}` };
  }
}

const shortened = (formula: string) => (formula.length > 80 ? `${formula.slice(0, 79)}…` : formula);

function* sheetFaults(checker: Checker): Generator<Fault> {
  const { figures, problems } = checkSheet(checker.context, checker);
  for (const sentence of problems) yield { path: 'sheet', sentence };
  for (const { key, diagnostics, problems: own } of Object.values(figures)) {
    for (const sentence of [...diagnostics.map(({ message }) => message), ...own])
      yield { path: `sheet.${key}`, sentence: `The figure “${key}”: ${sentence}` };
  }
}

/** Ids that stand twice on the pages of one edition: words, findings and edits could not tell the two apart. */
function* idFaults({ template }: Assembled): Generator<Fault> {
  const { header, followingHeader = [], footer, body } = template.layout;
  const seen = new Set<string>();
  for (const block of [...header, ...followingHeader, ...footer, ...body]) {
    for (const { id, type } of idsIn(block)) {
      if (seen.has(id))
        yield {
          path: id,
          sentence: `Two parts of the page are called “${id}”, one of them the ${type}. Give one another id.`,
        };
      seen.add(id);
    }
  }
}

function* referenceFaults({ absent, circular }: Assembled): Generator<Fault> {
  for (const { what, id } of absent)
    yield {
      path: id,
      sentence: `The template asks for the ${what} “${id}”, which is not here. Make it first, or name another one.`,
    };
  for (const id of circular)
    yield { path: id, sentence: `The clause “${id}” holds itself. Take it out of its own text.` };
}

/** Names that must be told apart: of editions, plans, checks and annexes; and names that have to be there. */
function* nameFaults({ editions, plans, checks, annexes = [], asks = [], sheet, layout }: Template): Generator<Fault> {
  for (const [what, all] of [
    ['editions', editions],
    ['plans', plans],
    ['checks', checks],
    ['annexes', annexes],
    ['asks', asks.map(({ name }) => ({ id: name }))],
  ] as const) {
    for (const id of twice(all))
      yield { path: what, sentence: `Two of the ${what} are called “${id}”. Give one another id.` };
  }
  const figures = new Set(sheet.document.map(({ name }) => name));
  for (const { id, title, figure } of checks) {
    if (figure !== undefined && !figures.has(figure))
      yield {
        path: id,
        sentence: `The check “${title}” is explained by “${figure}”, which is no figure of the document.`,
      };
  }
  const own = new Set(
    [layout.header, layout.followingHeader, layout.footer, layout.body].flatMap((blocks) =>
      everyBlock(blocks ?? []).map(({ attrs }) => attrs.id),
    ),
  );
  for (const { label, without = [], instead = {} } of editions) {
    for (const id of [...without, ...Object.keys(instead)]) {
      if (!own.has(id) && !id.includes('.'))
        yield {
          path: id,
          sentence: `The edition “${label}” changes the block “${id}”, which is not on the page. Take it out of the edition.`,
        };
    }
  }
}

/** Settings of a way out that contradict each other (ISO 19005-2, 6.1.3: an archive cannot ask for a password). */
function* outputFaults({ plans, annexes = [], files = {} }: Template): Generator<Fault> {
  for (const { label, pdf } of plans) {
    if (pdf?.standard !== 'pdf/a-2b') continue;
    if (pdf.protection)
      yield {
        path: label,
        sentence: `The plan “${label}” makes a PDF/A and protects it. Take the archive standard or the protection off the plan.`,
      };
    if (annexes.length === 0) continue;
    for (const [name, file] of Object.entries(files)) {
      if (file.mediaType === 'application/pdf' && file.standard !== 'pdf/a-2b')
        yield {
          path: name,
          sentence: `The plan “${label}” makes a PDF/A, and the file “${name}” that may be joined to it is none. Save it as PDF/A-2b first.`,
        };
    }
  }
}
