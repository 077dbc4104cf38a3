/** What is known of a record without reading all of it. */
interface Glance {
  /** Its parts and what it is found by; empty or undefined where it is blank. */
  texts: readonly (string | undefined)[];
  /** A decimal number; null where it is blank. */
  amount: string | null;
  day: string | null;
}

/** From this many characters on a text is likely to break a line that others fit into. */
const LONG = 40;
/** From this on an amount is wider than columns usually are. */
const LARGE = 1_000_000;

/**
 * How likely a record is to show what a template did not think of, from 0 for an ordinary one: by what is blank in it, by amounts
 * that are none, negative or very large, by long texts and by letters of other scripts.
 */
export function awkwardness({ texts, amount, day }: Glance): number {
  const blanks = [...texts, amount, day].filter((part) => part === undefined || part === null || part === '').length;
  const sum = Number(amount ?? 1);
  const all = texts.join(' ');
  return (
    2 * blanks +
    (sum <= 0 ? 3 : 0) +
    (sum >= LARGE ? 2 : 0) +
    2 * texts.filter((text) => (text?.length ?? 0) >= LONG).length +
    (/(?!\p{Script=Latin})\p{L}/u.test(all) ? 3 : 0) +
    (/(?![a-z])\p{Script=Latin}/iu.test(all) ? 1 : 0)
  );
}
