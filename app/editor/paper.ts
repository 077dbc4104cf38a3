import type { Template } from '#core/template/template';

/** Paper by its sizes in millimetres (ISO 216; ANSI Y14.1). */
const PAPER = { a4: [210, 297], letter: [215.9, 279.4], a5: [148, 210] } as const;

/** Pixels of a millimetre at full size. */
export const PER_MILLIMETRE = 96 / 25.4;

/** How wide and how high a page is, in millimetres. */
export function paperOf({ size, landscape }: Template['layout']['page']): { width: number; height: number } {
  const [short, long] = PAPER[size];
  return landscape ? { width: long, height: short } : { width: short, height: long };
}

/**
 * Where pages will roughly end, in millimetres from where the text begins: every `room` of it, counted anew where a page is begun on
 * purpose. `breaks`: where that is.
 */
export function pageEnds(written: number, breaks: readonly number[], room: number): { number: number; top: number }[] {
  const ends: { number: number; top: number }[] = [];
  let [begins, number] = [0, 1];
  for (const end of [...breaks, written]) {
    for (let top = begins + room; top < end && ends.length < MOST; top += room) ends.push({ number: ++number, top });
    [begins, number] = [end, number + 1];
  }
  return ends;
}

const MOST = 200;
