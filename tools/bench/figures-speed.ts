/** The figure sheet alone: a deal of 1,000 lines with 10 figures each, and 25 of the document. */
import LibraryDecimal from 'decimal.js';
import { checkSheet } from '../../core/sheet/check-sheet';
import { Sheet } from '../../core/sheet/sheet';
import { Decimal } from '../../core/money/decimal';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { benchDeal, benchInput, benchLine, benchSchema, benchSheet, hundredFigures } from './figures';
import { medianOf, ms } from './median';

/** Short work is measured often: one round of it says little on a machine that others use too. */
const ROUNDS = 80;
const write = (line: string) => process.stdout.write(`${line}\n`);
let unique = 0;

const all = (sheet: Sheet) => {
  for (const { name } of benchSheet.document) sheet.figure(name);
  const lines = sheet.record.value('lines');
  const items = lines.type === 'list' ? lines.items : [];
  for (const item of items)
    if (item.type === 'record') for (const figure of benchSheet.perLine) sheet.itemFigure(item.row, figure);
};
const deal = benchDeal(1_000);
const lines = deal.fields.lines as RecordSnapshot[];
const computing = await medianOf(() => all(new Sheet(benchInput(deal))), ROUNDS);
const kept = new Sheet(benchInput(deal));
all(kept);
const changing = await medianOf(() => {
  const changed = lines.map((line, at) => (at === 500 ? benchLine(at, String(++unique)) : line));
  kept.update({ ...deal, fields: { ...deal.fields, lines: changed } });
  all(kept);
}, ROUNDS);
const context = { sheet: hundredFigures, schema: benchSchema, record: { type: 'Deal', root: 'deal' }, roots: {} };
const checking = await medianOf(() => checkSheet(context), ROUNDS);
const [product, sum] = [Decimal.of('48.50').times(Decimal.of('0.9')), LibraryDecimal.mul('48.50', '0.9')];
const ours = await medianOf(() => {
  for (let at = 0; at < 20_000; at++) product.times(product).plus(product).round(2);
}, ROUNDS);
const library = await medianOf(() => {
  for (let at = 0; at < 20_000; at++) sum.times(sum).plus(sum).toDecimalPlaces(2);
}, ROUNDS);
write('Figures: 1,000 lines with 10 figures each, 25 of the document');
write(`  all of them                     ${ms(computing)}`);
write(`  after one quantity changed      ${ms(changing)}   ${(changing / computing).toFixed(2)} of all`);
write(`  checking 100 figures            ${ms(checking)}`);
write(`  20,000 products, sums, roundings${ms(ours)}   ${(ours / library).toFixed(2)} of decimal.js`);
