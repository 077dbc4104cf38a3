import { error } from '../../formula/value';
import { own } from '../../record/own';
import { formula, oneOf, points, text, type InferType } from '../../shape/shape';
import type { PlacedPicture } from '../composed';
import { attrs, leaf } from '../node';
import { unchanged, type BlockKind } from './kind';

const pictureAttrs = attrs({
  file: text(80),
  formula: formula(),
  width: points().required(),
  height: points(),
  alt: text(500).defined(),
  align: oneOf(['start', 'end']),
});

/** A file of the template, or the picture that a formula gives; no larger than this, in points. */
export interface Picture {
  type: 'picture';
  attrs: InferType<typeof pictureAttrs>;
}

/** A picture or a drawn code as it prints. */
export interface ComposedPicture extends PlacedPicture {
  kind: 'picture';
  block: string;
  align: 'start' | 'end';
}

export const picture: BlockKind<Picture, ComposedPicture> = {
  shape: leaf('picture', pictureAttrs),
  words: () => 'a picture',
  inner: unchanged,
  mapFormulas(block, change) {
    const { formula: source } = block.attrs;
    return source === undefined ? block : { ...block, attrs: { ...block.attrs, formula: change.formula(source) } };
  },
  mapWords: unchanged,
  faults({ attrs: { id, file, formula: source } }, { files = {} }) {
    if ((file === undefined) === (source === undefined))
      return [`The picture “${id}” is a file of the template or what a formula gives: say one of the two.`];
    const known = file === undefined ? undefined : own(files, file);
    if (file !== undefined && !known) return [`The template has no file “${file}” to print as a picture.`];
    return known?.mediaType === 'application/pdf' ? [`“${file}” is a PDF, which cannot stand as a picture.`] : [];
  },
  compose({ attrs: { id, file, formula: source, width, height, alt, align = 'start' } }, composer, row) {
    const box = { width, height, alt };
    if (source !== undefined) {
      const placed = composer.picture({ id, formula: source, block: id, row }, box);
      return placed ? [{ kind: 'picture', block: id, align, ...placed }] : [];
    }
    const known = file === undefined ? undefined : own(composer.around.files, file);
    if (known) return [{ kind: 'picture', block: id, align, ...composer.fitted(known.sha256, known, box) }];
    composer.fault(error(`The template has no file “${file ?? ''}” to print as a picture.`), id);
    return [];
  },
};
