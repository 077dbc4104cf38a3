import { randomInt } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';

/** Seconds that a code holds (RFC 6238, 5.2), and steps before and after that are taken for clocks that are off. */
const PERIOD = 30;
const TOLERANCE = 1;
const RECOVERY_CODES = 10;
/** Without what is mistaken for another: no 0 and O, no 1, I and L. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

/** A new secret of 160 bits (RFC 4226, 4), in base 32. */
export const newCodeSecret = (): string => new Secret({ size: 20 }).base32;

/** The address that an app for one-time codes reads. */
export const codeAddress = (secret: string, name: string): string => totpOf(secret, name).toString();

/** The time step that a code belongs to; undefined for a wrong one, and for one of a step that is not after `last`. */
export function codeStep(secret: string, code: string, last: number | null, now = Date.now()): number | undefined {
  const digits = code.replaceAll(/\s/g, '');
  if (!/^\d{6}$/.test(digits)) return undefined;
  const delta = totpOf(secret, '').validate({ token: digits, timestamp: now, window: TOLERANCE });
  if (delta === null) return undefined;
  const step = Math.floor(now / 1_000 / PERIOD) + delta;
  return last !== null && step <= last ? undefined : step;
}

/** Codes to keep on paper, each for one sign-in without the app: `K7QF-3MZA-9XHD`, some 59 bits. */
export const newRecoveryCodes = (): string[] =>
  Array.from({ length: RECOVERY_CODES }, () =>
    Array.from({ length: 3 }, () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join('')).join(
      '-',
    ),
  );

/** A recovery code as it is compared, however it was typed. */
export const plainRecoveryCode = (code: string): string => code.toUpperCase().replaceAll(/[^A-Z0-9]/g, '');

const totpOf = (secret: string, label: string) =>
  new TOTP({
    issuer: 'Lumbix',
    label,
    secret: Secret.fromBase32(secret),
    period: PERIOD,
    digits: 6,
    algorithm: 'SHA1',
  });
