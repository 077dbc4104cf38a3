import type { Block } from '../template/blocks';
import type { LineTable, ComposedTable } from '../template/blocks/line-table';
import { describe, expect, it } from 'vitest';
import { shipped } from '../../demo/shipped';
import { composeBlocks } from '../../tests/compose-blocks';
import { demoSnapshot, withFields } from '../../tests/demo-snapshot';
import type { RecordSnapshot } from '../record/snapshot';
import type { Inline } from '../template/inlines';
import type { Run } from '../template/composed';

const plain = (runs: readonly Run[] = []) => runs.map((run) => (run.kind === 'text' ? run.text : ' / ')).join('');
const column = (id: string, formula: string, more: object = {}) => ({
  id,
  heading: id,
  formula,
  align: 'start' as const,
  width: 'rest' as const,
  ...more,
});

/** A template of one table over a demo deal, as it prints; what is found besides. */
function printed(table: Partial<LineTable>, deal: RecordSnapshot | string, blocks: Block[] = []) {
  const attrs: LineTable = { id: 'own', label: 'Own', list: 'lines', columns: [column('name', 'name')], ...table };
  const composition = composeBlocks([{ type: 'lineTable', attrs }, ...blocks], { deal });
  const composed = composition.document.body.find((block): block is ComposedTable => block.kind === 'table');
  const rows = composed?.sections.flatMap((section) => section.rows) ?? [];
  return {
    composition,
    composed,
    rows,
    names: rows.map(({ cells, part }) => (part ? '> ' : '') + plain(cells[0]!.runs)),
  };
}

describe('a line table', () => {
  it('prints what passes its filter, in its order', () => {
    const { names } = printed({ filter: 'quantity > 1', sort: { by: 'unit_price', descending: true } }, 'D-1187');
    expect(names).toEqual(['Vent motor VM-48, 24 V', 'Ridge vent, aluminium, 2.4 m', 'Rain and wind sensor']);
  });

  it('that is left empty by its filter says its sentence, or nothing at all', () => {
    expect(
      printed({ filter: 'quantity > 900', empty: 'None of =[deal.name].' }, 'D-1187').composition.document.body,
    ).toMatchObject([
      { kind: 'paragraph', runs: [{ text: 'None of ' }, { text: 'Vent renewal, house 3' }, { text: '.' }] },
    ]);
    expect(printed({ filter: 'quantity > 900' }, 'D-1187').composition.document.body).toEqual([]);
  });

  it('says which of its columns are numbers', () => {
    const { composed } = printed(
      {
        columns: [
          column('no', '', { counter: true, align: 'end' }),
          column('name', 'name', { align: 'end' }),
          column('quantity', 'quantity', { align: 'end' }),
          column('price', 'unit_price', { align: 'start' }),
          column('discount', 'discount', { align: 'end', mayBeBlank: true }),
        ],
      },
      'D-1187',
    );
    expect(composed!.columns.map(({ numbers }) => numbers ?? false)).toEqual([false, false, true, false, true]);
  });

  it('has neither heading nor sum for a group that is the only one', () => {
    const groups = {
      list: 'GROUP(lines, unit)',
      items: 'item.lines',
      heading: '=[unit]',
      subtotal: { label: '=[unit]', formula: 'COUNT(item.lines)' },
    };
    const grouped = (filter: string) =>
      printed({ groups: { ...groups, list: `GROUP(lines[${filter}], unit)` } }, 'D-1188').composed!.sections;
    expect(grouped('unit = "pc"')).toMatchObject([{ rows: [{}, {}] }]);
    expect(grouped('unit = "pc"')[0]).not.toHaveProperty('heading');
    expect(grouped('unit = "pc" or unit = "day"').map(({ heading }) => plain(heading))).toEqual(['pc', 'day']);
  });

  it('numbers its rows, and has a second line where there is one', () => {
    const { rows } = printed(
      { columns: [column('no', '', { counter: true }), column('name', 'name', { detail: 'description' })] },
      'D-1187',
    );
    expect(rows.map(({ cells }) => plain(cells[0]!.runs))).toEqual(rows.map((_, at) => String(at + 1)));
    const described = (demoSnapshot('D-1187').fields.lines as RecordSnapshot[]).map(({ fields }) => fields.description);
    expect(rows.map(({ cells }) => cells[1]!.detail && plain(cells[1]!.detail))).toEqual(
      described.map((each) => each ?? undefined),
    );
  });

  it.each(['net', ' net ', '`net`'])(
    'proves the column “%s” on its rows, however its formula is written',
    (formula) => {
      const table = { list: 'lines[ not  optional ]', columns: [column('name', 'name'), column('net', formula)] };
      // The sheet's own five sums over its lists and lines, and the printed column.
      const without = printed({ columns: [column('name', 'name')] }, 'D-1187').composition.proved.sums;
      expect(printed(table, 'D-1187').composition.proved.sums).toBe(without + 1);
    },
  );

  it('carries the exact running sum of a column', () => {
    const { rows, composed } = printed(
      { columns: [column('name', 'name'), column('net', 'net', { format: 'plain' })], carry: 'net' },
      'D-1200',
    );
    // 3 × 33.333 = 99.999, 3 × 0.335 = 1.005, 0.125: each rounded to cents before it is added.
    expect(rows.map(({ carried }) => carried)).toEqual(['100.00', '101.01', '101.14']);
    expect(composed!.carry).toEqual({ column: 1, forward: 'Carried forward', brought: 'Brought forward' });
  });

  it('prints pictures, and tells of one that cannot be printed', () => {
    const picture = column('picture', 'product.picture', { picture: { width: 34, height: 26 } });
    const { rows } = printed({ columns: [picture] }, 'D-1187');
    expect(rows[0]!.cells[0]!.picture).toMatchObject({
      picture: expect.stringMatching(/^[0-9a-f]{64}$/),
      width: 34,
      alt: 'Vent motor VM-48, 24 V',
    });
    const deal = demoSnapshot('D-1187');
    const [first] = deal.fields.lines as RecordSnapshot[];
    const refused = { image: { link: 'x', refused: 'The picture is cut off.' } };
    const broken = withFields(deal, {
      lines: [
        withFields(first!, { product: withFields(first!.fields.product as RecordSnapshot, { picture: refused }) }),
      ],
    });
    const { composition } = printed({ columns: [picture] }, broken);
    expect(composition.findings).toMatchObject([
      {
        severity: 'warns',
        title: 'A picture is missing',
        sentence: 'The picture is cut off. Nothing is printed in its place.',
      },
    ]);
  });
});

describe('bundles', () => {
  const bundles = { key: 'sku', partOf: 'part_of', show: 'parts_shown', name: 'name' };
  /** The climate set with its parts shown in one way. */
  const shown = (how: string | null) => {
    const deal = demoSnapshot('D-1215');
    return withFields(deal, {
      lines: (deal.fields.lines as RecordSnapshot[]).map((line) => withFields(line, { parts_shown: how })),
    });
  };

  it('print their parts indented under the whole, wherever those stand', () => {
    const deal = shown(null);
    const backwards = withFields(deal, { lines: [...(deal.fields.lines as RecordSnapshot[])].reverse() });
    expect(printed({ bundles }, deal).names).toEqual([
      'Climate set, one house',
      '> Rain and wind sensor',
      '> Temperature and humidity probe',
      '> Electrician, day',
      'Heating pipe, 51 mm',
    ]);
    expect(printed({ bundles }, backwards).names.filter((name) => name.startsWith('>'))).toHaveLength(3);
  });

  it('roll their parts up into the second line, or hide them', () => {
    const { rows, names } = printed({ bundles }, shown('rolled up'));
    expect(names).toEqual(['Climate set, one house', 'Heating pipe, 51 mm']);
    expect(plain(rows[0]!.cells[0]!.detail)).toBe(
      'Rain and wind sensor; Temperature and humidity probe; Electrician, day',
    );
    expect(plain(printed({ bundles }, shown('hidden')).rows[0]!.cells[0]!.detail)).toBe('');
  });

  it('whose parts are inside print their money with them: the column adds up to the subtotal', () => {
    // 3,600 + 2 × 195 + 4 × 150 + 400 = 4,990.
    const { rows } = printed(
      {
        bundles,
        list: 'lines[not optional]',
        columns: [column('name', 'name'), column('net', 'printed_net', { format: 'plain' })],
      },
      shown('hidden'),
    );
    expect(rows.map(({ cells }) => plain(cells[1]!.runs))).toEqual(['4,990.00', '0.00']);
  });

  it('two wholes of one key: the first has the parts; parts of each other stand once', () => {
    const deal = demoSnapshot('D-1187');
    const [one, two, three] = deal.fields.lines as RecordSnapshot[];
    const lines = (...fields: [string, string | null][]) =>
      withFields(deal, {
        lines: [one!, two!, three!].map((line, at) =>
          withFields(line, { name: 'abc'[at]!, sku: fields[at]![0], part_of: fields[at]![1] }),
        ),
      });
    expect(printed({ bundles }, lines(['X', null], ['X', null], ['P', 'X'])).names).toEqual(['a', '> c', 'b']);
    expect(printed({ bundles }, lines(['X', 'Y'], ['Y', 'X'], ['P', null])).names).toEqual(['b', '> a', 'c']);
  });

  it('a part whose whole is not in the table stands for itself', () => {
    expect(printed({ bundles, filter: 'sku <> "CC-8"' }, shown(null)).names[0]).toBe('Rain and wind sensor');
  });
});

describe('blocks of words', () => {
  it('a formatted text prints its blocks, without what runs', () => {
    const block: Block = { type: 'richText', attrs: { id: 'rich', formula: 'deal.scope_note' } };
    const { composition } = printed({ filter: 'false' }, 'D-1188', [block]);
    expect(composition.document.body.map((each) => each.kind)).toEqual(['paragraph', 'list', 'paragraph']);
    expect(JSON.stringify(composition.document.body)).not.toMatch(/alert|javascript/);
    expect(composition.values.rich).toMatchObject({ block: 'rich' });
  });

  it('one that is missing stops, unless it may be blank', () => {
    const block = (mayBeBlank: boolean): Block => ({
      type: 'richText',
      attrs: { id: 'rich', formula: 'deal.scope_note', mayBeBlank },
    });
    expect(printed({ filter: 'false' }, 'D-1187', [block(false)]).composition.findings).toMatchObject([
      { severity: 'stops' },
    ]);
    expect(printed({ filter: 'false' }, 'D-1187', [block(true)]).composition).toMatchObject({
      findings: [],
      document: { body: [] },
    });
  });

  it('numbered lists, tables of words and pictures of the record print', () => {
    const words = (text: string): Inline[] => [{ type: 'text', text }];
    const item = (id: string, content: Inline[]) => ({ type: 'listItem' as const, attrs: { id }, content });
    const cell = (id: string, content: Inline[]) => ({ type: 'gridCell' as const, attrs: { id }, content });
    const blocks: Block[] = [
      {
        type: 'numberedList',
        attrs: { id: 'steps', start: 3 },
        content: [
          item('steps.1', words('a')),
          item('steps.2', [{ type: 'value', attrs: { id: 'no', formula: 'deal.order_number', mayBeBlank: true } }]),
        ],
      },
      {
        type: 'gridTable',
        attrs: { id: 'grid', widths: [1, 2], header: true },
        content: [
          {
            type: 'gridRow',
            attrs: { id: 'grid.1' },
            content: [cell('grid.1.1', words('x')), cell('grid.1.2', words('y'))],
          },
        ],
      },
      { type: 'picture', attrs: { id: 'photo', formula: 'deal.site_photo', width: 482, height: 100, alt: 'Site' } },
    ];
    expect(printed({ filter: 'false' }, 'D-1194', blocks).composition.document.body).toMatchObject([
      { kind: 'list', start: 3, items: [[{ text: 'a' }]] },
      { kind: 'grid', widths: [1, 2], header: true },
      // 960 × 540 pixels within 482 × 100 points: the height decides, 100 × 960 / 540.
      { kind: 'picture', width: (100 * 960) / 540 },
    ]);
  });

  it('a file that the template does not have is told', () => {
    const block: Block = { type: 'picture', attrs: { id: 'photo', file: 'gone', width: 10, alt: '' } };
    expect(printed({ filter: 'false' }, 'D-1187', [block]).composition.findings).toMatchObject([
      { severity: 'stops', sentence: 'The template has no file “gone” to print as a picture.' },
    ]);
  });
});

describe('what would print without end', () => {
  const nested = (depth: number, inner: Block[]): Block[] =>
    depth === 0
      ? inner
      : [
          {
            type: 'forEach',
            attrs: { id: `each-${depth}`, list: 'deal.lines', note: `level ${depth}` },
            content: nested(depth - 1, inner),
          },
        ];
  const word: Block = { type: 'paragraph', attrs: { id: 'word' }, content: [{ type: 'text', text: 'x' }] };

  it('repetitions that multiply stop with a sentence that names the one to change, before they are made', () => {
    const twice = composeBlocks(nested(2, [word]), { deal: 'D-1203' });
    expect(twice.findings.filter(({ title }) => title === 'Too much to print')).toEqual([]);
    const { findings } = composeBlocks(nested(3, [word]), { deal: 'D-1203' });
    expect(findings.filter(({ title }) => title === 'Too much to print')).toMatchObject([
      {
        severity: 'stops',
        block: 'each-2',
        sentence:
          'With “level 2” this document would print more than 20,000 items. Repetitions inside of repetitions multiply: repeat over fewer items, or filter the list.',
      },
    ]);
  });

  it('a formatted text of any length is bounded too', () => {
    const text = (html: string) =>
      composeBlocks([{ type: 'richText', attrs: { id: 'scope', formula: 'deal.scope_note' } }], {
        deal: withFields(demoSnapshot('D-1187'), { scope_note: { rich: html } }),
      });
    expect(text('<p>a</p>'.repeat(12_000)).document.body).toHaveLength(12_000);
    const { document, findings } = text('<p>a</p>'.repeat(13_000));
    expect(document.body).toEqual([]);
    expect(findings[0]!.sentence).toBe(
      'This text has 104,000 characters with its formats; 100,000 can be printed. Shorten it in the CRM, or join it as a PDF.',
    );
  });
});

describe('digits', () => {
  const locale = 'ar-EG';
  const BARE = { header: [], followingHeader: [], footer: [] };
  const inEgypt = (formula: string) => {
    const { document } = composeBlocks(
      [{ type: 'paragraph', attrs: { id: 'own' }, content: [{ type: 'value', attrs: { id: 'value', formula } }] }],
      {
        template: {
          editions: [{ id: 'en', label: 'Egypt', locale, houseStyle: 'bare' }],
          sheet: { currency: 'deal.currency', rounding: 'half-away', perLine: [], lists: [], document: [], sums: [] },
        },
        context: {
          pins: {
            ...shipped,
            houseStyles: shipped.houseStyles.map((each) => ({ ...each, id: 'bare', letterhead: BARE })),
          } as never,
        },
      },
    );
    const [block] = document.body;
    return [block?.kind === 'paragraph' ? plain(block.runs) : '', document.digits];
  };

  it('are those of the language where nothing else is printed', () => {
    expect(inEgypt('1234.5')).toEqual(['١٬٢٣٤٫٥', '٠١٢٣٤٥٦٧٨٩']);
  });

  it('are Latin ones everywhere in a document that has to print some', () => {
    expect(inEgypt('"CC-24: " & 1234.5')).toEqual(['CC-24: 1,234.5', '0123456789']);
  });
});
