import { itemPath } from '../../record/value-path';
import { allocate, roundTogether } from '../../money/allocate';
import { isCurrencyCode, minorUnit } from '../../money/currency';
import { Decimal, type RoundingMode } from '../../money/decimal';
import { amountInWords, numberInWords, WORD_LANGUAGES } from '../../words/numbers/in-words';
import { addMonths, dayOf, formatDay } from '../date';
import { boundedDay, mixture, multiply } from '../operators';
import { printFormula } from '../print';
import { ValuesRow } from '../row';
import { DATE, listOf, MONEY, NUMBER, PERCENT, shapeOf, TEXT, type Shape, type Type } from '../type';
import { wholeNumber } from './arithmetic';
import { asCondition } from './condition';
import { lastWithin } from './lists';
import { ownOf } from './own-item';
import { BILLED, REGISTERED } from './register';
import { total as sumOf } from './sums';
import {
  blankError,
  canonical,
  error,
  formatValue,
  money,
  NO_CURRENCY,
  number,
  percent,
  text,
  typeWords,
  isAmount,
  type AmountValue,
  type MoneyValue,
  type NumberValue,
  type Value,
} from '../value';
import { eager, firstType, flatten, itemType, lazy, type Argument, type CallContext } from './function';

const ALLOCATE = eager(
  {
    name: 'ALLOCATE',
    family: 'The trade',
    parameters: [
      { name: 'total', takes: 'amount' },
      { name: 'weights', takes: 'amounts', repeats: true },
    ],
    help: 'Splits a sum by weights. The parts are in the currency’s smallest unit and add up to the sum exactly: units left over go to the largest remainders. A sum of money that is not in whole units itself is refused; round it first. A number is split into hundredths, or as finely as it is itself. −100 splits as 100 does.',
    example: 'ALLOCATE(100, 1, 1, 1)',
    result: ([total]) => listOf(total ?? NUMBER),
  },
  ([total, ...weights]) => parts(total as AmountValue, weights),
);

/** A sum in parts of whole units that add up to it. */
function parts(total: AmountValue, weights: readonly Value[]): Value {
  const decimals: Decimal[] = [];
  const all = [...flatten(weights)];
  const mixed = mixture(all);
  if (mixed) return mixed;
  for (const weight of all) {
    if (weight.type === 'error') return weight;
    if (weight.type === 'blank') return blankError(weight);
    if (!isAmount(weight)) return error(`A weight is a number or money, not ${typeWords(weight)}.`);
    decimals.push(weight.value);
  }
  if (decimals.length === 0) return error('There are no weights to split the sum by.');
  const places = total.value.decimalPlaces();
  const digits = unitsOf(total);
  if (places > digits) {
    const unit = total.type === 'money' ? `the smallest unit of ${total.currency}` : 'a number of decimals';
    return error(
      `${formatValue(total, 'en')} cannot be split into parts that add up to it: round it to ${unit} first.`,
    );
  }
  const weight = decimals.reduce((one, other) => one.plus(other), Decimal.ZERO);
  if (weight.isZero() && !total.value.isZero())
    return error('The weights add up to zero, so nothing can be split by them.');
  const split = allocate(total.value, decimals, digits);
  const items = split.map((value): Value =>
    total.type === 'money' ? money(value, total.currency, 'amount') : { ...total, value },
  );
  return { type: 'list', items, holds: total.type === 'money' ? 'amount' : undefined };
}

/** Decimals of the unit that parts are whole multiples of: the currency's; hundredths of a number, or finer if it is. */
function unitsOf(total: AmountValue): number {
  if (total.type === 'money') return minorUnit(total.currency);
  const places = total.value.decimalPlaces();
  return Math.max(total.type === 'percent' ? 4 : 2, Number.isFinite(places) ? places : 0);
}

const PART = lazy(
  {
    name: 'PART',
    family: 'The trade',
    parameters: [
      { name: 'total', takes: 'amount' },
      { name: 'list', takes: 'records' },
      { name: 'weight', takes: 'formula for each item' },
    ],
    help: 'In a figure of a line: this line’s part of a sum that is split over a list by weights, as ALLOCATE splits it. Blank for a line that is not in the list.',
    example: 'PART(figures.rebate, lines[not optional], net)',
    ofItem: true,
    result: firstType,
  },
  ([totalArgument, list, weight], context) => {
    const total = totalArgument!.value();
    if (total.type === 'error') return total;
    if (total.type === 'blank') return blankError(total);
    if (!isAmount(total)) return error('PART splits a sum over a list of records.');
    const split = { key: `${canonical(total)} ${printFormula(weight!.expression)}`, absent: 'no part' };
    return ownOf('PART', list!, context, split, (items, inner) => parts(total, forEach(items, weight!, inner)));
  },
);

/** A formula's value for each item of a list; what is no record is itself. */
function forEach(items: readonly Value[], { expression }: Argument, context: CallContext): Value[] {
  const each = context.argument(expression);
  return items.map((item) => (item.type === 'record' ? each.valueFor(item.row) : item));
}

const ROUNDTOGETHER = lazy(
  {
    name: 'ROUNDTOGETHER',
    family: 'The trade',
    parameters: [
      { name: 'list', takes: 'records' },
      { name: 'amount', takes: 'formula for each item' },
    ],
    help: 'In a figure of a line: an amount, rounded so that the rounded amounts of a list add up to their exact sum, rounded once. Units over go to the largest remainders. Prices that include tax become nets that add up to the net of their category.',
    example: 'ROUNDTOGETHER(lines[not optional], quantity * unit_price / 1.21)',
    ofItem: true,
    result: ([, amount]) => amount ?? MONEY,
  },
  ([list, amount], context) => {
    const rounded = { key: printFormula(amount!.expression), absent: 'no amount' };
    return ownOf('ROUNDTOGETHER', list!, context, rounded, (items, inner) =>
      together(forEach(items, amount!, inner), inner.rounding),
    );
  },
);

function together(amounts: readonly Value[], rounding: RoundingMode): Value {
  const mixed = mixture(amounts);
  if (mixed) return mixed;
  const exact: MoneyValue[] = [];
  for (const amount of amounts) {
    if (amount.type === 'error') return amount;
    if (amount.type === 'blank') return blankError(amount);
    if (amount.type !== 'money') return error(`ROUNDTOGETHER rounds amounts of money, not ${typeWords(amount)}.`);
    exact.push(amount);
  }
  const currency = exact[0]!.currency;
  const rounded = roundTogether(
    exact.map(({ value }) => value),
    minorUnit(currency),
    rounding,
  );
  return { type: 'list', items: rounded.map((value) => money(value, currency, 'amount')) };
}

const INSTALMENT: Readonly<Record<string, Type>> = { number: NUMBER, share: PERCENT, amount: MONEY, date: DATE };

const SCHEDULE = eager(
  {
    name: 'SCHEDULE',
    family: 'The trade',
    parameters: [
      { name: 'total', takes: 'amount' },
      { name: 'shares', takes: 'several' },
      { name: 'first date', takes: 'date', optional: true },
      { name: 'months between', takes: 'number', optional: true },
    ],
    help: 'Instalments that add up to a sum: equal ones by their number, or one for each share of a list or row of a table with a column `share`; shares add up to 100 %. Each has its `number`, `share`, `amount` and, with a first date, its `date`, and the columns of its table row.',
    example: 'SCHEDULE(1000, 3, DATE(2027, 1, 31)).date',
    result: ([total, shares, first]) => {
      const own = shares?.is === 'list' && shares.of.is === 'record' ? shares.of.shape : undefined;
      return listOf({ is: 'record', shape: instalmentShape(total ?? MONEY, own, first !== undefined) });
    },
  },
  ([total, shares, first, between]) => {
    const rows = sharesOf(shares!);
    if (!Array.isArray(rows)) return rows;
    const months = wholeNumber(between, 1, 'The number of months', 120);
    if (typeof months !== 'number') return months;
    const split = parts(
      total as AmountValue,
      rows.map(({ share }) => share),
    );
    if (split.type !== 'list') return split;
    const items: Value[] = [];
    for (const [at, { share, row }] of rows.entries()) {
      const own = row ? Object.fromEntries(Object.keys(row.values).map((name) => [name, row.value(name)])) : {};
      const values: Record<string, Value> = { ...own, number: number(at + 1), share, amount: split.items[at]! };
      if (first?.type === 'date') {
        const date = boundedDay(addMonths(first.day, at * months));
        if (date.type === 'error') return date;
        values.date = date;
      }
      items.push({
        type: 'record',
        row: new ValuesRow(
          itemPath('instalment', String(at + 1)),
          String(at + 1),
          `Instalment ${at + 1}`,
          values,
          undefined,
          `Instalment ${at + 1}`,
        ),
      });
    }
    return { type: 'list', items, holdsMoney: total!.type === 'money' ? ['amount'] : [] };
  },
);

/** What an instalment has; a date only where the first one's is given. */
function instalmentShape(total: Type, own: Shape | undefined, hasDates: boolean): Shape {
  const types: Record<string, Type> = own
    ? Object.fromEntries([...own.names()].map((name) => [name, own.type(name)!]))
    : {};
  const { date, ...always } = INSTALMENT;
  return shapeOf('instalment', { ...types, ...always, ...(hasDates && { date }), amount: total });
}

/** Equal shares by a whole number of them, or the shares of a list, or of the rows of a table. */
function sharesOf(shares: Value): { share: Value; row?: ValuesRow }[] | Value {
  if (shares.type === 'number') {
    const count = wholeNumber(shares, 1, 'The number of instalments', 600);
    if (typeof count !== 'number') return count;
    if (count < 1) return error('There is at least one instalment.');
    return Array.from({ length: count }, () => ({ share: percent(Decimal.ONE.div(Decimal.of(count))) }));
  }
  if (shares.type !== 'list')
    return error(`The shares of SCHEDULE are a number of instalments or a list, not ${typeWords(shares)}.`);
  const rows: { share: Value; row?: ValuesRow }[] = [];
  for (const item of shares.items) {
    const row = item.type === 'record' && item.row instanceof ValuesRow ? item.row : undefined;
    if (row && !row.has('share')) return error('The table of instalments needs a column “share”.');
    const share = row ? row.value('share') : item;
    if (share.type === 'error') return share;
    if (share.type === 'blank') return blankError(share);
    if (share.type !== 'percent' && share.type !== 'number')
      return error(`A share is a percentage, not ${typeWords(share)}.`);
    rows.push({ share, row });
  }
  const sum = rows.reduce((one, { share }) => (share.type === 'percent' ? one.plus(share.value) : one), Decimal.ZERO);
  const allPercent = rows.every(({ share }) => share.type === 'percent');
  if (allPercent && !sum.equals(Decimal.ONE))
    return error(`The shares of the instalments add up to ${sum.shifted(2).toFixed()} %, not to 100 %.`);
  return rows;
}

const TIER = lazy(
  {
    name: 'TIER',
    family: 'The trade',
    parameters: [
      { name: 'quantity', takes: 'amount' },
      { name: 'from', takes: 'list' },
      { name: 'values', takes: 'list' },
      { name: 'graduated', takes: 'condition', optional: true },
    ],
    help: 'A volume table: the value of the tier that a quantity reaches. With `graduated` true, every unit at the value of its own tier, summed; such a table begins at 0.',
    example: 'TIER(120, tables.volume.from, tables.volume.price)',
    result: ([, , values]) => itemType(values ? [values] : []),
  },
  (args, context) => {
    const [quantity, from, values] = args.map((argument) => argument.value());
    for (const value of [quantity!, from!, values!]) {
      if (value.type === 'error') return value;
      if (value.type === 'blank') return blankError(value);
    }
    if (!isAmount(quantity!) || from!.type !== 'list' || values!.type !== 'list')
      return error('TIER takes a quantity and two lists.');
    const graduated = args[3] ? asCondition(args[3].value()) : false;
    if (typeof graduated !== 'boolean') return graduated;
    const reached = lastWithin(quantity, from!.items, 1);
    if (typeof reached !== 'number') return reached;
    if (from!.items.length !== values!.items.length)
      return error(`The volume table has ${from!.items.length} tiers, but ${values!.items.length} values.`);
    if (!graduated) return values!.items[reached]!;
    return graduatedSum(quantity, from!.items.slice(0, reached + 1), values!.items, context);
  },
);

function graduatedSum(
  quantity: AmountValue,
  from: readonly Value[],
  values: readonly Value[],
  context: CallContext,
): Value {
  const starts: Decimal[] = [];
  for (const start of from) {
    if (!isAmount(start)) return error(`A graduated volume table counts numbers or money, not ${typeWords(start)}.`);
    starts.push(start.value);
  }
  if (!starts[0]!.isZero()) return error('A graduated volume table begins at 0.');
  const products = starts.map((start, at) => {
    const end = starts[at + 1] ?? quantity.value;
    const value = values[at]!;
    if (value.type === 'blank') return blankError(value);
    return value.type === 'error' ? value : multiply(number(end.minus(start)), value);
  });
  return sumOf('TIER', products, context);
}

const EXCHANGE = eager(
  {
    name: 'EXCHANGE',
    family: 'The trade',
    parameters: [
      { name: 'amount', takes: 'amount' },
      { name: 'currency', takes: 'text' },
      { name: 'date', takes: 'date', optional: true },
    ],
    help: 'An amount in another currency, at the rate that the exchange table has for a date (the document’s, if none is given): the latest one on or before it.',
    example: 'EXCHANGE(deal.amount, "CHF")',
    result: MONEY,
  },
  ([amount, code, date], context) => {
    if (amount!.type !== 'money') return error(`EXCHANGE converts money, not ${typeWords(amount!)}.`);
    const to = code!.type === 'text' ? code!.value : '';
    if (!isCurrencyCode(to)) return error(`“${to}” is not a currency code of three capitals, such as EUR.`);
    if (amount!.currency === to) return amount!;
    const day = date?.type === 'date' ? date.day : context.today;
    if (day === undefined) return error('The document has no issue date to take the rate of.');
    const from = amount!.currency;
    const rate = context.rates
      .filter((each) => each.from === from && each.to === to && (dayOf(each.date) ?? Infinity) <= day)
      .reduce<{ date: string; rate: string } | undefined>(
        (best, each) => (best && best.date > each.date ? best : each),
        undefined,
      );
    if (!rate)
      return error(
        `The exchange table has no rate from ${from} to ${to} on or before ${formatDay(day, 'en-GB', 'long')}.`,
      );
    return money(amount!.value.times(Decimal.of(rate.rate)), to, 'price');
  },
);

const AMOUNT = eager(
  {
    name: 'AMOUNT',
    family: 'The trade',
    parameters: [
      { name: 'number', takes: 'number' },
      { name: 'currency', takes: 'text', optional: true },
    ],
    help: 'A plain number as money: a fixed fee, a least order value. In the document’s currency, if none is given.',
    example: 'MIN(SUM(lines.net), AMOUNT(500))',
    result: MONEY,
  },
  ([value, code], { currency }) => {
    const wanted = code?.type === 'text' ? code.value : currency;
    if (wanted === undefined) return error(NO_CURRENCY);
    if (!isCurrencyCode(wanted)) return error(`“${wanted}” is not a currency code of three capitals, such as EUR.`);
    return money((value as NumberValue).value, wanted, 'price');
  },
);

const LANGUAGE_WORDS = WORD_LANGUAGES.join(', ');

const WORDS = eager(
  {
    name: 'WORDS',
    family: 'The trade',
    parameters: [
      { name: 'value', takes: 'amount' },
      { name: 'language', takes: 'text', optional: true },
    ],
    help: `A whole number or an amount in words, in the document’s language or another (${LANGUAGE_WORDS}). Smaller units follow as a fraction, as on a cheque.`,
    example: 'WORDS(1250, "en")',
    result: TEXT,
  },
  ([value, language], { locale }) => {
    const tag = language?.type === 'text' ? language.value : locale;
    const amount = value as AmountValue;
    if (amount.value.abs().comparedTo(Decimal.of('1e15')) >= 0)
      return error('WORDS writes out amounts below a thousand million million.');
    if (amount.type !== 'money' && !amount.value.isInteger())
      return error('WORDS writes out whole numbers and amounts of money; round the number first.');
    const words =
      amount.type === 'money' ? amountInWords(amount.value, amount.currency, tag) : numberInWords(amount.value, tag);
    return words === undefined ? error(`WORDS does not know “${tag}”; it knows ${LANGUAGE_WORDS}.`) : text(words);
  },
);

const SERIAL = eager(
  {
    name: 'SERIAL',
    family: 'The trade',
    parameters: [{ name: 'digits', takes: 'number', optional: true }],
    help: 'The next number of the series, padded with zeros. Known only once filing has taken it.',
    example: '"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)',
    result: TEXT,
  },
  ([digits], { serial }) => {
    const places = wholeNumber(digits, 1, 'The number of digits', 18);
    if (typeof places !== 'number') return places;
    if (serial === undefined) return error('The number is given on filing.');
    return text(String(serial).padStart(places, '0'));
  },
);

export const TRADE = [
  AMOUNT,
  ALLOCATE,
  PART,
  ROUNDTOGETHER,
  SCHEDULE,
  TIER,
  EXCHANGE,
  WORDS,
  REGISTERED,
  BILLED,
  SERIAL,
];
