import fc from 'fast-check';
import { jsonSchemaOf, namedSchemas } from '../core/shape/json-schema';
import type { ISchema } from 'yup';

type Json = Readonly<Record<string, unknown>>;

/** How deep parts stand within parts. */
const DEEPEST = 9;

/** Anything that a shape takes, made from its JSON Schema: small, and not much nested. */
export function arbitraryOf(shape: ISchema<unknown>): fc.Arbitrary<unknown> {
  const named = namedSchemas();
  return of(jsonSchemaOf(shape), 0);

  function of(schema: Json, depth: number): fc.Arbitrary<unknown> {
    if (typeof schema.$ref === 'string') return of(named[schema.$ref.split('/').at(-1)!]!, depth + 1);
    const choices = (schema.oneOf ?? schema.anyOf) as Json[] | undefined;
    // Branches that are not looked into are not made: some hold themselves.
    if (choices) return fc.nat({ max: choices.length - 1 }).chain((at) => of(choices[at]!, depth));
    if (schema.enum) return fc.constantFrom(...(schema.enum as unknown[]));
    switch (schema.type) {
      case 'object':
        return objectOf(schema, depth);
      case 'array':
        return listOf(schema, depth);
      case 'string':
        return textOf(schema);
      case 'boolean':
        return fc.boolean();
      default:
        return numberOf(schema);
    }
  }

  function objectOf({ properties, additionalProperties, required = [] }: Json, depth: number): fc.Arbitrary<unknown> {
    if (!properties)
      return fc.dictionary(fc.stringMatching(/^[a-z]{1,5}$/), of(additionalProperties as Json, depth), { maxKeys: 2 });
    const entries = Object.entries(properties as Record<string, Json>);
    // Yup takes no empty text where one has to be.
    const whole = (name: string, each: Json): Json =>
      each.type === 'string' && (required as string[]).includes(name) ? { minLength: 1, ...each } : each;
    return fc.record(Object.fromEntries(entries.map(([name, each]) => [name, of(whole(name, each), depth + 1)])), {
      requiredKeys: required as string[],
    });
  }

  function listOf({ items, minItems = 0 }: Json, depth: number): fc.Arbitrary<unknown> {
    const least = minItems as number;
    if (depth > DEEPEST && least === 0) return fc.constant([]);
    return fc.nat({ max: 2 }).chain((more) => {
      const count = Math.max(least, more);
      return fc.tuple(...Array.from({ length: count }, () => of(items as Json, depth + 1)));
    });
  }
}

function textOf({ pattern, minLength = 0, maxLength = 20 }: Json): fc.Arbitrary<string> {
  // What is matched by a long pattern is not made from it.
  if (typeof pattern === 'string' && pattern.includes('mailto'))
    return fc.constantFrom('https://example.com/a', 'mailto:a@example.com', 'tel:+44123');
  if (typeof pattern === 'string') return fc.stringMatching(new RegExp(pattern));
  const most = Math.min(maxLength as number, 20);
  return fc
    .string({ minLength: minLength as number, maxLength: most, unit: 'grapheme-ascii' })
    .map((text) => (minLength ? text.trim() || 'x' : text));
}

function numberOf({ type, minimum = 0, maximum = 1_000 }: Json): fc.Arbitrary<number> {
  const range = { min: minimum as number, max: maximum as number };
  return type === 'integer' ? fc.integer(range) : fc.double({ ...range, noNaN: true }).map((number) => number + 0);
}
