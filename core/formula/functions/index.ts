import type { Expression } from '../ast';
import { error, type Value } from '../value';
import { ARITHMETIC } from './arithmetic';
import { CHOICES } from './choices';
import { DATES } from './dates';
import { arity, type CallContext, type FormulaFunction } from './function';
import { LISTS } from './lists';
import { SUMS } from './sums';
import { TEXTS } from './texts';
import { TRADE } from './trade';

export { asCondition } from './condition';

/** Every function, family by family. */
export const DECLARED: readonly FormulaFunction[] = [SUMS, ARITHMETIC, CHOICES, TEXTS, DATES, LISTS, TRADE].flat();

/** Every function by its name in capitals. */
export const FUNCTIONS: ReadonlyMap<string, FormulaFunction> = new Map(DECLARED.map((each) => [each.name, each]));

/** Calls a function; a wrong name or number of arguments is an error value that says what to do. */
export function callFunction(name: string, args: readonly Expression[], context: CallContext): Value {
  const called = FUNCTIONS.get(name);
  if (!called) return error(`There is no function ${name}.`);
  const refused = refuseCount(called, args.length);
  if (refused) return error(refused);
  return called.evaluate(
    args.map((argument) => context.argument(argument)),
    context,
  );
}

/** What is wrong with the number of arguments, in a sentence; undefined if nothing is. */
export function refuseCount(called: FormulaFunction, count: number): string | undefined {
  const { least, most, step } = arity(called);
  const fits = count >= least && count <= most && (count - least) % step === 0;
  return fits ? undefined : `${called.name} takes (${signatureOf(called)}); it was given ${count}.`;
}

/** The parameters as people read them: `value, digits?`, `condition, value, …`. */
export function signatureOf({ parameters }: FormulaFunction): string {
  const names = parameters.map(({ name, optional }) => (optional ? `${name}?` : name));
  return parameters.some(({ repeats }) => repeats) ? `${names.join(', ')}, …` : names.join(', ');
}
