import { utf8ToBytes } from '@noble/hashes/utils.js';
import { Decimal } from '../../money/decimal';

/** What a European payment QR code says. */
export interface Payment {
  payee: string;
  iban: string;
  amount: { value: Decimal; currency: string };
  reference: string;
}

/**
 * The text of a European payment QR code (EPC069-12, version 002, UTF-8), or a sentence about what is wrong with it.
 * Such codes exist for euros only.
 */
export function paymentText({ iban, amount, ...words }: Payment): { text: string } | { problem: string } {
  const [payee, reference] = [oneLine(words.payee), oneLine(words.reference)];
  const account = iban.replaceAll(' ', '').toUpperCase();
  if (amount.currency !== 'EUR') return { problem: `A payment code is for euros, not for ${amount.currency}.` };
  if (!isIban(account)) return { problem: `“${iban}” is not an IBAN: look at its digits.` };
  if (payee === '' || payee.length > 70) return { problem: 'The payee of a payment code has 1 to 70 characters.' };
  if (reference.length > 140) return { problem: 'The reference of a payment code has 140 characters at most.' };
  const most = Decimal.of('999999999.99');
  if (amount.value.comparedTo(Decimal.of('0.01')) < 0 || amount.value.comparedTo(most) > 0)
    return { problem: 'A payment code is for 0.01 to 999,999,999.99 EUR.' };
  const lines = ['BCD', '002', '1', 'SCT', '', payee, account, `EUR${amount.value.toFixed(2)}`, '', '', reference];
  const text = lines.join('\n');
  if (utf8ToBytes(text).length > MOST_BYTES)
    return { problem: 'The payee and the reference of a payment code are too long together: shorten one of them.' };
  return { text };
}

/** What such a code holds in all, in UTF-8 (EPC069-12, 3.1). */
const MOST_BYTES = 331;

/** A line end within a part would make the next part another one. */
const oneLine = (words: string) => words.replace(/\s+/g, ' ').trim();

/** Whether an account number has the form and the check digits of an IBAN (ISO 13616, ISO/IEC 7064 MOD 97-10). */
export function isIban(account: string): boolean {
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(account)) return false;
  const digits = [...account.slice(4), ...account.slice(0, 4)].map((each) => parseInt(each, 36)).join('');
  return BigInt(digits) % 97n === 1n;
}
