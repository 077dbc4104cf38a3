import { Checker } from './check';
import { DECLARED, signatureOf } from '../formula/functions';
import type { Family, FormulaFunction } from '../formula/functions/function';
import { SAMPLE, SAMPLE_CONTEXT } from './sample';
import { Sheet } from './sheet';
import { formatValue } from '../formula/value';

/** A function as the reference shows it: plain data for the page and for the documents. */
export interface ReferenceEntry {
  name: string;
  family: Family;
  /** `ROUND(value, digits?)` */
  signature: string;
  help: string;
  example: string;
  /** What the example comes to, over the sample deal. */
  result: string;
}

/** Every function with its example computed. */
export function formulaReference(): ReferenceEntry[] {
  const sheet = new Sheet(SAMPLE);
  return DECLARED.map((each) => ({
    name: each.name,
    family: each.family,
    signature: `${each.name}(${signatureOf(each)})`,
    help: each.help,
    example: each.example,
    result: formatValue(exampleValue(each, sheet), SAMPLE.locale),
  }));
}

/** The value of a function's example. Where it is a figure of a line, that of the first line. */
export function exampleValue(declared: FormulaFunction, sheet = new Sheet(SAMPLE)) {
  const lines = sheet.record.value('lines');
  const first = lines.type === 'list' ? lines.items[0] : undefined;
  const row = declared.ofItem && first?.type === 'record' ? first.row : undefined;
  return sheet.evaluate(declared.name, declared.example, row).value;
}

/** What is wrong with a function's example, which should be nothing. */
export function exampleDiagnostics({ example, ofItem }: FormulaFunction) {
  const checker = new Checker(SAMPLE_CONTEXT);
  return checker.formula(example, ofItem ? checker.lines : undefined).diagnostics;
}

/** The reference as Markdown, for the project's documents. */
export function referenceMarkdown(): string {
  const entries = formulaReference();
  const families = [...new Set(entries.map(({ family }) => family))];
  const sections = families.map((family) => {
    const rows = entries
      .filter((entry) => entry.family === family)
      .map(({ signature, help, example, result }) => {
        const cell = (text: string) => text.replaceAll('|', '\\|');
        return `### ${signature.slice(0, signature.indexOf('('))}\n\n\`${signature}\`\n\n${help}\n\n\`${example}\` gives ${cell(result)}\n`;
      });
    return `## ${family}\n\n${rows.join('\n')}`;
  });
  return `${INTRODUCTION}\n${sections.join('\n')}`;
}

const INTRODUCTION = `# Formulas

Written by \`npm run reference\` from the functions' declarations in \`core/formula/functions/\`; the results are computed.
Examples are over a deal of three lines in euros: 12 vent motors at 48.50 less 10 %, 1.5 days of fitting at 620.00, and an
optional rain sensor at 218.00, issued on 23 November 2026.

## The language

| what | how |
|---|---|
| a field | \`deal.account.country\` |
| every line's value | \`lines.net\` |
| some of the lines | \`lines[not optional].net\` |
| arithmetic | \`+ - * / ^\`, \`12.5%\`; exact, never binary fractions |
| joining texts | \`"Quote " & document.number\` |
| comparing | \`= <> < <= > >=\`, \`"crane" in deal.site_works\` |
| conditions | \`and\`, \`or\`, \`not\`, \`IF(condition, then, otherwise)\` |
| or else, for a blank | \`discount ?? 0%\` |
| dates count in days | \`document.issue_date + 30\` |
| the item in scope, inside a filter or a line's figure | its names bare, or \`item.name\` |
| the item that a figure is computed for, inside a filter too | \`this\`: \`FIRST(tax_rows[this in item.lines])\` |
| a figure of the document, said outright | \`figures.total\` |
| a table of the sheet | \`tables.freight.price\`; one called \`exchange\` (date, from, to, rate) is what EXCHANGE reads |
| odd names | between backquotes |

Ranks, tightest first: path and filter; \`??\`; prefix \`-\`; \`%\`; \`^\` (left to right); \`* /\`; \`+ -\`; \`&\`; comparisons and \`in\`;
\`not\`; \`and\`; \`or\`. A blank is never zero: in arithmetic it is an error that names the field and the line. Money of two
currencies never mixes. A plain zero is a zero of any currency.

## How numbers are computed

- **Exactness.** Sums, differences, products, quotients and whole powers are exact until a rounding is declared. A quotient
  that does not end is kept as a fraction: \`10 / 3 * 3\` is 10, and 116.90 over 28 days is 4.175 before it is rounded to
  4.18. Roots and fractional powers are exact where they have an exact form (\`SQRT(6.25)\` is 2.5, \`27 ^ (1/3)\` is 3);
  otherwise, and where a power's exact form would have more than 10,000 digits, they carry 40 significant digits.
- **Size.** A number has at most 300 digits before its point, and 10,000 in all. What goes beyond is an error in words,
  never infinity and never a number that was cut.
- **Rounding** happens in three places only: where a figure is declared to be an amount (to its currency's smallest unit, half
  away from zero or to even, as the sheet says) or to have a number of digits; where a formula says so (ROUND and its kin); and
  where a value is printed, which changes nothing that is computed from it.
- **Splits.** ALLOCATE, PART and SCHEDULE give parts in whole units that add up to their sum exactly; ROUNDTOGETHER rounds the
  amounts of a list so that they do. A sum of money that is not in whole units itself is refused by them, so that nothing is
  lost on the way; amounts always are in whole units.
- **Blanks.** A blank is never a zero: what is computed from one is an error that names the field and the line.
  \`discount ?? 0%\` says what it should count as.
- **Signs.** Rounding and splitting do not depend on the sign: −100 is rounded and split as 100 is, each part with the other
  sign. INT, FLOOR and CEILING alone go towards one end of the number line.
`;
