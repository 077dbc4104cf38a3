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
export function paymentText({ payee, iban, amount, reference }: Payment): { text: string } | { problem: string } {
  const account = iban.replaceAll(' ', '').toUpperCase();
  if (amount.currency !== 'EUR') return { problem: `A payment code is for euros, not for ${amount.currency}.` };
  if (!isIban(account)) return { problem: `“${iban}” is not an IBAN: look at its digits.` };
  if (payee.trim() === '' || payee.length > 70)
    return { problem: 'The payee of a payment code has 1 to 70 characters.' };
  if (reference.length > 140) return { problem: 'The reference of a payment code has 140 characters at most.' };
  const most = Decimal.of('999999999.99');
  if (amount.value.comparedTo(Decimal.of('0.01')) < 0 || amount.value.comparedTo(most) > 0)
    return { problem: 'A payment code is for 0.01 to 999,999,999.99 EUR.' };
  const lines = ['BCD', '002', '1', 'SCT', '', payee, account, `EUR${amount.value.toFixed(2)}`, '', '', reference];
  return { text: lines.join('\n') };
}

/** Whether an account number has the form and the check digits of an IBAN (ISO 13616, ISO/IEC 7064 MOD 97-10). */
export function isIban(account: string): boolean {
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(account)) return false;
  const digits = [...account.slice(4), ...account.slice(0, 4)].map((each) => parseInt(each, 36)).join('');
  return BigInt(digits) % 97n === 1n;
}
