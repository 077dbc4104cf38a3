import type {
  ISchema,
  SchemaDescription,
  SchemaFieldDescription,
  SchemaInnerTypeDescription,
  SchemaObjectDescription,
} from 'yup';
import { NAMES } from './shape';

type Json = Record<string, unknown>;

/** A shape as a JSON Schema (draft 2020-12). */
export function jsonSchema(shape: ISchema<unknown>): Json {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    ...jsonSchemaOf(shape),
    $defs: namedSchemas(),
  };
}

/** The shapes that have a name of their own, by it. `place`: where other schemas find them. */
export function namedSchemas(place = DEFINITIONS): Record<string, Json> {
  const named = Object.entries(NAMES).map(([name, shapes]): [string, Json] => [
    name,
    { oneOf: shapes.map((shape) => jsonSchemaOf(shape, place)) },
  ]);
  return Object.fromEntries(named);
}

const DEFINITIONS = '#/$defs/';

/** The schema of one shape, which finds those with a name at `place`. */
export const jsonSchemaOf = (shape: ISchema<unknown>, place = DEFINITIONS): Json => described(shape.describe(), place);

function described(field: SchemaFieldDescription, place: string): Json {
  const { map, ref, anyOf, about, format } = (('meta' in field && field.meta) || {}) as {
    map?: ISchema<unknown>;
    ref?: string;
    anyOf?: ISchema<unknown>[];
    about?: string;
    format?: string;
  };
  if (map) return { type: 'object', additionalProperties: jsonSchemaOf(map, place) };
  if (anyOf) return { anyOf: anyOf.map((each) => jsonSchemaOf(each, place)) };
  if (ref) return { $ref: `${place}${ref}` };
  const schema = orNull(field, withoutMeta(field, place));
  return { ...schema, ...(about && { description: about }), ...(format && { format }) };
}

/** Where null may stand too, the schema says so. */
function orNull(field: SchemaFieldDescription, schema: Json): Json {
  return 'nullable' in field && field.nullable && typeof schema.type === 'string'
    ? { ...schema, type: [schema.type, 'null'] }
    : schema;
}

function withoutMeta(field: SchemaFieldDescription, place: string): Json {
  const description = field as SchemaDescription;
  switch (field.type) {
    case 'object':
      return objectOf(field as SchemaObjectDescription, place);
    case 'array': {
      const { innerType } = field as SchemaInnerTypeDescription;
      return {
        type: 'array',
        ...limits(description, 'Items'),
        ...(innerType && !Array.isArray(innerType) && { items: described(innerType, place) }),
      };
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

function objectOf({ fields }: SchemaObjectDescription, place: string): Json {
  const entries = Object.entries(fields);
  const required = entries.flatMap(([name, field]) => (isRequired(field) ? [name] : []));
  return {
    type: 'object',
    properties: Object.fromEntries(entries.map(([name, field]) => [name, described(field, place)])),
    ...(required.length > 0 && { required }),
    additionalProperties: false,
  };
}

/** Whether a field has to be there. What is chosen by its value says so itself. */
function isRequired(field: SchemaFieldDescription): boolean {
  const { required } = (('meta' in field && field.meta) || {}) as { required?: boolean };
  return required ?? ('optional' in field && field.optional === false);
}

const parameter = ({ tests }: SchemaDescription, name: string, key: string): unknown =>
  tests.find((test) => test.name === name)?.params?.[key];
const present = (values: Json): Json =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined));
const whole = ({ tests }: SchemaDescription): boolean => tests.some(({ name }) => name === 'integer');
const choices = ({ oneOf }: SchemaDescription): Json => (oneOf.length > 0 ? { enum: oneOf } : {});
const limits = (field: SchemaDescription, what: 'Length' | 'Items'): Json =>
  present({ [`min${what}`]: parameter(field, 'min', 'min'), [`max${what}`]: parameter(field, 'max', 'max') });
const bounds = (field: SchemaDescription): Json =>
  present({ minimum: parameter(field, 'min', 'min'), maximum: parameter(field, 'max', 'max') });

function pattern(field: SchemaDescription): Json {
  const regex = parameter(field, 'matches', 'regex');
  return regex instanceof RegExp ? { pattern: regex.source } : {};
}
