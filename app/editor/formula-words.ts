import { splitPlaceholders } from '#core/template/placeholders';

/** What a formula is called while it has no value to show: the text that it names, or the name at the end of its path. */
export function formulaWords(formula: string): string {
  const [, label] = /^LABEL\("([^"]+)"\)$/.exec(formula.trim()) ?? [];
  if (label !== undefined) return label;
  return (formula.match(/[A-Za-z_]\w*/g)?.at(-1) ?? formula).replaceAll('_', ' ');
}

/** A text with placeholders as people read it: each value by what it is called. */
export function placeholderWords(text: string): string {
  try {
    return splitPlaceholders(text)
      .map((part) => (part.kind === 'text' ? part.text : formulaWords(part.formula)))
      .join('');
  } catch {
    // A placeholder that is not closed yet is read as it is written.
    return text;
  }
}
