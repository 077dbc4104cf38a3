import { areEqual } from '../operators';
import { BOOLEAN, commonType, UNKNOWN, type Type } from '../type';
import { asCondition } from './condition';
import { blankError, boolean, error, formatValue, type Value } from '../value';
import { eager, lazy, type Argument, type FormulaFunction, type Parameter } from './function';
import { wholeNumber } from './arithmetic';

const ANY: Omit<Parameter, 'name'> = { takes: 'value', mayBeBlank: true };
const CONDITIONS: Parameter = { name: 'conditions', takes: 'condition', repeats: true };

/** The type that covers all of these. */
const covering = (types: readonly Type[]): Type =>
  types.reduce<Type>((one, other) => commonType(one, other) ?? UNKNOWN, types[0] ?? UNKNOWN);

const IF = lazy(
  {
    name: 'IF',
    family: 'Choices',
    parameters: [
      { name: 'condition', takes: 'condition' },
      { name: 'then', ...ANY },
      { name: 'otherwise', ...ANY, optional: true },
    ],
    help: 'One value when the condition holds, another when it does not. Only the chosen one is computed.',
    example: 'IF(deal.account.country = "NL", "btw", "VAT")',
    result: (args) => covering(args.slice(1)),
  },
  ([condition, then, otherwise]) => {
    const holds = asCondition(condition!.value());
    if (typeof holds !== 'boolean') return holds;
    if (holds) return then!.value();
    return otherwise ? otherwise.value() : boolean(false);
  },
);

const IFS = lazy(
  {
    name: 'IFS',
    family: 'Choices',
    parameters: [
      { name: 'condition', takes: 'condition', repeats: true },
      { name: 'value', ...ANY, repeats: true },
    ],
    help: 'The value of the first condition that holds. End with `true` and a value for all other cases.',
    example: 'IFS(deal.amount > 50000, "large", deal.amount > 5000, "middling", true, "small")',
    result: (args) => covering(args.filter((_, position) => position % 2 === 1)),
  },
  (args) => {
    for (let at = 0; at + 1 < args.length; at += 2) {
      const holds = asCondition(args[at]!.value());
      if (typeof holds !== 'boolean') return holds;
      if (holds) return args[at + 1]!.value();
    }
    return error('None of the conditions of IFS holds; end it with true and a value.');
  },
);

const SWITCH = lazy(
  {
    name: 'SWITCH',
    family: 'Choices',
    parameters: [
      { name: 'value', ...ANY },
      { name: 'case', ...ANY, repeats: true },
      { name: 'result', ...ANY, repeats: true },
    ],
    help: 'Compares a value with one case after another and gives the result of the first that is equal; a last single value is for all others.',
    example: 'SWITCH(deal.heating, "pipe", "rail pipe", "air", "warm air", "no heating")',
    endsSingle: true,
    result: (args) =>
      covering(args.slice(1).filter((_, at, rest) => at % 2 === 1 || (at === rest.length - 1 && at % 2 === 0))),
  },
  ([subject, ...rest]) => {
    const value = subject!.value();
    if (value.type === 'error') return value;
    let at = 0;
    for (; at + 1 < rest.length; at += 2) {
      const matches = matchesCase(value, rest[at]!);
      if (typeof matches !== 'boolean') return matches;
      if (matches) return rest[at + 1]!.value();
    }
    if (at < rest.length) return rest[at]!.value();
    if (value.type === 'blank') return blankError(value);
    return error(`None of the cases of SWITCH is “${formatValue(value, 'en')}”; add a last value for all others.`);
  },
);

function matchesCase(value: Value, other: Argument): boolean | Value {
  const candidate = other.value();
  return candidate.type === 'error' ? candidate : areEqual(value, candidate);
}

const CHOOSE = lazy(
  {
    name: 'CHOOSE',
    family: 'Choices',
    parameters: [
      { name: 'position', takes: 'number' },
      { name: 'values', ...ANY, repeats: true },
    ],
    help: 'The value at a position, counted from 1.',
    example: 'CHOOSE(2, "low", "middle", "high")',
    result: (args) => covering(args.slice(1)),
  },
  ([position, ...values]) => {
    const given = position!.value();
    if (given.type === 'error') return given;
    if (given.type === 'blank') return blankError(given);
    const at = wholeNumber(given, 1, 'The position', 1_000);
    if (typeof at !== 'number') return at;
    return values[at - 1]?.value() ?? error(`CHOOSE has ${values.length} values and no position ${at}.`);
  },
);

const AND = logical('AND', 'Whether all conditions hold.', 'AND(1 < 2, 2 < 3)', (holds, all) => holds && all, false);
const OR = logical(
  'OR',
  'Whether one of the conditions holds.',
  'OR(1 > 2, 2 < 3)',
  (holds, all) => holds || all,
  true,
);
const XOR = logical(
  'XOR',
  'Whether an odd number of the conditions holds.',
  'XOR(true, false)',
  (holds, all) => holds !== all,
);

/** AND, OR, XOR; `decided` is the outcome after which nothing more needs to be looked at. */
function logical(
  name: string,
  help: string,
  example: string,
  combine: (holds: boolean, all: boolean) => boolean,
  decided?: boolean,
): FormulaFunction {
  const declaration = { name, family: 'Choices' as const, parameters: [CONDITIONS], help, example, result: BOOLEAN };
  return lazy(declaration, (args) => {
    let all: boolean | undefined;
    for (const argument of args) {
      const holds = asCondition(argument.value());
      if (typeof holds !== 'boolean') return holds;
      all = all === undefined ? holds : combine(holds, all);
      if (all === decided) return boolean(all);
    }
    return boolean(all ?? false);
  });
}

const ISBLANK = eager(
  {
    name: 'ISBLANK',
    family: 'Choices',
    parameters: [{ name: 'value', ...ANY }],
    help: 'Whether a value is absent.',
    example: 'ISBLANK(deal.order_number)',
    result: BOOLEAN,
  },
  ([value]) => boolean(value!.type === 'blank'),
);

export const CHOICES = [IF, IFS, SWITCH, CHOOSE, AND, OR, XOR, ISBLANK];
