import { expect, it } from 'vitest';
import type { Run } from '../../core/template/composed';
import { isRuns, setRuns } from './set-runs';

const text = (words: string, look: Partial<Extract<Run, { kind: 'text' }>> = {}): Run => ({
  kind: 'text',
  text: words,
  ...look,
});
const printed = { direction: 'ltr', proof: false } as const;
const proof = { direction: 'ltr', proof: true } as const;

it('plain words become one string', () => {
  expect(setRuns([text('Dear '), text('Dr Ashdown', { value: 'name', bold: false }), text(',')], printed)).toBe(
    'Dear Dr Ashdown,',
  );
  expect(setRuns([], printed)).toEqual([]);
});

it('values can be clicked on a proof, links in a filed document', () => {
  const runs = [text('See '), text('the terms', { value: 'terms', link: 'https://terms.example' })];
  expect(setRuns(runs, proof)).toEqual(['See ', { text: 'the terms', value: 'terms' }]);
  expect(setRuns(runs, printed)).toEqual(['See ', { text: 'the terms', link: 'https://terms.example' }]);
});

it('looks and breaks stay apart from plain words', () => {
  const runs = [text('Net '), text('4.50', { bold: true }), { kind: 'break' } as const, text('a'), text('b')];
  expect(setRuns(runs, printed)).toEqual(['Net ', { text: '4.50', bold: true }, { kind: 'break' }, 'ab']);
});

it('a value that runs against its page is turned, words are not', () => {
  const arabic = 'بيت زجاجي';
  expect(setRuns([text(arabic, { value: 'name' })], printed)).toEqual([{ text: arabic, turned: true }]);
  expect(setRuns([text(arabic, { value: 'name' })], { direction: 'rtl', proof: false })).toBe(arabic);
  expect(setRuns([text('CC-24', { value: 'sku' })], { direction: 'rtl', proof: false })).toEqual([
    { text: 'CC-24', turned: true },
  ]);
  expect(setRuns([text('CC-24')], { direction: 'rtl', proof: false })).toBe('CC-24');
});

it('words of 29 letters and more may be broken between any two, never inside of one that is composed', () => {
  expect(setRuns([text('x'.repeat(28))], printed)).toBe('x'.repeat(28));
  const [long] = setRuns([text(`a ${'e\u0301'.repeat(29)}`)], printed) as { pieces: string[] }[];
  expect(long!.pieces).toHaveLength(29);
  expect(long!.pieces[1]).toBe('e\u0301');
  expect(setRuns([text('over\u200bthere')], printed)).toEqual([{ pieces: ['over', 'there'] }]);
});

it('knows running text from other lists', () => {
  expect([[text('a')], [{ kind: 'pageNumber' }], [], [{ kind: 'paragraph' }], ['a'], 'a', null].map(isRuns)).toEqual([
    true,
    true,
    false,
    false,
    false,
    false,
    false,
  ]);
});

it.each([
  ['a house of 40 × 12 m', 'a house of {40 × 12 m}'], ['haze 70 %, 600 W, a 24 t vehicle', 'haze {70 %}, {600 W}, a {24 t} vehicle'],
  ['glass of 3.2 × 4.5 m, 16 mm', 'glass of {3.2 × 4.5 m}, {16 mm}'], ['6 × 8 bays', '{6 × 8} bays'],
  ['due by 23 November 2026.', 'due by {23 November 2026}.'], ['bis 23. Dezember 2026', 'bis {23. Dezember 2026}'],
  ['hasta el 23 de noviembre de 2026', 'hasta el {23 de noviembre de 2026}'], ['on November 23, 2026', 'on {November 23, 2026}'],
  ['حتى 23 ديسمبر 2026', 'حتى {23 ديسمبر 2026}'], ['12,500 GBP net', '{12,500 GBP} net'],
  // Words that only begin like a unit, and other numbers.
  ['4 months, 3 glasshouses, 2 Watts', '4 months, 3 glasshouses, 2 Watts'], ['Unit 4 or 5', 'Unit 4 or 5'], ['GB71 ELMS 0000 0000', 'GB71 ELMS 0000 0000'],
])('%s has no line end within what belongs together', (typed, kept) => {
  const set = setRuns([text(typed)], printed);
  const parts = (typeof set === 'string' ? [set] : set).map((each) =>
    typeof each === 'string' ? each : `{${(each as { whole: string }).whole}}`,
  );
  expect(parts.join('')).toBe(kept);
}); // prettier-ignore

it('a value with a date in it is one value, its date on one line', () => {
  expect(setRuns([text('by 23 November 2026', { value: 'due' })], proof)).toEqual([
    { value: 'due', parts: ['by ', { whole: '23 November 2026' }] },
  ]);
});
