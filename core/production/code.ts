import './bwip-js.d.ts';
import { toSVG } from 'bwip-js';
import type { Symbology } from '../template/layout';

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
