import { PDFDocument } from '@cantoo/pdf-lib';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { compose, type ComposeContext } from '../../core/production/compose';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot, filesOf, withFields } from '../../tests/demo-snapshot';
import { readPages } from '../../tests/read-pdf';
import { rasterised } from '../png/thumbnail';
import { Typesetter } from '../typst/typesetter';
import { printPdf } from './print';

const typesetter = new Typesetter(join(process.cwd(), '.build/press'));
const folder = mkdtempSync(join(tmpdir(), 'lumbix-print-'));
afterAll(() => rmSync(folder, { recursive: true }));

const [quote, proposal] = shipped.templates as [Template, Template];
const conditions = filesOf(proposal);

function composed(template: Template, deal: string, more: Partial<ComposeContext> = {}) {
  return compose(template, demoSnapshot(deal), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    edition: 'en',
    registered: [],
    number: { serial: 1, text: 'Q-1' },
    available: { ...demoPictures, ...conditions },
    ...more,
  });
}

/** The quote with another way of making its PDF. */
const made = (pdf: Template['plans'][number]['pdf']): Template => ({ ...quote, plans: [{ ...quote.plans[0]!, pdf }] });

async function printed(composition: ReturnType<typeof composed>): Promise<string> {
  const file = join(folder, `${Math.random()}.pdf`);
  writeFileSync(file, await printPdf(typesetter, composition));
  return file;
}
const tool = (program: string, ...options: string[]) => execFileSync(program, options, { encoding: 'latin1' });

describe('a PDF', () => {
  it('for archives says so, and what it is in (ISO 19005-2)', async () => {
    const content = tool(
      'qpdf',
      '--qdf',
      '--object-streams=disable',
      await printed(composed(made({ standard: 'pdf/a-2b' }), 'D-1187')),
      '-',
    );
    expect(content).toMatch(/<pdfaid:part>2<\/pdfaid:part>/);
    expect(content).toMatch(/<pdfaid:conformance>B<\/pdfaid:conformance>/);
    expect(content).toContain('/OutputIntent');
  });

  it('for everybody’s eyes and ears says so (ISO 14289-1)', async () => {
    const content = tool(
      'qpdf',
      '--qdf',
      '--object-streams=disable',
      await printed(composed(made({ standard: 'pdf/ua-1' }), 'D-1188')),
      '-',
    );
    expect(content).toMatch(/<pdfuaid:part>1<\/pdfuaid:part>/);
    expect(content).toContain('/DisplayDocTitle true');
  });

  it('that is protected opens with its password alone, and lets nothing be changed', async () => {
    const protection = { password: 'deal.order_number', printing: true, copying: false, changing: false };
    const composition = composed(made({ protection }), 'D-1188');
    expect(composition.output.protection?.password).toBe('KH/26/0317');
    const file = await printed(composition);
    expect(spawnSync('qpdf', ['--check', file]).status).not.toBe(0);
    const encryption = tool('qpdf', '--password=KH/26/0317', '--show-encryption', file);
    expect(encryption).toContain('AESv3');
    expect(encryption).toMatch(/extract for any purpose: not allowed/);
    expect(encryption).toMatch(/modify document assembly: not allowed/);
    expect(encryption).toMatch(/print high resolution: allowed/);
    expect(tool('pdftotext', '-upw', 'KH/26/0317', file, '-')).toContain('Propagation house');
  });

  it('is not both protected and for archives', () => {
    const both = made({ standard: 'pdf/a-2b', protection: { printing: true, copying: true, changing: false } });
    expect(composed(both, 'D-1187').findings[0]).toMatchObject({
      severity: 'stops',
      sentence: 'A PDF/A document cannot be protected: take the archive standard or the protection off the plan.',
    });
  });

  it('of a trial says so on every page, in the words of its edition', async () => {
    const pages = await readPages(await printed(composed(quote, 'D-1188', { trial: true })));
    expect(pages.length).toBeGreaterThan(1);
    for (const { items } of pages) expect(items.map(({ text }) => text)).toContain('Trial');
    expect(composed(quote, 'D-1188', { trial: true, edition: 'nl' }).document.watermark).toBe('Proef');
    expect(composed(quote, 'D-1188').document.watermark).toBeUndefined();
  });

  it('has its annexes joined to the end, their pages counted', async () => {
    const composition = composed(proposal, 'D-1188');
    expect(composition.annexes).toEqual([
      { label: 'General conditions', sha256: Object.keys(conditions)[0], pages: 1 },
    ]);
    const file = await printed(composition);
    const pages = tool('pdftotext', '-layout', file, '-').split('\f').slice(0, -1);
    expect(pages.at(-1)).toContain('General conditions');
    expect(pages[0]).toContain(`Page 1 of ${pages.length}`);
    expect(tool('qpdf', '--check', file)).toContain('No syntax or stream encoding errors');
    expect(tool('pdfinfo', file)).toMatch(/Tagged: +yes/);
    // 18,436.80 in all: below what the conditions are joined for.
    expect(composed(proposal, 'D-1187').annexes).toEqual([]);
  });

  describe('with a PDF that was joined for it alone', () => {
    const sha256 = Object.keys(conditions)[0]!;
    const joined = (template: Template, counted: boolean, standard?: 'pdf/a-2b') => {
      const change = { type: 'join' as const, file: sha256, counted };
      return composed(template, 'D-1187', {
        files: { [sha256]: { sha256, mediaType: 'application/pdf', pages: 1, standard } },
        changes: [{ id: 'c', change, label: 'Terms.pdf', by: 'Tamar Whitlow', at: '2026-11-23T09:00:00.000Z' }],
      });
    };

    it('has it behind the others, its pages counted where that is wanted', async () => {
      const alone = tool('pdftotext', await printed(composed(quote, 'D-1187')), '-').split('\f').length - 1;
      for (const counted of [true, false]) {
        const pages = tool('pdftotext', '-layout', await printed(joined(quote, counted)), '-')
          .split('\f')
          .slice(0, -1);
        expect(pages).toHaveLength(alone + 1);
        expect(pages.at(-1)).toContain('General conditions');
        expect(pages[0]).toMatch(new RegExp(`Page 1 of ${counted ? alone + 1 : alone}\\b`));
      }
    });

    it('is no archive where that one is none', () => {
      const found = (standard?: 'pdf/a-2b') =>
        joined(made({ standard: 'pdf/a-2b' }), false, standard).findings.filter(({ severity }) => severity === 'stops');
      expect(found('pdf/a-2b')).toEqual([]);
      expect(found()).toMatchObject([
        { sentence: expect.stringContaining('“Terms.pdf”, which would be joined to it, is none') as string },
      ]);
    });
  });

  it('takes an annex that the template does not have for a mistake', () => {
    const template = { ...proposal, annexes: [{ id: 'x', label: 'Data sheet', file: '"gone"' }] };
    expect(composed(template, 'D-1187').findings.map(({ sentence }) => sentence)).toContain(
      'The template has no PDF “gone” to join as “Data sheet”.',
    );
  });
});

it('a thumbnail is a PNG of the first page', () => {
  const { document, assets } = composed(quote, 'D-1187');
  const png = rasterised(typesetter.proof(document, assets), 210);
  const view = new DataView(png.buffer, png.byteOffset);
  expect([view.getUint32(0), view.getUint32(16), view.getUint32(20)]).toEqual([0x89504e47, 210, 297]);
  expect(png.length).toBeGreaterThan(5_000);
});

it('a picture that cannot be drawn is found by drawing it', () => {
  const bytes = new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
  expect(() => typesetter.tryPicture({ mediaType: 'image/png', bytes })).toThrow();
  const [good] = Object.values(demoPictures);
  expect(() => typesetter.tryPicture(good!)).not.toThrow();
});

it('a row that is taller than a page goes on over the next ones; others stay whole', async () => {
  const long = Array.from({ length: 900 }, (_, index) => `word${index}`).join(' ');
  const deal = demoSnapshot('D-1187');
  const lines = (deal.fields.lines as RecordSnapshot[]).map((line, at) =>
    at === 1 ? withFields(line, { description: `${long} end-of-it` }) : line,
  );
  const composition = compose(quote, withFields(deal, { lines }), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-23',
    edition: 'en',
  });
  const pdf = await printPdf(typesetter, composition);
  const file = join(folder, 'tall.pdf');
  writeFileSync(file, pdf);
  const text = tool('pdftotext', file, '-');
  for (const word of ['word0', 'word450', 'word899', 'end-of-it', 'Rain and wind sensor']) expect(text).toContain(word);
  expect((await PDFDocument.load(pdf)).getPageCount()).toBeLessThan(6);
});
