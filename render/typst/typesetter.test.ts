import { drawnWithPaths, glyphsOf } from '../../core/production/page-drawing';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NodeCompiler } from '@myriaddreamin/typst-ts-node-compiler';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { compose } from '../../core/production/compose';
import { demoRecords } from '../../demo/crm/index';
import { shipped } from '../../demo/shipped';
import type { ComposedBlock } from '../../core/template/blocks';
import type { ComposedDocument } from '../../core/template/composed';
import { demoPictures, demoSchema, demoSnapshot, withFields } from '../../tests/demo-snapshot';
import type { RecordSnapshot } from '../../core/record/snapshot';
import { Typesetter } from './typesetter';

const { templates } = shipped;
const typesetter = new Typesetter(join(process.cwd(), '.build/press'));
const folder = mkdtempSync(join(tmpdir(), 'lumbix-pages-'));
afterAll(() => rmSync(folder, { recursive: true }));

const CONTEXT = {
  schema: demoSchema,
  pins: shipped,
  issueDate: '2026-11-23',
  edition: 'en',
  plan: 'file',
};
const composed = (snapshot: RecordSnapshot) =>
  compose(templates[0]!, snapshot, { ...CONTEXT, number: { serial: 42, text: 'Q-2026-0042' } });

function print(snapshot: RecordSnapshot): { file: string; text: string; pages: string[] } {
  const { document, assets } = composed(snapshot);
  const file = join(folder, `${snapshot.id}.pdf`);
  writeFileSync(file, typesetter.pdf(document, assets));
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  return { file, text, pages: text.split('\f').slice(0, -1) };
}

describe.each(demoRecords.deals.map(({ id }) => id))('%s', (id) => {
  const { file, text } = print(demoSnapshot(id));

  it('is a sound PDF with every font embedded', () => {
    expect(execFileSync('qpdf', ['--check', file], { encoding: 'utf8' })).toContain(
      'No syntax or stream encoding errors',
    );
    const fonts = execFileSync('pdffonts', [file], { encoding: 'utf8' }).trim().split('\n').slice(2);
    expect(fonts.length).toBeGreaterThan(0);
    for (const font of fonts) expect(font).toMatch(/ yes (yes|no) +(yes|no) +\d+ +\d+$/);
  });

  it('prints no formula and nothing undefined', () => {
    expect(text).not.toMatch(/=\[|undefined|\[object|NaN/);
    expect(text).toMatch(/Page 1 of \d/);
  });
});

it.each([
  ['a4', false, '595.276 x 841.89'],
  ['a4', true, '841.89 x 595.276'],
  ['letter', false, '612 x 792'],
  ['a5', true, '595.276 x 419.528'],
] as const)('sets pages of %s, landscape %s', (size, landscape, points) => {
  const { document, assets } = composed(demoSnapshot('D-1187'));
  const page = { ...document.page, size, landscape };
  const file = join(folder, 'size.pdf');
  writeFileSync(file, typesetter.pdf({ ...document, page }, assets));
  expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toContain(`Page size:       ${points}`);
  const [width] = points.split(' x ').map(Number);
  expect(typesetter.proof({ ...document, page }, assets).pageSize.width).toBeCloseTo(width!, 1);
});

describe('a table that goes on over pages', () => {
  const pence = (amount: string) => Number(amount.replace(/[,.]/g, ''));
  /** The net sums of the lines on a page, and what it says of those before and up to its end, in pence. */
  const sumsOf = (page: string) => {
    const said = (words: string) => new RegExp(`${words} +([\\d,.]+)$`, 'm').exec(page)?.[1];
    const [brought, forward] = [said('Brought forward'), said('Carried forward')];
    return {
      lines: [...page.matchAll(/^ *\d{1,3} {2,}\S.* ([\d,]+\.\d\d)$/gm)].map(([, net]) => pence(net!)),
      brought: brought && pence(brought),
      forward: forward && pence(forward),
    };
  };

  it('says on each page the sum up to its end, and on the next from where it goes on', () => {
    const pages = print(demoSnapshot('D-1203'))
      .pages.map(sumsOf)
      .filter(({ lines }) => lines.length > 0);
    expect(pages.flatMap(({ lines }) => lines)).toHaveLength(140);
    let sum = 0;
    for (const [at, { lines, brought, forward }] of pages.entries()) {
      expect(brought).toBe(at === 0 ? undefined : sum);
      sum += lines.reduce((total, net) => total + net, 0);
      expect(forward).toBe(at === pages.length - 1 ? undefined : sum);
    }
  });

  it('carries nothing where it ends on its first page', () => {
    const { text } = print(demoSnapshot('D-1219'));
    expect(text).not.toMatch(/(Brought|Carried) forward/);
  });
});

it('groups of a table have their lines and their sum under their heading', () => {
  const { document } = compose(templates[1]!, demoSnapshot('D-1213'), { ...CONTEXT, registered: [] });
  const table = document.body.find((block) => block.kind === 'table');
  const structure =
    table?.kind === 'table'
      ? table.sections.map(({ heading, rows, subtotal }) =>
          [heading, subtotal?.value]
            .map((runs) => runs?.map((run) => (run.kind === 'text' ? run.text : '')).join(''))
            .concat(String(rows.length)),
        )
      : [];
  expect(structure).toEqual([
    ['Structure', '40,848.00', '1'],
    ['Climate', '39,416.00', '4'],
    ['Services', '840.00', '1'],
  ]);
});

it('a payment code is printed for euros, and not for pounds', () => {
  const codes = (deal: string) =>
    Object.keys(
      compose(
        templates.find(({ id }) => id === 'deposit-invoice')!,
        demoSnapshot(deal),
        { ...CONTEXT, registered: [] },
      ).assets,
    ).length;
  expect([codes('D-1189'), codes('D-1194')]).toEqual([2, 1]);
});

it('is tagged, with its title and language', () => {
  const { file } = print(demoSnapshot('D-1187'));
  const about = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
  expect(about).toMatch(/Tagged: +yes/);
  expect(about).toMatch(/Title: +Quote Q-2026-0042, Vent renewal, house 3/);
  const content = execFileSync('qpdf', ['--qdf', '--object-streams=disable', file, '-'], { encoding: 'latin1' });
  expect(content).toMatch(/\/Lang \(en/);
});

it('prints user text as it was typed', () => {
  const { text } = print(demoSnapshot('D-1198'));
  for (const typed of [
    'Sensor <b>"R&W"</b> #1 $x$ *bold* _it_ [ref] \\n @cite `code`',
    '= heading? - list? // comment /* c */ ~ $ #let x = 1',
    '<PO> #7 & "9" $x$ *y* [z] \\w',
    'Dorran Glass "North" <Sales> & Sons 🌱',
    'Dorran\\Quay',
    'Bay [B] \\ $4 *rear*',
    "It's 5 > 3 & 2 < 4; “quotes”, 'single', emoji 🌱 ok",
  ])
    expect(text).toContain(typed);
});

it.each(['#panic()', '\\', '$', '#{', '*', '"', '//', '\u0000', '#image("/etc/passwd")', '</svg><script>'])(
  'cannot be broken out of with %j',
  (typed) => {
    const hostile = withFields(demoSnapshot('D-1187'), { name: `A${typed}Z` });
    expect(print({ ...hostile, id: 'hostile' }).pages).toHaveLength(1);
    const { document, assets } = composed(hostile);
    expect(typesetter.proof(document, assets).pages.join('')).not.toMatch(/<script|<foreignObject/);
  },
);

describe('the 140-line quote', () => {
  const { pages } = print(demoSnapshot('D-1203'));

  it('repeats its headings on every page that has lines', () => {
    expect(pages).toHaveLength(7);
    for (const page of pages.slice(0, 6)) expect(page).toMatch(/Item +Qty +Unit +Price/);
  });

  it('splits no row: every description stands under its item', () => {
    const positions = pages.flatMap((page) => [...page.matchAll(/^ *(\d+) +Room /gm)].map((match) => Number(match[1])));
    expect(positions).toEqual(Array.from({ length: 140 }, (_, index) => index + 1));
    for (const page of pages)
      expect(page.split('\n').filter((each) => each.trim())[3]).not.toMatch(/^ {6,}[A-Z][a-z]+ [^:]*$/);
  });
});

it('shapes the Arabic name and runs it right to left', () => {
  const { file } = print(demoSnapshot('D-1192'));
  expect(execFileSync('pdffonts', [file], { encoding: 'utf8' })).toContain('IBMPlexSansArabic');
  // The heaviest line of the page's left half is the name: its first word must stand furthest to the right.
  const words = [
    ...execFileSync('pdftotext', ['-bbox', file, '-'], { encoding: 'utf8' }).matchAll(
      /xMin="([\d.]+)" yMin="([\d.]+)"[^>]*>([^<]*)</g,
    ),
  ]
    .map(([, x, y, text]) => ({ x: Number(x), y: Number(y), text: text!.normalize('NFKC') }))
    .filter(({ text }) => /[\u0600-\u06ff]/.test(text));
  const top = Math.min(...words.map(({ y }) => y));
  const name = words.filter(({ y }) => y < top + 8).sort((a, b) => a.x - b.x);
  expect(name[0]!.text).toMatch(/[ور]/);
  expect(name.at(-1)!.text).toMatch(/[مز]/);
});

it('breaks a word that is wider than its column instead of running over the next', () => {
  const { file } = print(demoSnapshot('D-1206'));
  const words = execFileSync('pdftotext', ['-bbox', file, '-'], { encoding: 'utf8' });
  const right = Math.max(...[...words.matchAll(/xMax="([\d.]+)"/g)].map((match) => Number(match[1])));
  expect(right).toBeLessThan(595.3 - 56);
});

it('shows the same pages in the proof as in the filed PDF', () => {
  for (const id of ['D-1187', 'D-1188', 'D-1203']) {
    const { document, assets } = composed(demoSnapshot(id));
    const { pages, pageSize } = typesetter.proof(document, assets);
    expect(pages).toHaveLength(print(demoSnapshot(id)).pages.length);
    expect([Math.round(pageSize.width), Math.round(pageSize.height)]).toEqual([595, 842]);
    // Every page has its footer, and every page but the first its running header.
    pages.forEach((page, index) => {
      expect(page).toContain('href="lumbix:foot-name"');
      expect(page.includes('href="lumbix:title 1"')).toBe(index > 0);
    });
  }
});

it('defines glyphs so that screens can draw runs of them as paths', () => {
  for (const id of ['D-1187', 'D-1203']) {
    const { document, assets } = composed(demoSnapshot(id));
    const { glyphs, pages } = typesetter.proof(document, assets);
    const { outlines, others } = glyphsOf(glyphs);
    expect(outlines.size).toBeGreaterThan(200);
    expect(others).not.toContain('<symbol');
    expect(pages.map((page) => drawnWithPaths(page, outlines)).join('')).not.toContain('<use');
  }
});

it('makes every value of a proof a link, and none of the filed PDF', () => {
  const { document, assets, values } = composed(demoSnapshot('D-1187'));
  const { pages } = typesetter.proof(document, assets);
  const linked = new Set(
    [...pages.join('').matchAll(/ href="lumbix:([^"]+)"/g)].map((match) => match[1]!.replaceAll('&quot;', '"')),
  );
  for (const id of linked) expect(values).toHaveProperty([id]);
  expect(linked.size).toBeGreaterThan(40);
  expect(pages.join('')).toContain('href="lumbix-section:start:heated"');
  expect(Buffer.from(typesetter.pdf(document, assets)).toString('latin1')).not.toContain('lumbix:');
});

describe('a proof with page breaks', () => {
  const proposal = templates.find(({ id }) => id === 'full-proposal')!;
  const offered = (id: string) => compose(proposal, demoSnapshot(id), { ...CONTEXT, available: demoPictures });
  /** Breaks inside of a section are no places where it is taken apart. */
  const inOnePiece = (document: ComposedDocument): ComposedDocument => ({
    ...document,
    body: [{ kind: 'section', block: 'all', note: '', blocks: [...document.body] }],
  });
  const glyphsOn = (page: string) => page.match(/<use/g)?.length ?? 0;
  const bare = (words: string): ComposedBlock => ({
    kind: 'paragraph',
    block: words,
    align: 'start',
    runs: [{ kind: 'text', text: words }],
  });
  const BREAK: ComposedBlock = { kind: 'pageBreak', block: 'break' };

  it('has the pages that it would have in one piece', () => {
    for (const id of ['D-1188', 'D-1194', 'D-1203']) {
      const { document, assets } = offered(id);
      const { pages, glyphs } = typesetter.proof(document, assets);
      const whole = typesetter.proof(inOnePiece(document), assets);
      expect(pages.map(glyphsOn)).toEqual(whole.pages.map(glyphsOn));
      expect(glyphsOf(glyphs).outlines).toEqual(glyphsOf(whole.glyphs).outlines);
    }
  });

  it('has a page for each break that is one', () => {
    const { document, assets } = composed(demoSnapshot('D-1187'));
    for (const body of [
      [BREAK, bare('one')],
      [bare('one'), BREAK],
      [bare('one'), BREAK, BREAK, bare('two')],
      [BREAK, BREAK, bare('one'), BREAK, bare('two'), BREAK],
    ]) {
      const broken = { ...document, body };
      const file = join(folder, 'broken.pdf');
      writeFileSync(file, typesetter.pdf(broken, assets));
      const printed = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
      expect(typesetter.proof(broken, assets).pages).toHaveLength(Number(/Pages:\s+(\d+)/.exec(printed)![1]));
    }
  });

  it('draws anew what stands between the breaks around a change, and nothing else', () => {
    const { document, assets } = offered('D-1188');
    const before = typesetter.proof(document, assets);
    const drawn = vi.spyOn(NodeCompiler.prototype, 'plainSvg');
    const changed = { ...document, body: [bare('A word more.'), ...document.body] };
    const after = typesetter.proof(changed, assets);
    expect(drawn).toHaveBeenCalledTimes(1);
    expect(after.pages[0]).not.toBe(before.pages[0]);
    expect(after.pages.slice(1)).toEqual(before.pages.slice(1));
    drawn.mockRestore();
  });
});
