import { error } from '../../formula/value';
import { formula, points, type InferType } from '../../shape/shape';
import { attrs, leaf } from '../node';
import { composeCode } from './draw-code';
import { unchanged, type BlockKind } from './kind';
import { paymentText } from './payment-text';
import type { ComposedPicture } from './picture';

const paymentAttrs = attrs({
  payee: formula().required(),
  iban: formula().required(),
  amount: formula().required(),
  reference: formula().required(),
  width: points().required(),
});

/** The European payment QR code (EPC069-12): formulas of its parts. */
export interface PaymentCode {
  type: 'paymentCode';
  attrs: InferType<typeof paymentAttrs>;
}

export const paymentCode: BlockKind<PaymentCode, ComposedPicture> = {
  shape: leaf('paymentCode', paymentAttrs),
  words: () => 'the payment code',
  inner: unchanged,
  mapFormulas(block, change) {
    const { payee, iban, amount, reference } = block.attrs;
    const parts = {
      payee: change.formula(payee),
      iban: change.formula(iban),
      amount: change.formula(amount),
      reference: change.formula(reference),
    };
    return { ...block, attrs: { ...block.attrs, ...parts } };
  },
  mapWords: unchanged,
  compose({ attrs: { id, width, amount, payee, iban, reference } }, composer, row) {
    const part = (at: number, source: string) =>
      composer.printedText({ id: `${id} ${at}`, formula: source, block: id, row });
    const texts = [part(0, payee), part(1, iban), part(2, reference)] as const;
    const { value } = composer.read({ id: `${id} amount`, formula: amount, block: id, row });
    if (value.type !== 'money') {
      composer.fault(value.type === 'error' ? value : error('The amount of the payment code is no money.'), id);
      return [];
    }
    const [toPayee, toIban, withReference] = texts;
    if (toPayee === undefined || toIban === undefined || withReference === undefined) return [];
    const payment = paymentText({ payee: toPayee, iban: toIban, reference: withReference, amount: value });
    if ('text' in payment)
      return composeCode(composer, { block: id, symbology: 'qrcode', text: payment.text, width, alt: 'Payment code' });
    composer.fault(error(payment.problem), id);
    return [];
  },
};
