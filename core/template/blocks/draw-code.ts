import { code128, datamatrix, drawingSVG, ean13, qrcode } from 'bwip-js/generic';
import { error } from '../../formula/value';
import type { Composer } from '../composer';
import type { ComposedPicture } from './picture';

/** Codes that are printed, by the names of their standards: ISO/IEC 18004, 15417 and 16022, GS1 EAN-13. */
export const SYMBOLOGIES = ['qrcode', 'code128', 'datamatrix', 'ean13'] as const;
export type Symbology = (typeof SYMBOLOGIES)[number];

/** Each by itself, so that pages do not load the library's hundred others. */
const ENCODERS = { qrcode, code128, datamatrix, ean13 } satisfies Record<Symbology, unknown>;

/** A text as a code that machines read, drawn as SVG; undefined where the kind of code cannot hold it. */
export function drawCode(symbology: Symbology, text: string): string | undefined {
  try {
    const isBars = symbology === 'code128' || symbology === 'ean13';
    const options = {
      bcid: symbology,
      text,
      ...(symbology === 'qrcode' && { eclevel: 'M' }),
      ...(isBars && { height: 12 }),
    };
    return ENCODERS[symbology](options, drawingSVG());
  } catch {
    return undefined;
  }
}

/** A text as a code on the page, `width` in points; a finding where the kind of code cannot hold the text. */
export function composeCode(
  composer: Composer,
  {
    block,
    symbology,
    text,
    width,
    alt,
  }: { block: string; symbology: Symbology; text: string; width: number; alt: string },
): ComposedPicture[] {
  const svg = drawCode(symbology, text);
  if (svg !== undefined) return [{ kind: 'picture', block, picture: composer.drawn(svg), width, alt, align: 'start' }];
  composer.fault(
    error(`“${text}” cannot be printed as this kind of code; choose another kind, or another text.`),
    block,
  );
  return [];
}
