import { describe, expect, it } from 'vitest';
import { Decimal } from '../../money/decimal';
import { drawCode } from './draw-code';
import { isIban, paymentText, type Payment } from './payment-text';

const PAYMENT: Payment = {
  payee: 'Orrin & Vale Glasshouses Ltd',
  iban: 'GB71 ELMS 0000 0000 0000 00',
  amount: { value: Decimal.of('15744'), currency: 'EUR' },
  reference: 'I-2026-0007',
};

describe('a European payment code (EPC069-12)', () => {
  it('has its twelve lines in order', () => {
    expect(paymentText(PAYMENT)).toEqual({
      text: 'BCD\n002\n1\nSCT\n\nOrrin & Vale Glasshouses Ltd\nGB71ELMS00000000000000\nEUR15744.00\n\n\nI-2026-0007',
    });
  });

  it.each([
    [{ amount: { value: Decimal.of(5), currency: 'GBP' } }, 'A payment code is for euros, not for GBP.'],
    [{ amount: { value: Decimal.of(0), currency: 'EUR' } }, 'A payment code is for 0.01 to 999,999,999.99 EUR.'],
    [{ iban: 'GB72 ELMS 0000 0000 0000 00' }, '“GB72 ELMS 0000 0000 0000 00” is not an IBAN: look at its digits.'],
    [{ reference: 'x'.repeat(141) }, 'The reference of a payment code has 140 characters at most.'],
    [
      { payee: '株'.repeat(40), reference: '式'.repeat(70) },
      'The payee and the reference of a payment code are too long together: shorten one of them.',
    ],
    [{ payee: ' ' }, 'The payee of a payment code has 1 to 70 characters.'],
  ])('says what is wrong with %j', (change, problem) => {
    expect(paymentText({ ...PAYMENT, ...change })).toEqual({ problem });
  });

  it('has each part on a line of its own, whatever line ends a part has', () => {
    expect(paymentText({ ...PAYMENT, payee: 'Orrin\n& Vale ', reference: 'I-7\r\nEUR1.00' })).toEqual({
      text: 'BCD\n002\n1\nSCT\n\nOrrin & Vale\nGB71ELMS00000000000000\nEUR15744.00\n\n\nI-7 EUR1.00',
    });
  });

  it('knows an IBAN by its check digits', () => {
    // The registry's own example: DE89 3704 0044 0532 0130 00.
    expect([isIban('DE89370400440532013000'), isIban('DE88370400440532013000'), isIban('DE89')]).toEqual([
      true,
      false,
      false,
    ]);
  });
});

describe('codes', () => {
  it('are drawn as shapes without any text or script', () => {
    for (const symbology of ['qrcode', 'code128', 'datamatrix'] as const) {
      const svg = drawCode(symbology, 'Q-2026-0042');
      expect(svg).toMatch(/^<svg [^>]*viewBox/);
      expect(svg).not.toMatch(/<script|<text|href/);
    }
  });

  it('are not drawn where the text does not fit the kind', () => {
    expect(drawCode('ean13', 'not digits')).toBeUndefined();
  });
});
