import type { MeaningAmount, Meanings } from '../../core/formula/meanings';
/**
 * The calculation rules of EN 16931-1 over the meanings of a document: BR-CO-10 to 17, and the rules of each tax category for
 * its base (-8) and its tax (-9). Written from the standard, in whole numbers of the smallest unit.
 */

const CODES: Readonly<Record<string, string>> = {
  standard: 'S', reduced: 'S', zero: 'Z', exempt: 'E', 'reverse charge': 'AE', export: 'G', 'outside scope': 'O',
}; // prettier-ignore

/** Amounts in units of 10^-6, which holds every currency's smallest. */
const units = (amount: MeaningAmount | undefined): bigint => fromText(amount?.value ?? '0', 6);

function fromText(text: string, places: number): bigint {
  const [, sign, whole = '', fraction = ''] = /^(-?)(\d+)(?:\.(\d+))?$/.exec(text)!;
  const value = BigInt(whole + fraction.slice(0, places).padEnd(places, '0'));
  return sign ? -value : value;
}

const DECIMALS: Readonly<Record<string, number>> = { JPY: 0, KWD: 3 };

/** Half away from zero, to the currency's smallest unit. */
function rounded(value: bigint, divisor: bigint, currency: string): bigint {
  const unit = 10n ** BigInt(6 - (DECIMALS[currency] ?? 2));
  const step = divisor * unit;
  const size = value < 0n ? -value : value;
  const result = ((size * 2n + step) / (step * 2n)) * unit;
  return value < 0n ? -result : result;
}

/** The rules that a document breaks, each in a sentence; those whose terms it does not have are passed over. */
export function brokenRules({ document, rows }: Meanings): string[] {
  const broken: string[] = [];
  const holds = (rule: string, one: bigint, other: bigint) => {
    if (one !== other) broken.push(`${rule}: ${one} is not ${other}`);
  };
  const lines = rows.filter(({ values }) => values['line-net']);
  const taxes = rows.filter(({ values }) => values['tax-base']);
  const sum = (all: Meanings['rows'], meaning: 'line-net' | 'tax-amount' | 'allowances' | 'charges') =>
    all.reduce((total, { values }) => total + units(values[meaning]), 0n);
  const { 'sum-of-lines': lineSum, allowances, charges, 'gross-total': gross, payable } = document;
  if (lineSum && lines.length > 0) holds('BR-CO-10', units(lineSum), sum(lines, 'line-net'));
  if (allowances) holds('BR-CO-11', units(allowances), sum(rows, 'allowances'));
  if (charges) holds('BR-CO-12', units(charges), sum(rows, 'charges'));
  const net = units(lineSum) - units(allowances) + units(charges);
  if (document['net-total']) holds('BR-CO-13', units(document['net-total']), net);
  if (document['tax-total']) holds('BR-CO-14', units(document['tax-total']), sum(taxes, 'tax-amount'));
  if (gross) holds('BR-CO-15', units(gross), net + units(document['tax-total']));
  if (payable) holds('BR-CO-16', units(payable), units(gross) - units(document.prepaid) + units(document.rounding));
  const seen = new Set<string>();
  for (const { values } of taxes) {
    const { 'tax-category': category = '', 'tax-rate': rate = '0', 'tax-base': base, 'tax-amount': tax } = values;
    const code = CODES[category] ?? '?';
    const own = lines.filter((line) => line.values['tax-category'] === category && line.values['tax-rate'] === rate);
    const expected = sum(own, 'line-net') - units(values.allowances) + units(values.charges);
    holds(`BR-${code}-8 (${category} ${rate})`, units(base), expected);
    holds(
      `BR-CO-17 and BR-${code}-9 (${category} ${rate})`,
      units(tax),
      rounded(units(base) * fromText(rate, 6), 1_000_000n, base!.currency),
    );
    if (code !== 'S' && fromText(rate, 6) !== 0n) broken.push(`BR-${code}-5: ${category} has the rate ${rate}`);
    // BR-Z-1, BR-E-1, BR-AE-1, BR-G-1, BR-O-1: one row for each category that bears no tax; one for each rate of the others.
    const key = code === 'S' ? `${category} ${rate}` : code;
    if (seen.has(key)) broken.push(`BR-${code}-1: ${key} has more than one row`);
    seen.add(key);
  }
  return broken;
}
