import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import { keyRing, type Key, type KeyRing } from './keys';

/** What a secret is for: what was sealed for one purpose opens for no other. */
export type Purpose = 'session' | 'one-time codes' | 'connection' | 'place';

const CIPHER = 'aes-256-gcm';
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** A secret that only holders of the key can read or make: AES-256-GCM (NIST SP 800-38D), `key.content` in base64url. */
export function seal(secret: string, purpose: Purpose, [key]: KeyRing = keyRing()): string {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv(CIPHER, keyFor(key, purpose), nonce);
  const content = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return `${key.id}.${Buffer.concat([nonce, cipher.getAuthTag(), content]).toString('base64url')}`;
}

/** What was sealed for a purpose; undefined for what no key of the ring sealed for it. */
export function unseal(sealed: string, purpose: Purpose, ring: KeyRing = keyRing()): string | undefined {
  const [id, content = ''] = sealed.split('.');
  const key = ring.find((each) => each.id === id);
  const bytes = Buffer.from(content, 'base64url');
  if (!key || bytes.length < NONCE_BYTES + TAG_BYTES) return undefined;
  const decipher = createDecipheriv(CIPHER, keyFor(key, purpose), bytes.subarray(0, NONCE_BYTES));
  decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
  try {
    const secret = [decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()];
    return Buffer.concat(secret).toString('utf8');
  } catch {
    return undefined;
  }
}

/** Whether a secret was sealed with the newest key. */
export const isSealedAnew = (sealed: string, [key]: KeyRing = keyRing()): boolean => sealed.startsWith(`${key.id}.`);

/** A key of its own for each purpose (HKDF, RFC 5869). */
const keyFor = ({ bytes }: Key, purpose: Purpose) => Buffer.from(hkdfSync('sha256', bytes, '', purpose, 32));
