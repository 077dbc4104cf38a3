import { own } from '../record/own';
import { AndWord, False, InWord, NotWord, OrWord, True } from './formula.parser.terms';

const TERMS: Readonly<Record<string, number>> = {
  and: AndWord, or: OrWord, not: NotWord, in: InWord, true: True, false: False,
}; // prettier-ignore

/** The grammar's term for a word that is an operator or a truth value in any case; -1 for a plain name. */
export function wordTerm(word: string): number {
  return own(TERMS, word.toLowerCase()) ?? -1;
}
