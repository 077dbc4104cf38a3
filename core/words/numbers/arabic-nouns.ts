/** Plurals that are not made by the ending ات. */
const PLURALS: ReadonlyMap<string, string> = new Map([
  ['درهم', 'دراهم'],
  ['دينار', 'دنانير'],
]);

/** Borrowed words that end in a vowel (يورو, زلوتي) keep one form. */
const isFixed = (noun: string) => /[وياى]$/.test(noun);
const isFeminine = (word: string) => word.endsWith('ة');
/** A word of origin (إماراتي, سويدية) agrees with its noun; other words of a currency's name (هونغ كونغ) do not. */
const isOrigin = (word: string) => /(ي|ية)$/.test(word);

/**
 * An Arabic noun phrase, such as the name of a currency, in the form that it takes after a number: the dual for two, the
 * plural from three to ten, the accusative singular from eleven to ninety-nine, and the singular otherwise, by the last
 * two digits of the number.
 */
export function countedNoun(phrase: string, count: number): string {
  const [noun = '', ...rest] = phrase.split(' ');
  const last = count % 100;
  if (isFixed(noun)) return phrase;
  if (count === 2) return [dual(noun), ...rest.map((word) => (isOrigin(word) ? dual(word) : word))].join(' ');
  if (last >= 3 && last <= 10) {
    const plural = PLURALS.get(noun) ?? `${isFeminine(noun) ? noun.slice(0, -1) : noun}ات`;
    return [plural, ...rest.map((word) => (isOrigin(word) && !isFeminine(word) ? `${word}ة` : word))].join(' ');
  }
  if (last >= 11)
    return [accusative(noun), ...rest.map((word) => (isOrigin(word) ? accusative(word) : word))].join(' ');
  return phrase;
}

/** Whether a phrase's noun has one form for every number, so that two of it need the number said. */
export function hasOneForm(phrase: string): boolean {
  return isFixed(phrase.split(' ')[0]!);
}

export const genderOfArabic = (phrase: string): 'masculine' | 'feminine' =>
  isFeminine(phrase.split(' ')[0]!) ? 'feminine' : 'masculine';

const dual = (word: string) => (isFeminine(word) ? `${word.slice(0, -1)}تان` : `${word}ان`);
const accusative = (word: string) => (isFeminine(word) ? word : `${word}ًا`);
