import { LRUCache } from 'lru-cache';
import { Checker, type CheckContext } from './check';

/** The last checkers, by what they check against. Each is used so many times, since it forgets nothing that it checked. */
const checkers = new LRUCache<string, { checker: Checker; left: number }>({ max: 20 });
const USES = 200;

/**
 * A checker with what it found of every formula before, where it checked against the same: whoever types in a template changes few of its
 * formulas.
 */
export function checkerFor(context: CheckContext): Checker {
  const { schema, ...others } = context;
  const name = JSON.stringify(others);
  const known = checkers.get(name);
  if (known && known.left-- > 0 && known.checker.context.schema === schema) return known.checker;
  const checker = new Checker(context);
  checkers.set(name, { checker, left: USES });
  return checker;
}
