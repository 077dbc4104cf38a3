import { formula, oneOf, points, text, type InferType } from '../../shape/shape';
import { attrs, leaf } from '../node';
import { composeCode, SYMBOLOGIES } from './draw-code';
import { unchanged, type BlockKind } from './kind';
import type { ComposedPicture } from './picture';

const codeAttrs = attrs({
  symbology: oneOf(SYMBOLOGIES).required(),
  formula: formula().required(),
  width: points().required(),
  alt: text(500).defined(),
});

/** A formula's text as a QR code or barcode; `width` in points. */
export interface Code {
  type: 'code';
  attrs: InferType<typeof codeAttrs>;
}

export const code: BlockKind<Code, ComposedPicture> = {
  shape: leaf('code', codeAttrs),
  words: () => 'a code',
  inner: unchanged,
  mapFormulas: (block, change) => ({
    ...block,
    attrs: { ...block.attrs, formula: change.formula(block.attrs.formula) },
  }),
  mapWords: unchanged,
  compose({ attrs: { id, symbology, formula: source, width, alt } }, composer, row) {
    const value = composer.printedText({ id, formula: source, block: id, row });
    return value === undefined ? [] : composeCode(composer, { block: id, symbology, text: value, width, alt });
  },
};
