import { jsonSchema } from '../../shape/json-schema';
import { templateShape } from '../template';

/** The shape of a template file as a JSON Schema, made from the shape that imports are checked with. */
export function templateJsonSchema(): Record<string, unknown> {
  const { $schema, ...schema } = jsonSchema(templateShape);
  return {
    $schema,
    title: 'Lumbix template',
    description:
      'A template as it is exported from Lumbix and imported again. Formulas are described in docs/formulas.md.',
    ...schema,
  };
}
