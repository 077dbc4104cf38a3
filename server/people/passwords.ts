import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import { Problem } from '../problem';

/** argon2id as OWASP advises it: 19 MiB, two passes, one lane. The library's own default kind is argon2id. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Guesses that a password has to hold out, as a power of ten: with the hash in hand, fewer are tried in days. */
const LEAST_GUESSES = 10;

let meter: ZxcvbnFactory | undefined;

/** The kept form of a password, in the PHC string format. */
export const hashed = (password: string): Promise<string> => hash(password.normalize('NFKC'), COST);

/** Refuses a password that would soon be guessed; `own` are words that stand near it: a name, an address. @throws Problem */
export function refuseWeak(password: string, own: readonly string[]): void {
  meter ??= new ZxcvbnFactory({ dictionary: common.dictionary, graphs: common.adjacencyGraphs });
  const words = own.flatMap((each) => each.toLowerCase().split(/[^\p{L}\p{N}]+/u)).filter((each) => each.length > 2);
  // Blanks and signs between known words make them no less known.
  const asOneWord = password.replaceAll(/[^\p{L}\p{N}]+/gu, '');
  const known = [...words, 'lumbix'];
  const guesses = [password, asOneWord].map((each) => meter!.check(each, known).guessesLog10);
  if (Math.min(...guesses) < LEAST_GUESSES)
    throw new Problem(
      422,
      'This password is too easy to guess',
      'Take a longer one, such as four or five words that have nothing to do with each other. Nothing was changed.',
      { reason: 'password' },
    );
}

let nobodys: Promise<string> | undefined;

/**
 * Whether a password is the one that was kept. Where nothing is kept it is held against a password that nobody has, so that
 * the answer takes as long.
 */
export async function isPassword(password: string, kept: string | null | undefined): Promise<boolean> {
  nobodys ??= hashed(crypto.randomUUID());
  const matches = await verify(kept ?? (await nobodys), password.normalize('NFKC'));
  return matches && kept !== null && kept !== undefined;
}
