import { execFileSync } from 'node:child_process';
import { afterEach, expect, it } from 'vitest';
import { join } from 'node:path';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import type { Block } from '../../core/template/blocks';
import type { Inline } from '../../core/template/inlines';
import { shipped } from '../../demo/shipped';
import { PastBounds } from '../../server/press/bounds';
import { keepRecord, Packer, Unpacker } from '../../server/press/parts';
import { Press, type CompositionInput, type Proofing } from '../../server/press/press';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf } from '../../core/contract/endpoint';
import { demoPictures, demoSchema, demoSnapshot } from '../demo-snapshot';

process.env.LUMBIX_BUILD = join(process.cwd(), '.build');
const MIB = 1_024 * 1_024;
const opened: Press[] = [];
const pressWith = (...given: ConstructorParameters<typeof Press>) => {
  const press = new Press(...given);
  opened.push(press);
  return press;
};
afterEach(() => opened.splice(0).forEach((press) => press.close()));

/** The ordinary quote over a demo deal, with other blocks where they are given. */
function input(deal: string, body?: Block[], text = ''): CompositionInput {
  const quote = shipped.templates[0]!;
  const paragraph: Block = { type: 'paragraph', attrs: { id: 'own' }, content: [{ type: 'text', text }] };
  const layout = { ...quote.layout, body: body ?? (text ? [paragraph] : quote.layout.body) };
  return {
    template: { ...quote, layout },
    snapshot: demoSnapshot(deal),
    context: { schema: demoSchema, pins: shipped, issueDate: '2026-11-23', edition: 'en', available: demoPictures },
  };
}
const HEAD = {
  id: 'p',
  revision: 0,
  changes: [],
  choices: {},
  revises: null,
  template: { id: 'quote', name: 'Quote', kind: 'quote', versionId: 'v', version: 1, plans: [] },
  record: { type: 'Deal', called: 'deal', id: 'D-1', name: 'Two gates' },
  issueDate: '2026-11-23',
  issueDates: { from: '2026-11-09', until: '2026-11-23' },
  editions: [],
};
const PROOFING: Proofing = { head: HEAD, has: [], near: [1], encoding: 'identity' };
const VALUES: Inline[] = Array.from({ length: 8 }, (_, index) => ({
  type: 'value',
  attrs: { id: `value-${index}`, formula: 'name & unit & quantity' },
}));
/** Nineteen thousand paragraphs: within what may be composed, and more than can be set. */
const endless = () =>
  input('D-1203', [
    {
      type: 'forEach',
      attrs: { id: 'outer', list: 'deal.lines', note: 'line' },
      content: [
        {
          type: 'forEach',
          attrs: { id: 'inner', list: 'deal.lines', note: 'line again' },
          content: [{ type: 'paragraph', attrs: { id: 'word' }, content: VALUES }],
        },
      ],
    },
  ]);

it('ends what takes longer than its deadline, says what to change, and does the next task', async () => {
  const press = pressWith(1, 0, { deadline: 4_000, memory: 4_096 * MIB });
  await press.compose(input('D-1187'));
  await expect(press.print(endless())).rejects.toThrow(
    /^This takes longer than 4 seconds to set, and was ended\. Print less of it: repetitions inside of repetitions multiply/,
  );
  expect((await press.print(input('D-1187'))).pdf).toBeDefined();
});

it('ends what takes more memory than its ceiling, and the tasks that wait are unharmed', async () => {
  const press = pressWith(1, 0, { deadline: 60_000, memory: 300 * MIB });
  const [large, ...others] = await Promise.allSettled([
    press.print(endless()),
    ...['D-1187', 'D-1188', 'D-1189'].map((deal) => press.print(input(deal))),
  ]);
  expect((large as PromiseRejectedResult).reason).toBeInstanceOf(PastBounds);
  expect(String((large as PromiseRejectedResult).reason)).toContain('more than 300 MB of memory');
  expect(others.map(({ status }) => status)).toEqual(['fulfilled', 'fulfilled', 'fulfilled']);
});

it('does what people wait for before filings, and pictures for the shelf last', async () => {
  const press = pressWith(1);
  const done: string[] = [];
  const tell = (what: string) => () => done.push(what);
  await Promise.all([
    press.compose(input('D-1187')).then(tell('first')),
    press.thumbnail(input('D-1188'), 100).then(tell('picture')),
    press.print(input('D-1189')).then(tell('filing')),
    press.proof(input('D-1190'), 'key', PROOFING).then(tell('proof')),
  ]);
  expect(done).toEqual(['first', 'proof', 'filing', 'picture']);
});

it('renews a process before it grows, so that memory stays where it was', async () => {
  const press = pressWith(1);
  for (let each = 0; each < 120; each++)
    await press.proof(input('D-1203', undefined, `Unique ${each}`), `key ${each}`, PROOFING);
  for (let each = 0; each < 12; each++) await press.proof(input('D-1203'), `whole ${each}`, PROOFING);
  expect(Math.max(...press.memory)).toBeLessThan(420 * MIB);
}, 60_000);

it('a lost process is told as such, and the next task has another', async () => {
  const press = pressWith(1);
  const lost = press.print(endless());
  await new Promise((done) => setTimeout(done, 1_500));
  const [id] = execFileSync('pgrep', ['-P', String(process.pid), '-f', 'press-worker'], { encoding: 'utf8' }).split(
    '\n',
  );
  process.kill(Number(id), 'SIGKILL');
  await expect(lost).rejects.toThrow('The press ended with a signal before it was done.');
  expect((await press.print(input('D-1187'))).pdf).toBeDefined();
});

it('hands over what stays the same once, and still prints each version as it is', async () => {
  const press = pressWith(1);
  const one = input('D-1187', undefined, 'One');
  const other = { ...one, template: input('D-1187', undefined, 'Other').template };
  const wordsOf = async (given: CompositionInput) => JSON.stringify((await press.compose(given)).document.body);
  for (let round = 0; round < 2; round++) {
    expect(await wordsOf(one)).toContain('One');
    expect(await wordsOf(other)).toContain('Other');
  }
});

it('hands a picture over once, though it is read anew for each task', () => {
  const packer = new Packer();
  const bytesSent = () => {
    const [hash, asset] = Object.entries(demoPictures)[0]!;
    const given = input('D-1187');
    const available = { [hash]: { ...asset, bytes: new Uint8Array(asset.bytes) } };
    const { parts } = packer.pack({ kind: 'compose', input: { ...given, context: { ...given.context, available } } });
    return parts.filter(({ value }) => value && 'bytes' in value).length;
  };
  expect([bytesSent(), bytesSent(), bytesSent()]).toEqual([1, 0, 0]);
});

it('hands a record over once where it is kept, and others with each task', () => {
  const [packer, unpacker] = [new Packer(), new Unpacker()];
  const [kept, other] = [input('D-1187'), input('D-1188')];
  keepRecord(kept.snapshot);
  const got = [kept, kept, other].map((given) => {
    const packed = packer.pack({ kind: 'compose', input: given });
    const { input: whole } = unpacker.unpack(structuredClone(packed)) as { input: CompositionInput };
    expect(whole.snapshot).toEqual(given.snapshot);
    return whole.snapshot;
  });
  expect(got[1]).toBe(got[0]);
  expect(packer.pack({ kind: 'compose', input: kept }).parts.every(({ value }) => value === undefined)).toBe(true);
});

const READERS = { br: brotliDecompressSync, gzip: gunzipSync, identity: (bytes: Uint8Array) => Buffer.from(bytes) };
const read = async (press: Press, proofing: Partial<Proofing>, text: string) => {
  const { answer } = await press.proof(input('D-1187', undefined, text), text, { ...PROOFING, ...proofing });
  const bytes = READERS[proofing.encoding ?? 'identity'](answer);
  return JSON.parse(bytes.toString()) as AnswerOf<Contract['POST /productions']>;
};

it('makes the whole answer of a proof, pressed as its caller takes it', async () => {
  const press = pressWith(1);
  const plain = await read(press, {}, 'One');
  expect(plain).toMatchObject({
    ...HEAD,
    edition: 'en',
    pages: { pages: [{ drawing: expect.stringContaining('<svg') }] },
  });
  for (const encoding of ['br', 'gzip'] as const) expect(await read(press, { encoding }, 'One')).toEqual(plain);
});

it('leaves out the drawings of pages that are at hand', async () => {
  const press = pressWith(1);
  const { pages } = await read(press, {}, 'One');
  const has = [pages.glyphs.digest, ...pages.pages.map(({ digest }) => digest)];
  const again = await read(press, { has }, 'One');
  expect(again.pages).toEqual({
    ...pages,
    glyphs: { digest: has[0] },
    pages: [{ ...pages.pages[0], drawing: undefined }],
  });
  const other = await read(press, { has }, 'Two');
  expect(other.pages.pages[0]!.digest).not.toBe(has[1]);
  expect(other.pages.pages[0]!.drawing).toBeDefined();
});

it('gives the drawings of the pages that are looked at, and of others when they are asked for', async () => {
  const press = pressWith(1);
  const proof = async (near: Proofing['near'], key: string) => {
    const { answer } = await press.proof(input('D-1203'), key, { ...PROOFING, near });
    const { pages } = JSON.parse(Buffer.from(answer).toString()) as AnswerOf<Contract['POST /productions']>;
    return pages.pages;
  };
  const whole = await proof('all', 'whole');
  expect(whole).toHaveLength(7);
  expect(whole.every(({ drawing, values }) => drawing?.startsWith('<svg') && values.length > 0)).toBe(true);
  const some = await proof([2, 7], 'some');
  expect(some.map(({ drawing }, index) => (drawing === undefined ? undefined : index + 1))).toEqual([
    undefined,
    2,
    undefined,
    undefined,
    undefined,
    undefined,
    7,
  ]);
  expect(some.map(({ digest, values, sections }) => ({ digest, values, sections }))).toEqual(
    whole.map(({ digest, values, sections }) => ({ digest, values, sections })),
  );
  // A process that does not have the proof at hand sets it again.
  for (const asked of [press, pressWith(1)]) {
    const bytes = await asked.pages(input('D-1203'), 'some', { skip: 2, top: 3 }, 'identity');
    expect(JSON.parse(Buffer.from(bytes).toString())).toEqual({
      pages: whole.slice(2, 5).map(({ digest, drawing }) => ({ digest, drawing })),
    });
  }
});
