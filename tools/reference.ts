/** Writes docs/formulas.md from the functions' declarations. `npm run reference`. */
import { writeFileSync } from 'node:fs';
import { referenceMarkdown } from '../core/formula/reference';

writeFileSync('docs/formulas.md', referenceMarkdown());
