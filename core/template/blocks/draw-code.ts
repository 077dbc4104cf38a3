import './bwip-js.d.ts';
import { toSVG } from 'bwip-js';
import { error } from '../../formula/value';
import type { Composer } from '../composer';
import type { ComposedPicture } from './picture';

/** Codes that are printed, by the names of their standards: ISO/IEC 18004, 15417 and 16022, GS1 EAN-13. */
export const SYMBOLOGIES = ['qrcode', 'code128', 'datamatrix', 'ean13'] as const;
export type Symbology = (typeof SYMBOLOGIES)[number];

/** A text as a code that machines read, drawn as SVG; undefined where the kind of code cannot hold it. */
export function drawCode(symbology: Symbology, text: string): string | undefined {
  try {
    const isBars = symbology === 'code128' || symbology === 'ean13';
    return toSVG({
      bcid: symbology,
      text,
      ...(symbology === 'qrcode' && { eclevel: 'M' }),
      ...(isBars && { height: 12 }),
    });
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
