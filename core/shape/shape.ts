/**
 * Pieces that shapes are made of. A shape says once what data may look like: from it come the TypeScript type
 * (`InferType`), the check of a file or a request (`faults.ts`) and the JSON Schema (`json-schema.ts`).
 */
import {
  array,
  boolean,
  lazy,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type Flags,
  type InferType,
  type ISchema,
  type Lazy,
  type ObjectShape,
  type Schema,
} from 'yup';
import { LRUCache } from 'lru-cache';

export { boolean, number, type InferType };

/** A shape of values of this type. */
export type ShapeOf<T> = Schema<T, AnyObject, unknown, Exclude<Flags, 's'>>;

/** A text of so many characters at most. Bytes that no text has (NUL, halves of surrogate pairs) are refused before, in `bounds.ts`. */
export const text = (longest: number) => string().max(longest);

/** One of a few words. */
export const oneOf = <const Words extends readonly string[]>(words: Words) => string().oneOf<Words[number]>(words);

/** A value whose form is said in a sentence alone. */
export const anything = <T>(about: string) => mixed().meta({ about }).defined() as unknown as ShapeOf<T>;

/** A UUID of any version (RFC 9562); Yup's own knows none later than 5. */
export const uuid = () =>
  string().matches(/^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i, 'an id as Lumbix gives them');

/** A SHA-256 in hexadecimal: the name of a file by its bytes. */
export const sha256Hex = () => string().matches(/^[0-9a-f]{64}$/, 'a SHA-256 in hexadecimal');

/** An object of these fields and no others; absent where it is not required. */
export const shape = <Fields extends ObjectShape>(fields: Fields) =>
  object(fields).noUnknown().default(undefined).optional();

/** A list of at most so many. */
export const listOf = <T>(of: ISchema<T>, most: number) => array().of(of).max(most);

/** An object with entries of one shape, whatever their names; absent where it is not required. */
export const mapOf = <T>(of: ISchema<T>) => mapLike(of, false) as Lazy<Readonly<Record<string, T>> | undefined>;
export const requiredMapOf = <T>(of: ISchema<T>) => mapLike(of, true) as Lazy<Readonly<Record<string, T>>>;

const mapLike = (of: ISchema<unknown>, required: boolean) =>
  lazy((value: unknown) => {
    if (value === undefined) return required ? mixed().required() : mixed().optional();
    return object(Object.fromEntries(Object.keys(Object(value)).map((key) => [key, of])));
  }).meta({ map: of, required });

/** Texts by a key, however many: checked as a whole, without a shape for each. */
export const texts = () =>
  mixed()
    .required()
    .test('texts', (all) => isPlain(all) && Object.values(all).every((each) => typeof each === 'string'))
    .meta({ map: string(), required: true }) as unknown as ShapeOf<Readonly<Record<string, string>>>;

const isPlain = (value: unknown): value is object =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** A name for people. */
export const label = () => text(120).trim('no blanks at its ends').min(1).required();

/** What things are called in files and addresses. */
export const id = () =>
  string()
    .matches(/^[\w.-]{1,120}$/, 'up to 120 letters, digits, “.”, “-” and “_”')
    .required();

/** What a value is called in formulas, without backquotes. */
export const formulaName = () =>
  string()
    .matches(/^[A-Za-z_][A-Za-z_0-9]{0,79}$/, 'up to 80 letters, digits and “_”, a letter first')
    .required();

/** A formula. Whether it can be read, and what it gives, is asked by the gate. */
export const formula = () => text(20_000);

/** Text with `=[formula]` placeholders; may be empty. */
export const placeholders = () => text(20_000).defined();

/** A length in points. */
export const points = () => number().min(0).max(2_000);

/** The named shapes, each looked up when it is asked for: by then all of them are there. */
export const NAMES: Readonly<Record<string, readonly ISchema<unknown>[]>> = {};

/**
 * One of several shapes, chosen by the word in their `type`. What was looked at before is not looked at again: a template comes at each
 * letter that is typed, and one of its blocks is another one then.
 */
export function byType<T>(name: string, shapes: () => Readonly<Record<string, ShapeOf<T>>>): Lazy<T> {
  const known = lazily(shapes);
  const shapeFor = (value: unknown): ISchema<unknown> => {
    const { type } = Object(value) as { type?: unknown };
    const all = known();
    return typeof type === 'string' && Object.hasOwn(all, type) ? all[type]! : unknownType(Object.keys(all));
  };
  const fits = remembered((value) => (shapeFor(value) as Schema).isValidSync(value, { strict: true }));
  return named(
    name,
    () => Object.values(known()),
    (value) => (fits(value) ? FITTING : shapeFor(value)),
  );
}

/** For what is known to have its shape. */
const FITTING = mixed();
/** How many letters of data each kind of shape remembers. */
const MOST_REMEMBERED = 4_000_000;

/** A check of JSON data that answers at once what it was asked before, right or wrong. */
function remembered(check: (value: unknown) => boolean): (value: unknown) => boolean {
  const answers = new LRUCache<string, boolean>({
    maxSize: MOST_REMEMBERED,
    sizeCalculation: (_, { length }) => length + 1,
  });
  return (value) => {
    const data = JSON.stringify(value) ?? '';
    const known = answers.get(data);
    if (known !== undefined) return known;
    const answer = check(value);
    answers.set(data, answer);
    return answer;
  };
}

/** One of two shapes, the first where a value is of its kind. */
export function either<A, B>(isFirst: (value: unknown) => boolean, first: ISchema<A>, second: ISchema<B>): Lazy<A | B> {
  return lazy((value: unknown) => (isFirst(value) ? first : second)).meta({
    anyOf: [first, second],
    required: true,
  }) as Lazy<A | B>;
}

const unknownType = (types: readonly string[]) => shape({ type: oneOf(types).required() }).required();

function named<T>(
  name: string,
  all: () => readonly ISchema<unknown>[],
  choose: (value: unknown) => ISchema<unknown>,
): Lazy<T> {
  Object.defineProperty(NAMES, name, { enumerable: true, configurable: true, get: all });
  return lazy(choose).meta({ ref: name }) as Lazy<T>;
}

function lazily<T>(make: () => T): () => T {
  let made: { value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}
