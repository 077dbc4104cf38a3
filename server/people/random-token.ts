import { createHash, randomBytes } from 'node:crypto';

/** A text that nobody guesses: 256 random bits. */
export const randomToken = (): string => randomBytes(32).toString('base64url');

/** What is kept of a random token, so that who reads the database cannot use it. It needs no slow hash: it cannot be guessed. */
export const tokenHash = (token: string): string => createHash('sha256').update(token).digest('base64url');
