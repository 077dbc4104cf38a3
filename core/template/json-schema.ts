import type {
  SchemaDescription,
  SchemaFieldDescription,
  SchemaInnerTypeDescription,
  SchemaObjectDescription,
} from 'yup';
import { NAMED_SHAPES, templateShape, UNIONS } from './shape';

type Json = Record<string, unknown>;

/** The template file's shape as a JSON Schema (draft 2020-12), made from the shape that imports are checked with. */
export function templateJsonSchema(): Json {
  const unions = [...UNIONS].map(([name, shapes]): [string, Json] => [name, { oneOf: Object.values(shapes).map((each) => described(each.describe())) }]); // prettier-ignore
  const named = Object.entries(NAMED_SHAPES).map(([name, shapes]): [string, Json] => [name, { anyOf: shapes.map((each) => described(each.describe())) }]); // prettier-ignore
  const { properties, ...rest } = described(templateShape.describe()) as { properties: Json };
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Lumbix template',
    description: 'A template as it is taken out of Lumbix and put back in. Formulas are described in docs/formulas.md.',
    ...rest,
    properties,
    $defs: Object.fromEntries([...unions, ...named]),
  };
}

function described(field: SchemaFieldDescription): Json {
  const meta = ('meta' in field ? field.meta : undefined) as { ref?: string; map?: { describe(): SchemaFieldDescription } } | undefined; // prettier-ignore
  if (meta?.map) return { type: 'object', additionalProperties: described(meta.map.describe()) };
  if (meta?.ref) return { $ref: `#/$defs/${meta.ref}` };
  const description = field as SchemaDescription;
  switch (field.type) {
    case 'object':
      return objectOf(field as SchemaObjectDescription);
    case 'array': {
      const { innerType } = field as SchemaInnerTypeDescription;
      return { type: 'array', ...limits(description, 'Items'), ...(innerType && !Array.isArray(innerType) && { items: described(innerType) }) }; // prettier-ignore
    }
    case 'string':
      return { type: 'string', ...choices(description), ...limits(description, 'Length'), ...pattern(description) };
    case 'number':
      return { type: whole(description) ? 'integer' : 'number', ...choices(description), ...bounds(description) };
    case 'boolean':
      return { type: 'boolean' };
    default:
      return {};
  }
}

function objectOf({ fields }: SchemaObjectDescription): Json {
  const entries = Object.entries(fields);
  const required = entries.flatMap(([name, field]) => ('optional' in field && field.optional === false ? [name] : []));
  return {
    type: 'object',
    properties: Object.fromEntries(entries.map(([name, field]) => [name, described(field)])),
    ...(required.length > 0 && { required }),
    additionalProperties: false,
  };
}

const parameter = ({ tests }: SchemaDescription, name: string, key: string): unknown => tests.find((test) => test.name === name)?.params?.[key]; // prettier-ignore
const present = (values: Json): Json => Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)); // prettier-ignore
const whole = ({ tests }: SchemaDescription): boolean => tests.some(({ name }) => name === 'integer');
const choices = ({ oneOf }: SchemaDescription): Json => (oneOf.length > 0 ? { enum: oneOf } : {});
const limits = (field: SchemaDescription, what: 'Length' | 'Items'): Json => present({ [`min${what}`]: parameter(field, 'min', 'min'), [`max${what}`]: parameter(field, 'max', 'max') }); // prettier-ignore
const bounds = (field: SchemaDescription): Json => present({ minimum: parameter(field, 'min', 'min'), maximum: parameter(field, 'max', 'max') }); // prettier-ignore

function pattern(field: SchemaDescription): Json {
  const regex = parameter(field, 'matches', 'regex');
  return regex instanceof RegExp ? { pattern: regex.source } : {};
}
