/** Widths of columns are parts of the measure: what counts is how they stand to one another. */

/** The narrowest that a column gets by dragging, as a part of the whole. */
const LEAST = 0.05;
const DIGITS = 100;

/** The widths of so many columns; all the same where they are not said. */
export const evenWidths = (widths: readonly number[] | null | undefined, count: number): number[] =>
  Array.from({ length: count }, (_, at) => widths?.[at] ?? 1);

/** Moves the edge behind one column by a part of the whole: that column gets wider, the next one narrower, none too narrow. */
export function moveWidth(widths: readonly number[], at: number, by: number): number[] {
  const whole = widths.reduce((sum, each) => sum + each, 0);
  const least = Math.min(LEAST * whole, widths[at]!, widths[at + 1]!);
  const both = widths[at]! + widths[at + 1]!;
  const wider = Math.min(both - least, Math.max(least, widths[at]! + by * whole));
  // All in the same hundredths, so that what is not moved stays as it is.
  const rounded = Math.round(wider * DIGITS) / DIGITS;
  return widths.map((each, place) => {
    if (place === at) return rounded;
    return place === at + 1 ? Math.round((both - rounded) * DIGITS) / DIGITS : each;
  });
}
