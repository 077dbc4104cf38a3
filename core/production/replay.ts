import { Decimal } from '../money/decimal';
import type { OutcomeChange } from './replay-groups';
import type { Composing } from './compose';
import { sectionNotes } from './composed-blocks';

/** What a document came to, as far as two of them are held against each other. */
export interface Outcome {
  /** `number`: the value of a number or an amount, as decimal text. */
  figures: readonly { name: string; label: string; result: string; number?: string }[];
  /** Notes of the sections that print, by their blocks. */
  sections: Readonly<Record<string, string>>;
  findings: readonly { id: string; title: string; severity: string }[];
  pages: number;
}

/** What a document came to. `pages`: how many it was set on. */
export function outcomeOf({ composition, numbers }: Composing, pages: number): Outcome {
  const { figures, findings, document } = composition;
  const known = numbers();
  return {
    figures: figures.map(({ name, label, result }) => ({
      name,
      label,
      result,
      ...(known[name] !== undefined && { number: known[name] }),
    })),
    sections: sectionNotes(document.body),
    findings: findings
      .filter(({ severity }) => severity !== 'notes')
      .map(({ id, title, severity }) => ({ id, title, severity })),
    pages,
  };
}

/** What came out otherwise: sums, sections, findings, pages. */
export function outcomeChanges(before: Outcome, after: Outcome): OutcomeChange[] {
  return [
    ...figureChanges(before, after),
    ...keyedChanges('section', Object.entries(before.sections), Object.entries(after.sections)),
    ...keyedChanges(
      'finding',
      before.findings.map(({ id, title }) => [id, title]),
      after.findings.map(({ id, title }) => [id, title]),
    ),
    ...(before.pages === after.pages
      ? []
      : [{ of: 'pages' as const, what: 'Pages', before: String(before.pages), after: String(after.pages) }]),
  ];
}

function figureChanges(before: Outcome, after: Outcome): OutcomeChange[] {
  const old = new Map(before.figures.map((figure) => [figure.name, figure]));
  return after.figures.flatMap(({ name, label, result, number }): OutcomeChange[] => {
    const known = old.get(name);
    if (!known || known.result === result) return [];
    const by =
      known.number === undefined || number === undefined
        ? undefined
        : Decimal.of(number).minus(Decimal.of(known.number)).abs().toFixed();
    return [{ of: 'figure', what: label, before: known.result, after: result, ...(by !== undefined && { by }) }];
  });
}

function keyedChanges(
  of: 'section' | 'finding',
  before: readonly (readonly [string, string])[],
  after: readonly (readonly [string, string])[],
): OutcomeChange[] {
  const [old, young] = [new Map(before), new Map(after)];
  const there = of === 'section' ? 'printed' : 'found';
  const gone = of === 'section' ? 'left out' : 'none';
  return [
    ...[...young].filter(([key]) => !old.has(key)).map(([, what]) => ({ of, what, before: gone, after: there })),
    ...[...old].filter(([key]) => !young.has(key)).map(([, what]) => ({ of, what, before: there, after: gone })),
  ];
}
