import { addMonths, dayFrom, partsOf, weekdayOf } from '../date';
import { boundedDay } from '../operators';
import { DATE as DATE_TYPE, NUMBER, type Type } from '../type';
import { blankError, error, number, typeWords, type Value } from '../value';
import { wholeNumber } from './arithmetic';
import { eager, flatten, type FormulaFunction, type Parameter } from './function';

const DAY_OF: Parameter = { name: 'date', takes: 'date' };
const HOLIDAYS: Parameter = { name: 'holidays', takes: 'list', optional: true };
/** Working days are counted one by one, so a span has an end. */
const FURTHEST_WORKDAY = 36_600;
const MOST_MONTHS = 12_000;

function declared(
  name: string,
  parameters: Parameter[],
  help: string,
  example: string,
  result: Type,
  compute: Parameters<typeof eager>[1],
): FormulaFunction {
  return eager({ name, family: 'Dates', parameters, help, example, result }, compute);
}

const dayIn = (value: Value | undefined): number => (value?.type === 'date' ? value.day : NaN);

const DATE = declared(
  'DATE',
  [
    { name: 'year', takes: 'number' },
    { name: 'month', takes: 'number' },
    { name: 'day', takes: 'number' },
  ],
  'A date from a year, a month and a day; a thirteenth month is the next January.',
  'DATE(2026, 11, 30)',
  DATE_TYPE,
  (args) => {
    const [year, month, day] = args.map((value) => wholeNumber(value, 0, 'A part of a date', 100_000));
    if (typeof year !== 'number') return year!;
    if (typeof month !== 'number') return month!;
    if (typeof day !== 'number') return day!;
    if (year < 1000 || year > 9999) return error('The year of a date has four digits.');
    return boundedDay(dayFrom(year, month, day));
  },
);

const TODAY = declared('TODAY', [], 'The day the document is issued.', 'TODAY()', DATE_TYPE, (_, { today }) =>
  today === undefined ? error('The document has no issue date.') : { type: 'date', day: today },
);

const YEAR = part('YEAR', 'The year of a date.', ({ year }) => year);
const MONTH = part('MONTH', 'The month of a date, 1 to 12.', ({ month }) => month);
const DAY = part('DAY', 'The day of the month of a date.', ({ date }) => date);

function part(name: string, help: string, take: (parts: ReturnType<typeof partsOf>) => number): FormulaFunction {
  return declared(name, [DAY_OF], help, `${name}(DATE(2026, 11, 30))`, NUMBER, ([day]) =>
    number(take(partsOf(dayIn(day)))),
  );
}

const WEEKDAY = declared(
  'WEEKDAY',
  [DAY_OF, { name: 'kind', takes: 'number', optional: true }],
  'The day of the week: 1 for Sunday to 7; with kind 2, 1 for Monday; with kind 3, 0 for Monday.',
  'WEEKDAY(DATE(2026, 11, 30), 2)',
  NUMBER,
  ([day, kind]) => {
    const type = wholeNumber(kind, 1, 'The kind', 3);
    if (typeof type !== 'number') return type;
    const fromMonday = weekdayOf(dayIn(day));
    switch (type) {
      case 1:
        return number(((fromMonday + 1) % 7) + 1);
      case 2:
        return number(fromMonday + 1);
      case 3:
        return number(fromMonday);
      default:
        return error('The kind of WEEKDAY is 1, 2 or 3.');
    }
  },
);

const ISOWEEKNUM = declared(
  'ISOWEEKNUM',
  [DAY_OF],
  'The week of the year by ISO 8601.',
  'ISOWEEKNUM(DATE(2027, 1, 1))',
  NUMBER,
  ([day]) => {
    const thursday = dayIn(day) - weekdayOf(dayIn(day)) + 3;
    return number(Math.floor((thursday - dayFrom(partsOf(thursday).year, 1, 1)) / 7) + 1);
  },
);

const MONTHS: Parameter = { name: 'months', takes: 'number' };

const EDATE = declared(
  'EDATE',
  [DAY_OF, MONTHS],
  'The same day some months on, or the last day of that month where it has no such day.',
  'EDATE(DATE(2027, 1, 31), 1)',
  DATE_TYPE,
  ([day, months]) => {
    const count = wholeNumber(months, 0, 'The number of months', MOST_MONTHS);
    return typeof count === 'number' ? boundedDay(addMonths(dayIn(day), count)) : count;
  },
);

const EOMONTH = declared(
  'EOMONTH',
  [DAY_OF, MONTHS],
  'The last day of the month some months on; 0 is the end of the same month.',
  'EOMONTH(DATE(2026, 11, 10), 0)',
  DATE_TYPE,
  ([day, months]) => {
    const count = wholeNumber(months, 0, 'The number of months', MOST_MONTHS);
    if (typeof count !== 'number') return count;
    const { year, month } = partsOf(dayIn(day));
    return boundedDay(dayFrom(year, month + count + 1, 0));
  },
);

const DAYS = declared(
  'DAYS',
  [
    { name: 'end', takes: 'date' },
    { name: 'start', takes: 'date' },
  ],
  'How many days lie between two dates.',
  'DAYS(DATE(2026, 12, 25), DATE(2026, 11, 30))',
  NUMBER,
  ([end, start]) => number(dayIn(end) - dayIn(start)),
);

const WORKDAY = declared(
  'WORKDAY',
  [DAY_OF, { name: 'days', takes: 'number' }, HOLIDAYS],
  'The date some working days on (or back). Saturdays, Sundays and the holidays given do not count.',
  'WORKDAY(DATE(2026, 12, 23), 3, tables.holidays.date)',
  DATE_TYPE,
  ([start, days, holidays]) => {
    const count = wholeNumber(days, 0, 'The number of working days', FURTHEST_WORKDAY);
    if (typeof count !== 'number') return count;
    const free = holidaysOf(holidays);
    if (!(free instanceof Set)) return free;
    const step = Math.sign(count);
    let day = dayIn(start);
    for (let left = Math.abs(count); left > 0;) {
      day += step;
      if (weekdayOf(day) < 5 && !free.has(day)) left--;
    }
    return boundedDay(day);
  },
);

const NETWORKDAYS = declared(
  'NETWORKDAYS',
  [{ name: 'start', takes: 'date' }, { name: 'end', takes: 'date' }, HOLIDAYS],
  'How many working days there are from one date to another, both counted.',
  'NETWORKDAYS(DATE(2026, 12, 21), DATE(2027, 1, 1), tables.holidays.date)',
  NUMBER,
  ([start, end, holidays]) => {
    const free = holidaysOf(holidays);
    if (!(free instanceof Set)) return free;
    const [first, last] = [dayIn(start), dayIn(end)].sort((a, b) => a - b) as [number, number];
    const outside = [...free].filter((day) => day >= first && day <= last && weekdayOf(day) < 5).length;
    const count = weekdaysUpTo(last) - weekdaysUpTo(first - 1) - outside;
    return number(dayIn(end) < dayIn(start) ? -count : count);
  },
);

/** Mondays to Fridays from the Monday before 1970 up to a day; differences of two such counts are what matters. */
function weekdaysUpTo(day: number): number {
  const weeks = Math.floor((day + 3) / 7);
  return weeks * 5 + Math.min(weekdayOf(day) + 1, 5);
}

function holidaysOf(value: Value | undefined): Set<number> | Value {
  const days = new Set<number>();
  for (const item of value ? flatten([value]) : []) {
    if (item.type === 'error') return item;
    if (item.type === 'blank') return blankError(item);
    if (item.type !== 'date') return error(`The holidays are a list of dates, not of ${typeWords(item)}s.`);
    days.add(item.day);
  }
  return days;
}

export const DATES = [DATE, TODAY, YEAR, MONTH, DAY, WEEKDAY, ISOWEEKNUM, EDATE, EOMONTH, DAYS, WORKDAY, NETWORKDAYS];
