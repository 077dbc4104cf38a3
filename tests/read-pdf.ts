import { readFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** A piece of text on a page, in points from its lower left corner; `y` is the baseline. */
export interface Item {
  text: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Pieces on one baseline, from left to right. */
export interface Line {
  y: number;
  text: string;
  items: Item[];
}

export interface ReadPage {
  width: number;
  height: number;
  items: Item[];
  /** From top to bottom. */
  lines: Line[];
}

interface TextItem {
  str: string;
  width: number;
  height: number;
  transform: number[];
}

/** The text of a PDF as it stands on its pages. */
export async function readPages(file: string): Promise<ReadPage[]> {
  const task = getDocument({ data: new Uint8Array(readFileSync(file)), verbosity: 0, useSystemFonts: false });
  const pdf = await task.promise;
  const pages: ReadPage[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const page = await pdf.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    const placed = (items as TextItem[])
      .filter(({ str }) => str !== undefined && str.trim() !== '')
      .map(({ str, width: across, height: up, transform }): Item => ({
        text: str,
        x: transform[4]!,
        y: transform[5]!,
        width: across,
        height: up,
      }));
    pages.push({ width, height, items: placed, lines: linesOf(placed) });
  }
  await task.destroy();
  return pages;
}

function linesOf(items: readonly Item[]): Line[] {
  const lines: Line[] = [];
  for (const item of [...items].sort((a, b) => b.y - a.y)) {
    const line = lines.at(-1);
    if (line && line.y - item.y < 2) line.items.push(item);
    else lines.push({ y: item.y, text: '', items: [item] });
  }
  for (const line of lines) {
    line.items.sort((a, b) => a.x - b.x);
    line.items = joined(line.items);
    line.text = line.items.map(({ text }) => text).join(' ');
  }
  return lines;
}

/** Pieces that touch are one: a typesetter moves letters closer by beginning anew. */
function joined(items: readonly Item[]): Item[] {
  const whole: Item[] = [];
  for (const item of items) {
    const last = whole.at(-1);
    if (last && Math.abs(item.x - last.x - last.width) < 0.8) {
      whole[whole.length - 1] = { ...last, text: last.text + item.text, width: item.x + item.width - last.x };
    } else whole.push(item);
  }
  return whole;
}

/** A number as a locale writes it, in whole units and decimal places; undefined for any other text, such as the end of a sentence. */
export function numberIn(text: string, locale: string): { digits: bigint; places: number } | undefined {
  if (/[.,]$/.test(text)) return undefined;
  const parts = new Intl.NumberFormat(locale).formatToParts(1_234_567.5);
  const symbol = (type: string) => parts.find((part) => part.type === type)!.value;
  const bare = text
    .replace(/[\u2066-\u2069\u200e\u200f\s]/g, '')
    .replaceAll(symbol('group'), '')
    .replaceAll(/[\u00a0\u202f.,’]/g, (mark) => (mark === symbol('decimal') ? '.' : ''));
  const match = /^([−-]?)(\d+)(?:\.(\d+))?$/.exec(bare);
  if (!match) return undefined;
  const [, sign, whole, fraction = ''] = match;
  const digits = BigInt(whole! + fraction);
  return { digits: sign ? -digits : digits, places: fraction.length };
}
