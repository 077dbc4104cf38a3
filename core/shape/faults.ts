import { ValidationError } from 'yup';
import { outOfBounds, type Bounds } from './bounds';
import { jsonSchemaOf, namedSchemas } from './json-schema';
import type { ShapeOf } from './shape';

/** Something wrong in data from outside: where, for people and as a path in the JSON; and what is to be done. */
export interface Fault {
  /** `layout.body[3].attrs.columns[0].align` */
  path: string;
  sentence: string;
}

/** Faults as they are told: the first of them, and how many there are. */
export interface FaultReport {
  count: number;
  faults: Fault[];
}

/** Faults that are told with their places; more than these are only counted. */
export const MOST_TOLD = 100;

/** Faults as they are told; `count` where more were found than are here. */
export const reportOf = (faults: readonly Fault[], count = faults.length): FaultReport => ({
  count,
  faults: faults.slice(0, MOST_TOLD),
});

/** Data that has its shape, or every fault of it. */
type Checked<T> = { value: T } | { faults: Fault[] };

/**
 * Data of a file that has its shape, or every fault of it with its place, which `whole` calls where nothing inside is named. What
 * stands there is quoted, shortened, so that whoever wrote the file finds it.
 */
export function shaped<T>(shape: ShapeOf<T>, data: unknown, whole: string): Checked<T> {
  return checked(shape, data, (problem) => faultsOfProblem(problem, { whole, data, quote: quoted }));
}

/** The same for a request, whose answer repeats nothing of what was sent. */
export function shapedQuietly<T>(shape: ShapeOf<T>, data: unknown, whole: string): Checked<T> {
  return checked(shape, data, (problem) => faultsOfProblem(problem, { whole, names: namesOf(shape) }));
}

function checked<T>(shape: ShapeOf<T>, data: unknown, told: (problem: ValidationError) => Fault[]): Checked<T> {
  try {
    return { value: shape.validateSync(data, { strict: true, abortEarly: false, disableStackTrace: true }) };
  } catch (problem) {
    if (!(problem instanceof ValidationError)) throw problem;
    return { faults: told(problem) };
  }
}

/** The names that a shape has anywhere: a place in a request is told by these and no others. */
function namesOf(shape: ShapeOf<unknown>): ReadonlySet<string> {
  const kept = knownNames.get(shape);
  if (kept) return kept;
  const names = new Set<string>();
  JSON.stringify([jsonSchemaOf(shape), namedSchemas()], (key, value: unknown) => {
    if (key === 'properties') for (const name of Object.keys(Object(value))) names.add(name);
    return value;
  });
  knownNames.set(shape, names);
  return names;
}
const knownNames = new WeakMap<object, ReadonlySet<string>>();

/** A path as far as it leads by known names. */
function knownPart(path: string, names: ReadonlySet<string>): string {
  const steps = path.match(/[^.[\]]+|\[\d+\]/g) ?? [];
  const end = steps.findIndex((step) => !step.startsWith('[') && !names.has(step));
  const known = end === -1 ? steps : steps.slice(0, end);
  return known.map((step, at) => (at === 0 || step.startsWith('[') ? step : `.${step}`)).join('');
}

/** What an address may hold, in all. */
const TEXTS: Bounds = { values: 1_000, objects: 1_000, depth: 2, items: 100, text: 25_000, name: 200 };

/** Texts by their names, as an address has them, read as what their shape says; nothing that the shape has no name for. */
export function shapedFromTexts<T>(shape: ShapeOf<T>, texts: object, whole: string): Checked<T> {
  const refused = outOfBounds(texts, TEXTS);
  if (refused !== undefined) return { faults: [{ path: '', sentence: `${upperFirst(whole)} ${refused}` }] };
  const known = Object.keys(Object(Object(shape).fields) as object);
  if (Object.keys(texts).some((name) => !known.includes(name))) {
    const among = known.length > 0 ? `one of ${known.join(', ')}` : 'nothing';
    return { faults: [{ path: '', sentence: `In the address of ${whole}: what is asked for can be ${among}.` }] };
  }
  try {
    return { value: shape.validateSync(texts, { abortEarly: false, disableStackTrace: true }) };
  } catch (problem) {
    if (!(problem instanceof ValidationError)) throw problem;
    return { faults: faultsOfProblem(problem, { whole, names: namesOf(shape) }) };
  }
}

const upperFirst = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** How faults are told: what the whole is called; the data that names what is inside; how what stands there is quoted, if it is. */
interface Telling {
  whole: string;
  data?: unknown;
  quote?: (value: unknown) => string;
  /** Where they are given, places are told by these names alone. */
  names?: ReadonlySet<string>;
}

/** The faults that a check by a shape found. */
function faultsOfProblem(problem: ValidationError, telling: Telling): Fault[] {
  const all = problem.inner.length > 0 ? problem.inner : [problem];
  // One reason for each place is enough.
  const first = [...new Map([...all].reverse().map((each) => [each.path, each])).values()].reverse();
  return first.map((each) => faultOf(each, telling));
}

/** Data that must have its shape: what Lumbix wrote or ships itself. @throws Error with every fault */
export function fitting<T>(shape: ShapeOf<T>, data: unknown, whole: string): T {
  const read = shaped(shape, data, whole);
  if ('value' in read) return read.value;
  throw new Error(`This cannot be read: ${read.faults.map(({ sentence }) => sentence).join(' ')}`);
}

function faultOf(problem: ValidationError, { whole, data, quote, names }: Telling): Fault {
  const path = names ? knownPart(problem.path ?? '', names) : (problem.path ?? '');
  return { path, sentence: `${placeIn(data, path, whole)}: ${reasonOf(problem, quote)}` };
}

/** What is wrong with one value, by the kind of rule it breaks. */
function reasonOf(
  { type, message, params = {}, value: whole }: ValidationError & { value?: unknown },
  quote: Telling['quote'],
): string {
  const { originalValue, value = whole } = params as { originalValue?: unknown; value?: unknown };
  // As it was given, before a number was read from it.
  const given = quote?.(type === 'typeError' ? (originalValue ?? value) : value);
  const but = given === undefined ? '' : `${given} stands here, but `;
  const it = given ?? 'this';
  switch (type) {
    case 'optionality':
    case 'required':
    case 'nullable':
      return 'this is missing.';
    case 'oneOf':
      return `${but}this is one of ${String(params.values)}.`;
    case 'noUnknown':
      return quote
        ? `there is no property ${shortened(String(params.unknown))} here; look at how it is written.`
        : 'there is a property here that is not known; look at how it is written.';
    case 'typeError':
      return `${but}${TYPE_WORDS[String(params.type)] ?? `a ${String(params.type)}`} belongs here.`;
    case 'matches':
      return `${but}this takes ${message}.`;
    case 'trim':
      return `${but}this takes a text with ${message}.`;
    case 'integer':
      return `${but}a whole number belongs here.`;
    case 'min':
      if (typeof value === 'number') return `${it} is less than ${String(params.min)}.`;
      return params.min === 1
        ? 'this is empty; at least one belongs here.'
        : `${it} is shorter than ${String(params.min)} characters.`;
    case 'max':
      return tooMuch(value, Number(params.max), it);
    default:
      return `${it} does not belong here.`;
  }
}

const TYPE_WORDS: Readonly<Record<string, string>> = {
  array: 'a list',
  object: 'an object',
  string: 'a text',
  boolean: 'true or false',
};

function tooMuch(value: unknown, most: number, given: string): string {
  const limit = most.toLocaleString('en');
  if (typeof value === 'string') return `the text is longer than ${limit} characters.`;
  return Array.isArray(value)
    ? `there are ${value.length.toLocaleString('en')} here, and ${limit} may be.`
    : `${given} is more than ${limit}.`;
}

const quoted = (value: unknown) =>
  typeof value === 'string' ? `“${shortened(value)}”` : shortened(JSON.stringify(value) ?? '');
const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 59)}…` : text);

/** A path in words, by the names of what it leads through: "In the lineTable “lines”, “net”, align". */
function placeIn(data: unknown, path: string, whole: string): string {
  const steps = path.match(/[^.[\]"]+/g) ?? [];
  const words: string[] = [];
  let at = data;
  for (const step of steps) {
    at = (at as Record<string, unknown> | undefined)?.[step];
    const { type, id, label, name, attrs } = Object(at) as Record<string, unknown>;
    const called = (Object(attrs) as Record<string, unknown>).id ?? id ?? name ?? label;
    if (typeof called !== 'string' || !/^\d+$/.test(step)) continue;
    const kind = typeof type === 'string' && attrs !== undefined ? `the ${shortened(type)} ` : '';
    words.push(`${kind}“${shortened(called)}”`);
  }
  const last = steps.at(-1);
  const inside = words.length > 0 ? `In ${words.join(', ')}` : `In ${whole}`;
  return last && /^\D/.test(last) ? `${inside}, ${last}` : inside;
}
