import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Finding } from '#core/production/findings/finding';
import { inNuxt, refusal, settled, type Answering, type Sent } from '../../tests/in-nuxt';
import * as client from '../composables/api';
import * as following from '../composables/follow';
import * as kept from '../composables/kept';
import { useProofStore, type Proof } from './proof';

const finding = (id: string, severity: Finding['severity']): Finding => ({
  id,
  severity,
  title: id,
  sentence: `${id}.`,
  values: [],
});
const proofOf = (id: string, findings: Finding[] = []) =>
  ({
    id,
    revision: 0,
    changes: [],
    choices: {},
    record: { type: 'Deal', called: 'deal', id: 'D-1', name: 'Two gates' },
    template: { id: 'quote', name: 'Quote', kind: 'quote', versionId: 'v-1', version: 1 },
    findings,
    pages: { glyphs: { digest: 'g', drawing: '<defs/>' }, pages: [{ digest: id, drawing: `<svg id="${id}"/>` }] },
  }) as unknown as Proof;

class States {
  static open: States[] = [];
  isClosed = false;
  onmessage?: (event: { data: string }) => void;
  constructor(readonly address: string) {
    States.open.push(this);
  }
  close(): void {
    this.isClosed = true;
  }
  tell(state: object): void {
    this.onmessage!({ data: JSON.stringify(state) });
  }
}

/** What the browser keeps for a tab. */
class Stored extends Map<string, string> {
  getItem = (name: string) => this.get(name) ?? null;
  setItem = (name: string, text: string) => void this.set(name, text);
  removeItem = (name: string) => void this.delete(name);
}
const stored = new Stored();

let answering: Answering;
let requests: Sent[];
beforeEach(() => {
  States.open = [];
  answering = () => proofOf('one');
  requests = inNuxt((sent) => answering(sent), {
    ...client,
    ...following,
    ...kept,
    EventSource: States,
    sessionStorage: stored,
  });
  stored.clear();
});
const sent = (to: string) => requests.filter((each) => each.to === to);
const loaded = async (findings: Finding[] = []) => {
  answering = () => proofOf('one', findings);
  const store = useProofStore();
  await store.open({ record: 'D-1', template: 'quote' });
  return store;
};

describe('a proof', () => {
  it('sends for a page at once that comes near the view, although the browser is busy', async () => {
    vi.stubGlobal('requestIdleCallback', () => undefined);
    const page = (digest: string, drawing?: string) => ({ digest, drawing });
    const whole = proofOf('one');
    const missing = [page('a', '<svg/>'), page('b'), page('c')];
    answering = ({ to, query }) =>
      to.endsWith('/pages')
        ? { pages: [page(missing[Number(query!.skip)]!.digest, '<svg id="late"/>')] }
        : { ...whole, pages: { ...whole.pages, pages: missing } };
    const store = useProofStore();
    await store.open({ record: 'D-1', template: 'quote' });
    await settled();
    const asked = () => sent('GET /api/productions/one/pages').map(({ query }) => query!.skip);
    expect(asked()).toEqual([]);
    store.lookAt([3]);
    await settled();
    expect(asked()).toEqual(['2']);
    expect(store.proof!.pages.pages.map(({ drawing }) => drawing)).toEqual(['<svg/>', undefined, '<svg id="late"/>']);
  });

  it('is asked for with what was chosen', async () => {
    const store = useProofStore();
    await store.open({ record: 'D-1', template: 'quote' });
    await store.open({ record: 'D-1', template: 'quote', edition: 'nl' });
    expect(requests.map(({ to, query, body }) => [to, query ?? body])).toEqual([
      ['GET /api/productions', { template: 'quote', record: 'D-1' }],
      [
        'POST /api/productions',
        { template: 'quote', record: 'D-1', choices: { edition: 'nl' }, has: ['g', 'one'], since: 'one' },
      ],
    ]);
  });

  it('is made anew where its record says something else by now, and not where it does not', async () => {
    const store = useProofStore();
    await store.open({ record: 'D-1', template: 'quote' });
    const isChange = () => requests.at(-1)!.to.endsWith('/changed');
    answering = () => (isChange() ? { changed: false } : proofOf('two'));
    await store.lookAgain();
    expect(store.proof!.id).toBe('one');
    answering = () => (isChange() ? { changed: true } : proofOf('two'));
    await store.lookAgain();
    expect(store.proof!.id).toBe('two');
    expect(requests.at(-1)!.body).toMatchObject({ since: 'one' });
    // What was written from here is no news.
    const written = [{ path: 'deal.owner', value: 'Ines Roe' }];
    await store.load('D-1', 'quote', written);
    expect(requests.at(-1)!.body).toMatchObject({ since: 'two', written });
  });

  it('in hand is chosen otherwise in place, also back to what the template says', async () => {
    const change = { id: 'c', change: { type: 'section', section: 's', prints: false }, label: 'Terms' };
    const inHand = (choices: object) => ({ ...proofOf('one'), changes: [change], choices });
    answering = () => inHand({ plan: 'only' });
    const store = useProofStore();
    await store.open({ record: 'D-1', template: 'quote', production: 'one' });
    const body = () => requests.at(-1)!.body as { choices: object; changes: object[] };
    answering = () => inHand({ plan: 'only', edition: 'nl' });
    await store.choose({ edition: 'nl' });
    expect(body()).toMatchObject({ choices: { plan: 'only', edition: 'nl' }, changes: [change], production: 'one' });
    await store.choose({ plan: undefined });
    expect(body().choices).toEqual({ edition: 'nl' });
    // Its address says which document it is, and no more: that is what is shown.
    await store.open({ record: 'D-1', template: 'quote', production: 'one' });
    expect(requests).toHaveLength(3);
  });

  it('keeps the drawings of pages that did not change, and takes those that did', async () => {
    const store = await loaded();
    const parts = {
      glyphs: { digest: 'g' },
      pages: [{ digest: 'one' }, { digest: 'two', drawing: '<svg id="two"/>' }],
    };
    answering = () => ({ ...proofOf('two'), pages: parts });
    await store.load('D-1', 'quote');
    expect(store.proof!.pages).toMatchObject({
      glyphs: '<defs/>',
      pages: [{ drawing: '<svg id="one"/>' }, { drawing: '<svg id="two"/>' }],
    });
    await store.load('D-1', 'quote');
    expect(requests.at(-1)!.body).toMatchObject({ has: ['g', 'one', 'two'] });
  });

  it('that was sent for before its page was there is not asked for again', async () => {
    const store = useProofStore();
    store.sendFor({ record: 'D-1', template: 'quote' });
    await store.open({ record: 'D-1', template: 'quote' });
    expect([store.proof!.id, requests.length]).toEqual(['one', 1]);
    store.sendFor({ record: 'D-1', template: 'quote', edition: 'nl' });
    await store.open({ record: 'D-1', template: 'quote', edition: 'de' });
    expect(requests.map(({ body }) => (body as { choices: object } | undefined)?.choices)).toEqual([
      undefined,
      { edition: 'nl' },
      { edition: 'de' },
    ]);
  });

  it('that is being renewed cannot be filed', async () => {
    const store = await loaded();
    expect(store.mayFile).toBe(true);
    let answer = (_proof: Proof) => {};
    answering = () => new Promise((resolve) => (answer = resolve));
    const renewed = store.open({ record: 'D-1', template: 'quote', edition: 'de' });
    await settled();
    expect([store.loading, store.mayFile]).toEqual([true, false]);
    await store.file();
    expect(sent('POST /api/documents')).toEqual([]);
    answer(proofOf('two'));
    await renewed;
    expect(store.mayFile).toBe(true);
  });

  it('that comes late does not take the place of a newer one', async () => {
    const store = useProofStore();
    const answers: ((proof: Proof) => void)[] = [];
    answering = () => new Promise((resolve) => answers.push(resolve));
    const [first, second] = [store.load('D-1', 'quote'), store.load('D-2', 'quote')];
    await settled();
    answers[1]!(proofOf('second'));
    await second;
    answers[0]!(proofOf('first'));
    await first;
    expect(store.proof!.id).toBe('second');
    expect(store.loading).toBe(false);
  });

  it('that cannot be made says why, until one can', async () => {
    const store = useProofStore();
    answering = () => Promise.reject(refusal(503, 'The CRM can’t be reached'));
    await store.load('D-1', 'quote');
    expect(store.problem).toMatchObject({ title: 'The CRM can’t be reached' });
    answering = () => proofOf('one');
    await store.load('D-1', 'quote');
    expect(store.problem).toBeUndefined();
  });

  it('explains a value, and forgets workings that a newer proof does not have', async () => {
    const store = await loaded();
    answering = () => ({ id: 'totals.total', steps: [] });
    await store.explain('totals.total');
    expect(store.workings).toMatchObject({ id: 'totals.total' });
    expect(requests.at(-1)).toMatchObject({
      to: 'GET /api/productions/one/workings',
      query: { value: 'totals.total' },
    });
    answering = ({ to }) => (to.startsWith('POST') ? proofOf('two') : Promise.reject(refusal(404, 'No such value')));
    await store.load('D-1', 'quote');
    expect(store.workings).toBeUndefined();
    await store.explain(undefined);
    expect(store.workings).toBeUndefined();
  });
});

describe('findings', () => {
  it('stand in the way of filing until each that warns is skipped with a reason; what stops cannot be', async () => {
    const store = await loaded([finding('late', 'warns'), finding('note', 'notes')]);
    expect(store.mayFile).toBe(false);
    store.skip(finding('late', 'warns'), 'agreed by telephone');
    expect([store.openFindings, store.mayFile]).toEqual([[], true]);
    store.unskip(finding('late', 'warns'));
    expect(store.openFindings.map(({ id }) => id)).toEqual(['late']);
    const stopped = await loaded([finding('stop', 'stops')]);
    stopped.skip(finding('stop', 'stops'), 'no');
    expect(stopped.mayFile).toBe(false);
  });
});

describe('reasons for skipping', () => {
  it('are there again for who comes back from the record, and not for another proof', async () => {
    const store = await loaded([finding('late', 'warns')]);
    store.skip(finding('late', 'warns'), 'agreed');
    store.leave();
    await store.open({ record: 'D-2', template: 'quote' });
    expect(store.skipped).toEqual({});
    await store.open({ record: 'D-1', template: 'quote' });
    expect(store.skipped).toEqual({ late: 'agreed' });
    // What it says is another thing by now: the reason was not given for that.
    answering = () => proofOf('one', [{ ...finding('late', 'warns'), sentence: 'Later still.' }]);
    await store.load('D-1', 'quote');
    expect([store.skipped, store.mayFile]).toEqual([{}, false]);
  });
});

describe('filing', () => {
  it('that was under way is shown again after a reload, and not after the proof was left', async () => {
    const store = await loaded();
    answering = () => ({ id: 'd-1', number: 'Q-1' });
    await store.file();
    await settled();
    // As a page that is loaded anew: another store with the same storage.
    answering = ({ to }) =>
      to === 'GET /api/documents/d-1'
        ? { document: { id: 'd-1', number: 'Q-1', state: 'rendered', reason: null, dueAt: null } }
        : proofOf('two');
    setActivePinia(createPinia());
    const again = useProofStore();
    await again.open({ record: 'D-1', template: 'quote' });
    expect([again.filing, again.busy, again.mayFile]).toMatchObject([
      { number: 'Q-1', state: 'rendered' },
      true,
      false,
    ]);
    States.open.at(-1)!.tell({ id: 'd-1', number: 'Q-1', state: 'filed', reason: null, dueAt: null });
    expect([again.filing!.state, again.mayFile]).toEqual(['filed', false]);
    again.leave();
    await again.open({ record: 'D-1', template: 'quote' });
    expect([again.filing, again.mayFile]).toEqual([undefined, true]);
  });

  it('sends the proof under its own key with the reasons, and follows the document until it is filed', async () => {
    const store = await loaded([finding('late', 'warns'), finding('other', 'notes')]);
    store.skip(finding('late', 'warns'), 'agreed');
    answering = () => ({ id: 'd-1', number: 'Q-1' });
    const filing = store.file();
    expect(store.busy).toBe(true);
    await filing;
    expect(sent('POST /api/documents')).toMatchObject([
      { body: { production: 'one', revision: 0, skips: { late: 'agreed' } }, headers: { 'Idempotency-Key': 'one-0' } },
    ]);
    const [states] = States.open;
    expect(states!.address).toBe('/api/documents/d-1/states');
    states!.tell({
      id: 'd-1',
      number: 'Q-1',
      state: 'rendered',
      reason: 'The CRM can’t be reached.',
      dueAt: '2026-11-26',
    });
    expect([store.filing, store.busy]).toMatchObject([
      { state: 'rendered', reason: 'The CRM can’t be reached.' },
      true,
    ]);
    // Its steps are followed too, until they are done or held; what is filed is filed meanwhile.
    const filed = { id: 'd-1', number: 'Q-1', state: 'filed', reason: null, dueAt: null };
    states!.tell({ ...filed, stepsLeft: 2, isHeld: false });
    expect([store.filing!.stepsLeft, store.busy, states!.isClosed]).toEqual([2, false, false]);
    states!.tell({ ...filed, stepsLeft: 0, isHeld: false });
    expect([store.filing!.state, store.busy, store.mayFile, states!.isClosed]).toEqual(['filed', false, false, true]);
  });

  it('is not begun twice, nor while something is open', async () => {
    const store = await loaded([finding('late', 'warns')]);
    await store.file();
    expect(sent('POST /api/documents')).toEqual([]);
    store.skip(finding('late', 'warns'), 'agreed');
    answering = () => ({ id: 'd-1', number: 'Q-1' });
    await Promise.all([store.file(), store.file()]);
    expect(sent('POST /api/documents')).toHaveLength(1);
  });

  it.each([
    [409, true],
    [422, true],
    [503, false],
  ])('that is refused with %i says why; the proof is read again: %s', async (status, again) => {
    const store = await loaded();
    answering = ({ to }) =>
      to.endsWith('/documents') ? Promise.reject(refusal(status, 'Not like this')) : proofOf('newer');
    await store.file();
    expect(store.filingProblem).toMatchObject({ title: 'Not like this' });
    expect([store.busy, store.proof!.id]).toEqual([false, again ? 'newer' : 'one']);
  });

  it('of a proof that was left is followed no more', async () => {
    const store = await loaded();
    answering = () => ({ id: 'd-1', number: 'Q-1' });
    await store.file();
    store.leave();
    States.open[0]!.tell({ id: 'd-1', number: 'Q-1', state: 'rendered' });
    expect(States.open[0]!.isClosed).toBe(true);
    expect([store.filing, store.proof, store.skipped]).toEqual([undefined, undefined, {}]);
  });
});

describe('what is changed for one document', () => {
  const off = { type: 'section', block: 'heated', prints: false } as const;
  const known = (changes: unknown) =>
    (changes as { id: string; change: unknown; label: string }[]).map((each) => ({
      ...each,
      by: 'Tamar',
      at: '2026-11-27',
    }));
  /** Answers as the server does: the same production, one revision on. */
  const going: Answering = ({ body }) => {
    const { revision, changes = [] } = body as { revision?: number; changes?: unknown[] };
    return { ...proofOf('one'), revision: (revision ?? 0) + 1, changes: known(changes) };
  };
  const posted = () => sent('POST /api/productions').map(({ body }) => body as Record<string, unknown>);

  it('goes on with the production that is shown, and can be taken back and done again', async () => {
    const store = await loaded();
    answering = going;
    expect(await store.make(off, 'The section')).toBeUndefined();
    expect(posted()[0]).toMatchObject({
      production: 'one',
      revision: 0,
      changes: [{ change: off, label: 'The section' }],
    });
    expect([store.inHand, store.changes.length]).toEqual(['one', 1]);
    await store.make({ type: 'leaveOut', block: 'intro' }, 'The intro');
    expect(posted()[1]).toMatchObject({ revision: 1, changes: [{ change: off }, { change: { type: 'leaveOut' } }] });
    expect(Object.keys((posted()[1]!.changes as object[])[0]!).sort()).toEqual(['change', 'id', 'label']);
    await store.undo();
    expect(store.changes.map(({ label }) => label)).toEqual(['The section']);
    await store.undo();
    expect([store.inHand, store.changes.length]).toEqual([undefined, 0]);
    await store.redo();
    await store.redo();
    expect(store.changes.map(({ label }) => label)).toEqual(['The section', 'The intro']);
    await store.takeBack(store.changes[0]!.id);
    expect(store.changes.map(({ label }) => label)).toEqual(['The intro']);
  });

  it('that comes too late is refused with the reason, and the document is shown as it is now', async () => {
    const store = await loaded();
    answering = ({ body }) =>
      (body as { changes?: unknown }).changes
        ? Promise.reject(refusal(409, 'Somebody else went on with this document'))
        : { ...proofOf('one'), revision: 5 };
    expect(await store.make(off, 'The section')).toMatchObject({ status: 409 });
    expect([store.proof!.revision, store.problem, store.changes.length]).toEqual([5, undefined, 0]);
    expect(await store.undo()).toBeUndefined();
  });
});
