/** Writes docs/formulas.md from the functions' declarations and the templates' JSON Schema from their shape. `npm run reference`. */
import { writeFileSync } from 'node:fs';
import { referenceMarkdown } from '../core/sheet/reference';
import { templateJsonSchema } from '../core/template/file/json-schema';

writeFileSync('docs/formulas.md', referenceMarkdown());
writeFileSync('public/template.schema.json', `${JSON.stringify(templateJsonSchema(), null, 1)}\n`);
