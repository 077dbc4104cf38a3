import type { Act } from '../../demo/history';

const DAY = 86_400_000;
const HOUR = 3_600_000;
const MINUTE = 60_000;
/** People begin at nine. The first act of a day is at some time of its first hours, the next ones are so far from each other. */
const NINE = 9 * HOUR;
const FIRST_HOURS = 4 * 60;
const APART = 23 * MINUTE;

/** What the keys of filings of the history begin with. */
export const HISTORY = 'history-';

/** An act at its time, with a key that names it whenever the history is written. */
export interface Timed {
  act: Act;
  at: Date;
  key: string;
}

/**
 * When each act is, in the order in which they are: on working days after the record was created and before today, within working
 * hours. Acts of one record keep their order.
 */
export function timesOf(acts: readonly Act[], today: Date): Timed[] {
  const now = Math.floor(today.getTime() / DAY);
  const before = (act: Act, index: number) => acts.slice(0, index).filter(({ record }) => record === act.record).length;
  const timed = acts.map((act, index) => ({
    act,
    key: `${HISTORY}${act.record}-${before(act, index)}`,
    day: dayOf(act, now),
  }));
  timed.sort((one, other) => one.day - other.day);
  let day = -1;
  let nth = 0;
  return timed.map(({ act, key, day: its }) => {
    nth = its === day ? nth + 1 : 0;
    day = its;
    const first = ((its * 97) % FIRST_HOURS) * MINUTE;
    return { act, key, at: new Date(its * DAY + NINE + first + nth * APART) };
  });
}

/** The day of an act, counted from 1970: a Friday for a Saturday or Sunday, and yesterday at the latest. */
function dayOf({ since, share }: Act, now: number): number {
  const first = Math.min(Math.floor(Date.parse(since) / DAY), now - 1);
  const day = Math.min(first + Math.round(share * (now - first)), now - 1);
  const weekday = (day + 4) % 7;
  const working = weekday === 6 ? day - 1 : weekday === 0 ? day - 2 : day;
  return Math.max(first, working);
}
