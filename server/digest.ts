import { createHash } from 'node:crypto';

/** A short name of a text: the first 132 bits of its SHA-256 in base64url. Another text has another one. */
export const digestOf = (text: string): string => createHash('sha256').update(text).digest('base64url').slice(0, 22);
