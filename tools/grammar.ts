/** Generates the parser from the formula grammar. `npm run grammar`, after changing core/formula/formula.grammar. */
import { buildParserFile } from '@lezer/generator';
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath, pathToFileURL } from 'node:url';

const folder = new URL('../core/formula/', import.meta.url);

/** The text of the generated files, as they must stand in the repository. */
export function generateParser(): { parser: string; terms: string } {
  const grammar = readFileSync(new URL('formula.grammar', folder), 'utf8');
  const { parser, terms } = buildParserFile(grammar, { fileName: 'formula.grammar', moduleStyle: 'es' });
  const header = '// Generated from formula.grammar by `npm run grammar`.\n';
  return { parser: `// @ts-nocheck\n${header}${parser}`, terms: header + terms };
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const { parser, terms } = generateParser();
  writeFileSync(
    fileURLToPath(new URL('formula.parser.ts', folder)),
    parser.replace('"./formula.grammar.terms"', '"./formula.parser.terms"'),
  );
  writeFileSync(fileURLToPath(new URL('formula.parser.terms.ts', folder)), terms);
}
