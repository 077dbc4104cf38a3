import { itemPath, memberPath } from '../record/value-path';
import { Decimal } from '../money/decimal';
import { dayOf } from '../formula/date';
import type { LookupTable } from './figure';
import type { ExchangeRate } from '../formula/functions/function';
import { ValuesRow } from '../formula/row';
import { error, money, NO_CURRENCY, number, percent, text, type Value } from '../formula/value';

/** The name that tables go by in formulas: `tables.freight`. */
export const TABLES = 'tables';

/** Tables by their names, each read when it is first asked for: by then the document's currency is known. */
export function tablesOf(tables: readonly LookupTable[], currency: () => string | undefined): Record<string, Value> {
  const values: Record<string, Value> = {};
  for (const table of tables) {
    Object.defineProperty(values, table.name, { enumerable: true, get: () => tableValue(table, currency) });
  }
  return values;
}

/** A table's rows as a list of records with the columns by name. */
function tableValue(table: LookupTable, currency: () => string | undefined): Value {
  const shape = table.columns.map(({ name }) => name).join();
  const list = memberPath(TABLES, table.name);
  const items = table.rows.map((row, position): Value => {
    const place = `${table.label}, row ${position + 1}`;
    const values = Object.fromEntries(
      table.columns.map((column, at) => [column.name, cellValue(row[at] ?? '', column, place, currency)]),
    );
    const id = String(position + 1);
    return { type: 'record', row: new ValuesRow(itemPath(list, id), id, place, values, list, place, shape) };
  });
  return { type: 'list', items, of: { list } };
}

function cellValue(
  source: string,
  column: LookupTable['columns'][number],
  place: string,
  currency: () => string | undefined,
): Value {
  if (source.trim() === '') return { type: 'blank', cause: `no ${column.label.toLowerCase()}`, place };
  if (column.type === 'text') return text(source);
  if (column.type === 'date') {
    const day = dayOf(source);
    return day === undefined ? error(`${place}: “${source}” is not a date.`) : { type: 'date', day };
  }
  const value = Decimal.read(source);
  if (!value) return error(`${place}: “${source}” is not a number.`);
  switch (column.type) {
    case 'number':
      return number(value);
    case 'percent':
      return percent(value);
    case 'money': {
      const code = column.currency ?? currency();
      return code ? money(value, code, 'price') : error(NO_CURRENCY);
    }
  }
}

/** The rates of a table called `exchange`, with the columns `date`, `from`, `to` and `rate`. */
export function exchangeRates(tables: readonly LookupTable[]): ExchangeRate[] {
  const table = tables.find(({ name }) => name === 'exchange');
  if (!table) return [];
  const at = (column: string) => table.columns.findIndex(({ name }) => name === column);
  const [date, from, to, rate] = ['date', 'from', 'to', 'rate'].map(at) as [number, number, number, number];
  return table.rows
    .map((row) => ({ date: row[date] ?? '', from: row[from] ?? '', to: row[to] ?? '', rate: row[rate] ?? '' }))
    .filter((each) => dayOf(each.date) !== undefined && /^\d+(\.\d+)?$/.test(each.rate));
}
