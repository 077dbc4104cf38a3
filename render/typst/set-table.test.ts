import fc from 'fast-check';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { compose } from '../../core/production/compose';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { ComposedBlock } from '../../core/template/blocks';
import type { ComposedTable, TableRow } from '../../core/template/blocks/line-table';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import { setTable } from './set-table';
import { Typesetter } from './typesetter';

/** Letters of one em, which makes widths easy to reckon; a figure is half of one. */
const WIDTHS = { a: 1, b: 1, ' ': 1, ...Object.fromEntries([...'0123456789'].map((digit) => [digit, 0.5])) };
const SETTING = { letters: WIDTHS, figures: { 0: 0.5, '.': 0.25 }, decimal: '.' };
const cell = (text: string) => ({ runs: [{ kind: 'text' as const, text }] });
const table = (rows: TableRow[], widths: ComposedTable['columns'][number]['width'][]): ComposedTable => ({
  kind: 'table',
  block: 'lines',
  label: 'Lines',
  style: 'rules',
  columns: widths.map((width, at) => ({ id: String(at), heading: [], align: 'start', width })),
  sections: [{ rows }],
});
const set = (rows: TableRow[], ...widths: ComposedTable['columns'][number]['width'][]) =>
  setTable(table(rows, widths), { ...SETTING, room: 50 });

describe('what is foreseen of a table', () => {
  it('names the texts among which the widest of a column is, with one for all figures of its form', () => {
    const rows = ['1', '12', '98', '1234', '5678', 'ab', 'aa'].map((text) => ({ cells: [cell(text)] }));
    expect(set(rows, 'content').columns[0]).toMatchObject({ widest: ['0000', 'ab', 'aa'] });
  });

  it('tells how wide the text of another column is at most, its second line too', () => {
    const rows: TableRow[] = [
      { cells: [cell('ab')] },
      { cells: [{ ...cell('a'), detail: [{ kind: 'text', text: 'aaa' }] }] },
    ];
    const [first, second] = set(rows, 'rest').sections[0]!.rows;
    expect([first!.ems![0], second!.ems![0]]).toEqual([expect.closeTo(2.08), expect.closeTo(3.12)]);
  });

  it.each<[string, TableRow['cells'][number]]>([
    ['a letter that no width is known of', cell('é')],
    ['a line end', { runs: [{ kind: 'text', text: 'a' }, { kind: 'break' }] }],
    ['a mark of what is wrong', { runs: [{ kind: 'text', text: 'a', fault: 'blank' }] }],
    ['a picture', { runs: [], picture: { picture: 'x', width: 10, alt: '' } }],
  ])('says nothing where there is %s', (_, odd) => {
    const rows = [{ cells: [odd] }];
    expect(set(rows, 'content').columns[0]).not.toHaveProperty('widest');
    expect(set(rows, 'rest').sections[0]!.rows[0]).not.toHaveProperty('ems');
  });

  it('gives numbers room after them, so that their decimal signs stand below one another', () => {
    const texts = ['224', '0.364', '1,000.5', '5 %', ''];
    const rows = texts.map((text) => ({ cells: [text ? cell(text) : { runs: [] }] }));
    const sums = { label: [], value: cell('12.50').runs };
    const numbers: ComposedTable = {
      ...table(rows, ['content']),
      columns: [{ id: 'one', heading: [], align: 'end', width: 'content', numbers: true }],
      sections: [{ rows, subtotal: sums }],
    };
    const [section] = setTable(numbers, { ...SETTING, room: 50 }).sections;
    const roomOf = (runs: object[]) => runs.flatMap((run) => ('kind' in run && run.kind === 'room' ? [run] : []));
    expect(section!.rows.map(({ cells: [runs] }) => roomOf(runs as object[]))).toEqual([
      [{ kind: 'room', text: '.000', ems: 1.75 }], [], [{ kind: 'room', text: '00', ems: 1 }],
      [{ kind: 'room', text: '.000', ems: 1.75 }], [],
    ]); // prettier-ignore
    expect(roomOf(section!.subtotal!.value)).toEqual([{ kind: 'room', text: '0', ems: 0.5 }]);
  });

  it('lets a word be broken only where its column may be too narrow for it', () => {
    const rows = ['Einscheibensicherheitsglas', 'a hyphenated name of many short words'].map((text) => ({
      cells: [cell(text), cell('0'.repeat(36))],
    }));
    const hyphens = (room: number) =>
      setTable(table(rows, ['rest', 'content']), { ...SETTING, room }).sections[0]!.rows.map((row) => 'hyphens' in row);
    expect([hyphens(40), hyphens(60)]).toEqual([[true, false], [false, false]]); // prettier-ignore
  });

  it('knows a row that may be taller than a page', () => {
    const rows = [{ cells: [cell('a '.repeat(800))] }, { cells: [cell('a')] }];
    expect(set(rows, 'rest').sections[0]!.rows.map((row) => 'long' in row)).toEqual([true, false]);
  });
});

describe('pages', () => {
  const press = join(process.cwd(), '.build/press');
  const unforeseen = mkdtempSync(join(tmpdir(), 'lumbix-unforeseen-'));
  cpSync(press, unforeseen, { recursive: true });
  const { figures } = JSON.parse(readFileSync(join(press, 'widths.json'), 'utf8')) as { figures: object };
  writeFileSync(join(unforeseen, 'widths.json'), JSON.stringify({ letters: {}, figures }));
  afterAll(() => rmSync(unforeseen, { recursive: true }));
  const [foreseeing, trying] = [new Typesetter(press), new Typesetter(unforeseen)];
  const deal = demoSnapshot('D-1203');
  const [line] = deal.fields.lines as RecordSnapshot[];

  const withoutCarry = (blocks: ComposedBlock[]): ComposedBlock[] =>
    JSON.parse(
      JSON.stringify(blocks, (key, value: unknown) => (key === 'carry' ? undefined : value)),
    ) as ComposedBlock[];
  const words = fc
    .array(
      fc.constantFrom(
        'Frame',
        'bay,',
        'aluminium',
        'Wärmeschutz-Verglasung',
        '6.4 m',
        'WWW',
        'iil',
        '½',
        '温室',
        '“R&W”',
      ),
      { minLength: 1, maxLength: 14 },
    )
    .map((each) => each.join(' '));
  const someLines = fc.array(
    fc.record({
      name: words,
      description: fc.option(words, { nil: null }),
      quantity: fc.integer({ min: 1, max: 99_999 }).map((number) => ({ number: String(number) })),
      unit_price: fc
        .integer({ min: 1, max: 9_999_999 })
        .map((cents) => ({ amount: (cents / 100).toFixed(2), currency: 'GBP' })),
    }),
    { minLength: 5, maxLength: 45 },
  );

  it.each(shipped.templates.filter(({ id }) => /quote|proposal/.test(id)))(
    'of $name are the same as when nothing is foreseen',
    (template) => {
      fc.assert(
        fc.property(someLines, fc.constantFrom(...template.editions), (lines, { id }) => {
          const snapshot = withFields(deal, {
            lines: lines.map((each, index) => ({
              ...line!,
              id: `L-${index}`,
              fields: { ...line!.fields, ...each, position: { number: String(index + 1) } },
            })),
          });
          const context = {
            schema: demoSchema,
            pins: shipped,
            issueDate: '2026-11-23',
            edition: id,
            available: demoPictures,
          };
          const { document, assets } = compose({ ...template, annexes: [] }, snapshot, { ...context, registered: [] });
          expect(JSON.stringify(document)).not.toContain('"fault"');
          // Room for carried sums is kept only where it is foreseen.
          const plain = { ...document, body: withoutCarry(document.body) };
          return foreseeing.proof(plain, assets).pages.join() === trying.proof(plain, assets).pages.join();
        }),
        { numRuns: 12 },
      );
    },
    60_000,
  );
});
