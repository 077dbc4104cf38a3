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
  const named = Object.entries(NAMES).map(([name, shapes]): [string, Json] => [name, { oneOf: shapes.map(schemaOf) }]);
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    ...schemaOf(shape),
    $defs: Object.fromEntries(named),
  };
}

const schemaOf = (shape: ISchema<unknown>): Json => described(shape.describe());

function described(field: SchemaFieldDescription): Json {
  const { map, ref, anyOf } = (('meta' in field && field.meta) || {}) as {
    map?: ISchema<unknown>;
    ref?: string;
    anyOf?: ISchema<unknown>[];
  };
  if (map) return { type: 'object', additionalProperties: schemaOf(map) };
  if (anyOf) return { anyOf: anyOf.map(schemaOf) };
  if (ref) return { $ref: `#/$defs/${ref}` };
  const description = field as SchemaDescription;
  switch (field.type) {
    case 'object':
      return objectOf(field as SchemaObjectDescription);
    case 'array': {
      const { innerType } = field as SchemaInnerTypeDescription;
      return {
        type: 'array',
        ...limits(description, 'Items'),
        ...(innerType && !Array.isArray(innerType) && { items: described(innerType) }),
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

function objectOf({ fields }: SchemaObjectDescription): Json {
  const entries = Object.entries(fields);
  const required = entries.flatMap(([name, field]) => (isRequired(field) ? [name] : []));
  return {
    type: 'object',
    properties: Object.fromEntries(entries.map(([name, field]) => [name, described(field)])),
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
