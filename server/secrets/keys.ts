import { createHash, randomBytes } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';

/** A key that secrets are sealed with: 32 bytes, and what it is called in what was sealed with it. */
export interface Key {
  id: string;
  bytes: Buffer;
}

/** The keys there are: the first seals, each opens what it sealed. */
export type KeyRing = readonly [Key, ...Key[]];

const KEY_BYTES = 32;

/** A new key as it stands in the key file. */
export const newKeyLine = (): string => randomBytes(KEY_BYTES).toString('base64');

let kept: { of: string; ring: KeyRing } | undefined;

/** The keys from `LUMBIX_KEYS` (base64, with commas between them) or from the file `LUMBIX_KEY_FILE`, a line each. @throws Error */
export function keyRing(): KeyRing {
  const source = process.env.LUMBIX_KEYS ?? fileOfKeys(process.env.LUMBIX_KEY_FILE);
  if (kept?.of !== source) kept = { of: source, ring: ringOf(source) };
  return kept.ring;
}

function fileOfKeys(path: string | undefined): string {
  if (!path) throw new Error('Neither LUMBIX_KEYS nor LUMBIX_KEY_FILE is set; start Lumbix with ./start.');
  const others = statSync(path).mode & 0o077;
  if (others !== 0) throw new Error('The key file can be read by others. Set its mode to 0600, then start again.');
  return readFileSync(path, 'utf8');
}

function ringOf(source: string): KeyRing {
  const keys = source
    .split(/[\n,]/)
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => Buffer.from(line, 'base64'));
  if (keys.length === 0 || keys.some((bytes) => bytes.length !== KEY_BYTES))
    throw new Error(
      `A key is ${KEY_BYTES} bytes in base64. Look at the key file; without its keys no secret can be read.`,
    );
  return keys.map((bytes) => ({ id: idOf(bytes), bytes })) as unknown as KeyRing;
}

const idOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex').slice(0, 8);
