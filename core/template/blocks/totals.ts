import { formula, id, listOf, oneOf, placeholders, shape, type InferType } from '../../shape/shape';
import { textOfRuns, type Run } from '../composed';
import { attrs, leaf } from '../node';
import { twice, unchanged, type BlockKind } from './kind';

/** `formula`: the value; with `each`, evaluated for each item of that list. `when`: printed only if it holds. */
const totalsRow = shape({
  id: id(),
  label: placeholders(),
  formula: formula().required(),
  each: formula(),
  when: formula(),
  emphasis: oneOf(['total']),
}).required();
type TotalsRow = InferType<typeof totalsRow>;

const totalsAttrs = attrs({ rows: listOf(totalsRow, 200).required() });

/** Labels and values one above the other, at the end of the measure. */
export interface Totals {
  type: 'totals';
  attrs: InferType<typeof totalsAttrs>;
}

/** The totals as they print, row by row. */
export interface ComposedTotals {
  kind: 'totals';
  block: string;
  rows: { label: Run[]; value: Run[]; emphasis: boolean }[];
}

export const totals: BlockKind<Totals, ComposedTotals> = {
  shape: leaf('totals', totalsAttrs),
  words: () => 'the totals',
  inner: unchanged,
  mapFormulas: (block, change) =>
    mapRows(block, (row) => {
      const within = row.each === undefined ? [] : [row.each];
      return {
        ...row,
        label: change.text(row.label, ...within),
        formula: change.formula(row.formula, ...within),
        ...(row.each !== undefined && { each: change.formula(row.each) }),
        ...(row.when !== undefined && { when: change.formula(row.when) }),
      };
    }),
  mapWords: (block, { text }) => mapRows(block, (row) => ({ ...row, label: text(row.id, row.label) })),
  faults: ({ attrs: { id: block, rows } }) =>
    twice(rows).map((row) => `Two rows of the totals “${block}” are called “${row}”. Give one another id.`),
  compose({ attrs: own }, composer, outer) {
    const block = own.id;
    const rows = own.rows.flatMap((row) => {
      if (row.when && !composer.chooses(`${block} ${row.id}`, row.when, block, outer)) return [];
      const items = row.each ? composer.rows(`${block} ${row.id} each`, row.each, row.label, outer) : [outer];
      return items.map((item) => {
        const id = `${block}.${row.id}`;
        const label = composer.placed(`${block} ${row.id} label`, row.label, block, item);
        composer.calls(id, textOfRuns(label), item);
        const value = composer.print({ id, formula: row.formula, format: 'plain', block, row: item });
        return { label, value, emphasis: row.emphasis === 'total' };
      });
    });
    return rows.length === 0 ? [] : [{ kind: 'totals', block, rows }];
  },
};

function mapRows(block: Totals, change: (row: TotalsRow) => TotalsRow): Totals {
  return { ...block, attrs: { ...block.attrs, rows: block.attrs.rows.map(change) } };
}
