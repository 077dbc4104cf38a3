import { keptMeanings } from '../../core/formula/meanings';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zipSync } from 'fflate';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { Template } from '../../core/template/template';
import { closeDatabase, openDatabase } from '../../server/db/database';
import { assets, templateVersions, trail, type StoppedRecord } from '../../server/db/schema';
import { registeredFor } from '../../server/productions/registered';
import { openQueue, type Queue } from '../../server/jobs/queue';
import { Press } from '../../server/press/press';
import { Problem } from '../../server/problem';
import { trialPdf } from '../../server/productions/proof';
import { readDocument, readFile } from '../../server/register';
import type { Services } from '../../server/services';
import { putInTemplate, takeOutTemplate } from '../../server/template-file';
import { archiveTemplate, listTemplates } from '../../server/templates';
import { templateThumbnail } from '../../server/thumbnail';
import { shipped } from '../../demo/shipped';
import { demoSchema, demoSnapshot, withFields } from '../demo-snapshot';
import { callerWith } from '../callers';
import { openStack, until, type Stack } from './stack';
import { fileAs, filingOf, proofOf } from './produce';

let stack: Stack;
let queue: Queue;
let press: Press;
const CALLER = callerWith();
const database = () => openDatabase().database;
const services = () => ({ database: database(), queue, press }) as unknown as Services;
const bytesOf = (template: unknown) => new TextEncoder().encode(JSON.stringify(template));

beforeAll(async () => {
  stack = await openStack();
  queue = await openQueue();
  press = new Press(1);
  await stack.startWorker();
});
afterAll(async () => {
  await queue.close();
  press.close();
  await closeDatabase();
  await stack.close();
});

async function takenOut(id: string): Promise<Template> {
  return JSON.parse((await takeOutTemplate(database(), id, CALLER)).body) as Template;
}

/** The sentences that a file is refused with. */
async function refusals(file: Uint8Array, reason?: string): Promise<string> {
  const before = await database().select().from(templateVersions);
  const thrown: unknown = await putInTemplate(services(), file, CALLER, { reason }).catch(
    (problem: unknown) => problem,
  );
  expect(thrown).toBeInstanceOf(Problem);
  expect(await database().select().from(templateVersions)).toHaveLength(before.length);
  return (thrown as Problem & { members: { faults: { sentence: string }[] } }).members.faults
    .map(({ sentence }) => sentence)
    .join(' ');
}

describe('a template as a file', () => {
  it('goes out with its pictures inside and comes back the same, which changes nothing', async () => {
    const proposal = await takenOut('full-proposal');
    expect(Buffer.from(proposal.files!['general-conditions']!.content!, 'base64').subarray(0, 5).toString()).toBe(
      '%PDF-',
    );
    expect(await putInTemplate(services(), bytesOf(proposal), CALLER, { reason: 'tried before' })).toMatchObject({
      id: 'full-proposal',
      name: 'Full proposal',
      version: 1,
      outcome: 'unchanged',
    });
    expect(await takenOut('full-proposal')).toEqual(proposal);
  });

  it('says what it would replace; a person replaces it, or puts it in as a new one', async () => {
    const note = await takenOut('delivery-note');
    const changed = { ...note, name: 'Despatch note' };
    const thrown: unknown = await putInTemplate(services(), bytesOf(changed), CALLER).catch((each: unknown) => each);
    expect(thrown).toMatchObject({
      status: 409,
      title: 'This would replace “Delivery note”',
      members: {
        reason: 'replaces',
        template: { name: 'Delivery note', version: 1 },
        templateChanges: [{ part: 'Template', added: [], changed: ['name'], deleted: [] }],
      },
    });
    expect(await takenOut('delivery-note')).toEqual(note);
    const tried = { reason: 'tried before' };
    expect(await putInTemplate(services(), bytesOf(changed), CALLER, { ...tried, as: 'new' })).toMatchObject({
      id: 'delivery-note-2',
      name: 'Despatch note (2)',
      version: 1,
      outcome: 'added',
    });
    expect(await putInTemplate(services(), bytesOf(changed), CALLER, { ...tried, as: 'replacement' })).toMatchObject({
      id: 'delivery-note',
      version: 2,
      outcome: 'replaced',
    });
    expect((await takenOut('delivery-note')).name).toBe('Despatch note');
    // What is wrong with a file is said before anybody has to decide.
    expect(await refusals(bytesOf({ ...note, houseStyle: 'gone' }))).toContain('which is not here');
  });

  it('is a new one under another id, packed or not, and can be filed from', async () => {
    const quote = await takenOut('glasshouse-quote');
    const own = { ...quote, id: 'own-quote', name: 'Our own quote' };
    expect(
      await putInTemplate(services(), zipSync({ 'own.json': bytesOf(own) }), CALLER, { reason: 'tried before' }),
    ).toMatchObject({
      version: 1,
      outcome: 'added',
    });
    expect((await listTemplates(database(), CALLER)).map(({ id }) => id)).toContain('own-quote');
    expect((await proofOf(services(), 'D-1188', 'own-quote', CALLER)).findings).toEqual([]);
  });

  it('with anything wrong in it is refused with every place, and nothing of it is kept', async () => {
    const quote = await takenOut('glasshouse-quote');
    expect(await refusals(bytesOf({ ...quote, kind: 'poem', plans: [] }))).toMatch(
      /“poem” stands here.+at least one belongs here/,
    );
    expect(await refusals(bytesOf({ ...quote, houseStyle: 'gone' }))).toContain(
      'the house style “gone”, which is not here',
    );
    const figure = { ...quote.sheet.document[0]!, formula: 'SUM(lines.wieght)' };
    expect(
      await refusals(
        bytesOf({ ...quote, sheet: { ...quote.sheet, document: [figure, ...quote.sheet.document.slice(1)] } }),
      ),
    ).toContain('wieght');
    expect(await refusals(new TextEncoder().encode('PK'))).toMatch(/archive/);
    expect(await refusals(zipSync({ 'a.json': new Uint8Array(100_000_000) }))).toContain('more than 30 MB');
  });

  it('is tried on records that differ most: what stops on one needs a reason, which is kept with the version', async () => {
    const quote = { ...(await takenOut('glasshouse-quote')), id: 'tried-quote', name: 'Tried quote', kind: 'letter' };
    const thrown: unknown = await putInTemplate(services(), bytesOf(quote), CALLER).catch(
      (problem: unknown) => problem,
    );
    expect(thrown).toBeInstanceOf(Problem);
    const { title, members } = thrown as Problem & { members: { reason: string; records: StoppedRecord[] } };
    expect([title, members.reason]).toEqual(['Some records could not be filed', 'stops']);
    expect(members.records.flatMap(({ sentences }) => sentences).join(' ')).toContain('Set it on the deal.');
    expect((await listTemplates(database(), CALLER)).map(({ id }) => id)).not.toContain('tried-quote');
    const { versionId } = await putInTemplate(services(), bytesOf(quote), CALLER, {
      reason: ' They wait for their prices. ',
    });
    const [version] = await database().select().from(templateVersions).where(eq(templateVersions.id, versionId));
    expect(version!.stops).toEqual({ reason: 'They wait for their prices.', records: members.records });
  });

  it('is tried on the records it names; a fault of its own is refused whatever the reason', async () => {
    const quote = {
      ...(await takenOut('glasshouse-quote')),
      id: 'named-quote',
      kind: 'letter',
      proofRecords: ['D-1187', 'gone'],
    };
    expect(await putInTemplate(services(), bytesOf(quote), CALLER)).toMatchObject({ version: 1 });
    const document = quote.sheet.document.map((figure) =>
      figure.name === 'total' ? { ...figure, internal: true } : figure,
    );
    const printsInternal = bytesOf({ ...quote, sheet: { ...quote.sheet, document } });
    expect(await refusals(printsInternal, 'because')).toContain(
      'On “Vent renewal, house 3”: “Total” is internal and must not be printed.',
    );
  });

  it('of a hostile size is refused in words, off the thread that answers', async () => {
    const quote = await takenOut('glasshouse-quote');
    const { body } = quote.layout;
    const withBody = (blocks: unknown[]) => ({ ...quote, layout: { ...quote.layout, body: [...body, ...blocks] } });
    const many = <Item>(count: number, item: (at: number) => Item) =>
      Array.from({ length: count }, (_, at) => item(at));
    const hostile = [
      withBody(many(100_000, () => ({ type: 'marquee', attrs: {} }))),
      withBody(many(200_000, (at) => ({ type: 'divider', attrs: { id: `d-${at}` } }))),
      {
        ...quote,
        sheet: {
          ...quote.sheet,
          document: many(20_000, (at) => ({ name: `f_${at}`, label: 'F', formula: '1 +', type: 'number' })),
        },
      },
      { ...quote, files: Object.fromEntries(many(500_000, (at) => [`k-${at}`, 1])) },
      withBody(many(2, () => ({ type: 'divider', attrs: { id: 'constructor' } }))),
      { ...quote, name: 'half \ud800 a pair' },
    ];
    const sentences = [
      /more than 10,000 parts/,
      /more than 10,000 parts/,
      /more than 10,000 parts/,
      /more than 200,000 values/,
      /called “constructor”/,
      /half of a pair/,
    ];
    for (const [at, file] of hostile.entries()) {
      const bytes = bytesOf(file);
      const begun = performance.now();
      expect(await refusals(bytes)).toMatch(sentences[at]!);
      expect(performance.now() - begun).toBeLessThan(5_000);
    }
    const proto = new TextEncoder().encode(JSON.stringify(quote).replace('"sheet":', '"__proto__":{"a":1},"sheet":'));
    expect(await refusals(proto)).toContain('“__proto__”');
    const groups = '{"type":"keepTogether","attrs":{"id":"g"},"content":['.repeat(2_000) + ']}'.repeat(2_000);
    const nested = new TextEncoder().encode(JSON.stringify(withBody(['here'])).replace('"here"', groups));
    expect(await refusals(nested)).toContain('nested more than 100 levels deep');
    const depth = new TextEncoder().encode('['.repeat(1_000_000));
    expect(await refusals(depth)).toMatch(/not JSON|nested/);
  });

  it('with a picture that runs a script, is cut off or is not there is refused', async () => {
    const quote = await takenOut('glasshouse-quote');
    const kept = (await database().select().from(assets)).length;
    const withFile = (content: string | undefined) =>
      bytesOf({
        ...quote,
        files: {
          mark: { mediaType: 'image/svg+xml', sha256: '0'.repeat(64), ...(content !== undefined && { content }) },
        },
      });
    const base64 = (text: string) => Buffer.from(text, 'latin1').toString('base64');
    expect(
      await refusals(withFile(base64('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'))),
    ).toContain('holds “script”');
    expect(await refusals(withFile(base64('\x89PNG\r\n\x1a\n cut off')))).toContain('cut off');
    expect(await refusals(withFile(undefined))).toContain('has no content');
    // Whole by its look, but what is in it cannot be drawn.
    expect(
      await refusals(
        withFile(base64(`\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\0\0\x05\0\0\0\x05\x08\x02\0\0\0....\0\0\0\0IEND....`)),
      ),
    ).toMatch(/damaged|cannot be drawn/);
    expect(await database().select().from(assets)).toHaveLength(kept);
  });
});

it('that is archived stays with its documents, and nothing is produced from it until it is brought back', async () => {
  const archive = (archived: boolean) => archiveTemplate(database(), 'order-confirmation', archived, CALLER);
  const { archivedAt } = await archive(true);
  expect(await archive(true)).toEqual({ archivedAt });
  const shelf = await listTemplates(database(), CALLER);
  expect(shelf.filter((each) => each.archivedAt !== null).map(({ id }) => id)).toEqual(['order-confirmation']);
  await expect(proofOf(services(), 'D-1188', 'order-confirmation', CALLER)).rejects.toMatchObject({
    status: 409,
    title: 'This template is archived',
  });
  expect(await archive(false)).toEqual({ archivedAt: null });
  expect((await proofOf(services(), 'D-1188', 'order-confirmation', CALLER)).title).toBeDefined();
  const told = await database().select().from(trail).where(eq(trail.subjectId, 'order-confirmation'));
  expect(told.map(({ act }) => act).sort()).toEqual(['archived', 'brought back']);
});

describe('a document', () => {
  it('is in the edition that its deal asks for, or in the one that is chosen, and is filed in it', async () => {
    const dutch = await proofOf(services(), 'D-1241', 'glasshouse-quote', CALLER);
    expect([dutch.edition, dutch.title]).toEqual(['nl', 'Offerte nummer volgt bij opslaan, Stekruimte belichting']);
    const german = await proofOf(services(), 'D-1241', 'glasshouse-quote', CALLER, { edition: 'de' });
    expect(german.title).toBe('Angebot Nummer wird beim Ablegen vergeben, Stekruimte belichting');
    expect(german.findings).toEqual([]);
    // Garden glasshouses have no German names, which is told and may be filed with a reason.
    const garden = await proofOf(services(), 'D-1230', 'glasshouse-quote', CALLER, { edition: 'de' });
    expect(garden.findings.map(({ id }) => id)).toEqual(['check translated']);
    const { id } = await fileAs(services(), filingOf(german), CALLER);
    await until(async () => (await readDocument(database(), id, CALLER)).document.state === 'filed');
    const { bytes } = await readFile(database(), id, CALLER);
    const path = join(tmpdir(), `${id}.pdf`);
    writeFileSync(path, bytes);
    const text = execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' });
    expect(text).toContain('Gesamtbetrag EUR');
    expect(text).toContain('Pflanzenleuchte, LED, 600 W');
  });

  it('knows what was invoiced before: a deposit is deducted, what was asked is credited, and nothing is asked twice', async () => {
    const deal = 'D-1267';
    const filed = async (templateId: string) => {
      const proof = await proofOf(services(), deal, templateId, CALLER);
      expect(proof.findings.filter(({ severity }) => severity === 'stops')).toEqual([]);
      const { id, number } = await fileAs(services(), filingOf(proof), CALLER);
      await until(async () => (await readDocument(database(), id, CALLER)).document.state === 'filed');
      return { number, due: proof.figures.find(({ name }) => name === 'due')!.result.replace('\u00a0', ' ') };
    };
    // 1,335.00 net and its tax of 267.00; 30 % of it first.
    const deposit = await filed('deposit-invoice');
    expect(deposit.due).toBe('480.60 GBP');
    expect((await filed('final-invoice')).due).toBe('1,121.40 GBP');
    const again = await proofOf(services(), deal, 'final-invoice', CALLER);
    expect(again.figures.find(({ name }) => name === 'due')!.result).toBe('0.00\u00a0GBP');
    expect((await filed('credit-note')).due).toBe('1,602.00 GBP');
    const nothing = await proofOf(services(), deal, 'credit-note', CALLER);
    expect(nothing.findings.map(({ title }) => title)).toContain('Does not fit this deal');
    const [first] = await registeredFor(database(), { type: 'Deal', id: deal }, new Date());
    expect(keptMeanings(first!.meanings).rows).toContainEqual({
      list: 'tax_rows',
      values: expect.objectContaining({
        'tax-category': 'standard',
        'tax-rate': '0.2',
        'tax-base': { value: '400.5', currency: 'GBP' },
      }),
    });
  }, 60_000);

  it('of the other brand has its house style', async () => {
    const { edition, pages } = await proofOf(services(), 'D-1229', 'glasshouse-quote', CALLER);
    expect(edition).toBe('little-vale');
    expect(JSON.stringify(pages)).toContain('#f4f5ec');
  });

  it('prints the pictures that the CRM holds, each fetched once; without one it says so', async () => {
    const { findings } = await proofOf(services(), 'D-1188', 'full-proposal', CALLER);
    expect(findings).toEqual([]);
    const pictures = await database().select().from(assets).where(eq(assets.mediaType, 'image/png'));
    expect(pictures).toMatchObject([{ width: 960, height: 540 }]);
    await stack.changeInCrm('Deals', 'D-1219', { site_photo: 'gone.png' });
    const missing = await proofOf(services(), 'D-1219', 'full-proposal', CALLER);
    expect(missing.findings).toMatchObject([
      {
        severity: 'warns',
        title: 'A picture is missing',
        sentence: 'The CRM has no picture here any more. Nothing is printed in its place.',
      },
    ]);
  });

  it('can be had as a trial, although it could not be filed, and takes no number', async () => {
    const { bytes, fileName } = await trialPdf(
      services(),
      (await proofOf(services(), 'D-1202', 'glasshouse-quote', CALLER)).id,
      CALLER,
    );
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(fileName).toMatch(/ \(trial\)\.pdf$/);
  });

  it('of thousands of lines is set in a process of its own, and the worker’s memory does not grow', async () => {
    const before = process.memoryUsage().rss;
    const deal = demoSnapshot('D-1203');
    const lines = deal.fields.lines as RecordSnapshot[];
    const many = Array.from({ length: 2_400 }, (_, index) => ({ ...lines[index % 140]!, id: `L-${index}` }));
    const { composition, pdf } = await press.print({
      template: shipped.templates[0]!,
      snapshot: withFields(deal, { lines: many }),
      context: {
        schema: demoSchema,
        pins: shipped,
        issueDate: '2026-11-23',
        edition: 'en',
        number: { serial: 1, text: 'Q-1' },
      },
    });
    expect(composition.proved.sums).toBe(6);
    const pages = Buffer.from(pdf!)
      .toString('latin1')
      .match(/\/Type\s*\/Page\b/g)!.length;
    expect(pages).toBeGreaterThan(80);
    expect(process.memoryUsage().rss - before).toBeLessThan(400_000_000);
  }, 120_000);
});

it('the shelf shows each template as it prints, how it is used, and by which version', async () => {
  const shelf = await listTemplates(database(), CALLER);
  expect(shelf.map(({ id }) => id).slice(0, 2)).toEqual(['glasshouse-quote', 'own-quote']);
  expect(shelf[0]).toMatchObject({ version: 1, editions: 6, documents: 1, lastUsed: expect.any(Date) });
  const { png } = await templateThumbnail(services(), 'delivery-note', CALLER);
  // Landscape: 420 × 297.
  expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([420, 297]);
});
