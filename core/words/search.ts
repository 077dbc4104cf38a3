/** At most so many words are searched for at once. */
const MOST = 10;

/** A text as it is searched in: without case, accents, and forms of letters that look alike. */
const searchable = (text: string): string =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').replace(/[‘’ʼ]/g, "'").toLowerCase();

/** Texts that are searched in together; what is blank is left out. */
export const searchableTexts = (texts: readonly (string | null | undefined)[]): string =>
  searchable(texts.filter(Boolean).join(' '));

/** A test of texts that belong together: whether all words that somebody searches for are in them. */
export function searchFor(typed: string): (texts: readonly (string | null | undefined)[]) => boolean {
  const wanted = searchWords(typed);
  return (texts) => {
    const text = searchableTexts(texts);
    return wanted.every((word) => text.includes(word));
  };
}

/** The words that somebody searches for, each to be found wherever it is. A sum is found with separators or without: 24,460 is 24460. */
export function searchWords(typed: string): string[] {
  return searchable(typed)
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, MOST)
    .map((word) => (/^\d{1,3}(,\d{3})+(\.\d+)?$/.test(word) ? word.replaceAll(',', '') : word));
}
