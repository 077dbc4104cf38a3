import { FormulaError } from '../formula/ast';

/** A piece of a text with placeholders: as typed, or the formula of an `=[formula]`. */
export type TextPart = { kind: 'text'; text: string } | { kind: 'formula'; formula: string };

/**
 * Splits text such as `Quote =[document.number]` at its placeholders. Brackets and quoted texts inside a formula nest.
 * @throws FormulaError where a placeholder is never closed.
 */
export function splitPlaceholders(source: string): TextPart[] {
  const parts: TextPart[] = [];
  let start = 0;
  for (let at = source.indexOf('=['); at !== -1; at = source.indexOf('=[', start)) {
    const end = closingBracket(source, at + 2);
    if (end === -1) throw new FormulaError('This placeholder is not closed: add a “]”.', at, source.length);
    if (at > start) parts.push({ kind: 'text', text: source.slice(start, at) });
    parts.push({ kind: 'formula', formula: source.slice(at + 2, end) });
    start = end + 1;
  }
  if (start < source.length) parts.push({ kind: 'text', text: source.slice(start) });
  return parts;
}

function closingBracket(source: string, from: number): number {
  let depth = 0;
  let quoted = false;
  for (let at = from; at < source.length; at++) {
    const character = source[at];
    if (character === '"') quoted = !quoted;
    if (quoted) continue;
    if (character === '[') depth++;
    if (character === ']' && depth-- === 0) return at;
  }
  return -1;
}
