import { Resvg } from '@resvg/resvg-js';
import type { ProofPages } from '../typst/typesetter';

/** The first of a proof's pages as a PNG on white, this many pixels wide. */
export function rasterised({ glyphs, pages }: ProofPages, width: number): Uint8Array {
  const page = pages[0]!.replace(/^(<svg[^>]*>)/, `$1${glyphs}`);
  const drawing = new Resvg(page, {
    fitTo: { mode: 'width', value: width },
    background: '#ffffff',
    font: { loadSystemFonts: false },
  });
  return drawing.render().asPng();
}
