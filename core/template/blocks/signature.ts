import { placeholders, type InferType } from '../../shape/shape';
import type { Run } from '../composed';
import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';

const signatureAttrs = attrs({ label: placeholders(), date: placeholders() });

/** A line to sign on, with words under it and a place for the date. */
export interface Signature {
  type: 'signature';
  attrs: InferType<typeof signatureAttrs>;
}

/** A place to sign, as it prints. */
export interface ComposedSignature {
  kind: 'signature';
  block: string;
  label: Run[];
  date: Run[];
}

export const signature: BlockKind<Signature, ComposedSignature> = {
  shape: leaf('signature', signatureAttrs),
  words: () => 'a signature place',
  inner: unchanged,
  mapFormulas: (block, { text }) => withTexts(block, text),
  mapWords: (block, { text }) => withTexts(block, (words, part) => text(part, words)),
  compose({ attrs: { id, label, date } }, composer, row) {
    const placed = (part: string, words: string) => composer.placed(`${id} ${part}`, words, id, row);
    return [{ kind: 'signature', block: id, label: placed('label', label), date: placed('date', date) }];
  },
};

function withTexts(block: Signature, change: (words: string, part: string) => string): Signature {
  const { label, date } = block.attrs;
  return { ...block, attrs: { ...block.attrs, label: change(label, 'label'), date: change(date, 'date') } };
}
