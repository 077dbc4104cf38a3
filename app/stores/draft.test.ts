import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { Template } from '#core/template/template';
import { demoSchema } from '../../tests/demo-snapshot';
import { inNuxt, refusal, type Answering, type Sent } from '../../tests/in-nuxt';
import { shippedTemplate } from '../../tests/shipped-template';
import * as client from '../composables/api';
import { keepDraft, keptDraft } from '../composables/kept-draft';
import { useDraftStore } from './draft';

const { template, pins } = shippedTemplate('glasshouse-quote');
const ID = template.id;
const SAVE = `PUT /api/templates/${ID}/draft`;
const named = (name: string): Template => ({ ...template, name });

/** A server with one template, whose draft it counts the revisions of. */
let there: { template: Template; revision: number };
let others: object[];
let answering: Answering;
let requests: Sent[];
const usual: Answering = ({ to, body }) => {
  const around = { pins, version: 3, versionId: 'v-3', schema: demoSchema, issueDate: '2026-11-26' };
  if (to === `GET /api/templates/${ID}`) return { ...around, template };
  if (to === `GET /api/templates/${ID}/draft`)
    return { ...around, ...there, base: 'v-3', editedBy: 'Ines Aldan', editedAt: null };
  if (to.endsWith('/editors')) return { revision: there.revision, others };
  if (to === SAVE) {
    const sent = body as typeof there;
    if (sent.revision !== there.revision)
      throw refusal(409, 'Ines Aldan changed this draft meanwhile', {
        reason: 'draft',
        draft: { ...there, editedBy: 'Ines Aldan' },
      });
    there = { template: sent.template, revision: there.revision + 1 };
    return { revision: there.revision, savedAt: '2026-11-26T10:00:00Z' };
  }
  if (to.startsWith('DELETE')) return { revision: (there = { template, revision: 0 }).revision };
  if (to.endsWith('/versions')) return { versionId: 'v-4', version: 4 };
  if (to === 'POST /api/drafts') return { id: `${ID}-2`, name: 'Mine', revision: 1 };
  return {};
};

beforeEach(() => {
  vi.useFakeTimers();
  [there, others, answering] = [{ template, revision: 0 }, [], usual];
  requests = inNuxt((sent) => answering(sent), client);
});
afterEach(() => vi.useRealTimers());

const opened = async (mayChange = true) => {
  const store = useDraftStore();
  await store.load(ID, mayChange);
  return store;
};
const change = (store: ReturnType<typeof useDraftStore>, name: string) =>
  store.change(named(name), { words: `Named ${name}` });
const later = (milliseconds: number) => vi.advanceTimersByTimeAsync(milliseconds);
const saves = () => requests.filter(({ to }) => to === SAVE).length;

it('is saved by itself within a second, once for what is changed quickly', async () => {
  const store = await opened();
  expect(store.state).toBe('No changes');
  change(store, 'A');
  change(store, 'B');
  expect(store.state).toBe('Saving …');
  await later(1_000);
  expect([store.state, saves(), there]).toEqual(['Saved', 1, { template: named('B'), revision: 1 }]);
  expect(keptDraft(ID)).toBeUndefined();
  store.undo();
  await later(1_000);
  expect([store.announcement, there.template.name]).toEqual(['Undone: Named B', 'A']);
  store.redo();
  await store.close();
  expect(there).toEqual({ template: named('B'), revision: 3 });
});

it('is kept in the browser until it is saved, and brought back after a reload', async () => {
  answering = (sent) => (sent.to === SAVE ? Promise.reject(new TypeError('no connection')) : usual(sent));
  const store = await opened();
  change(store, 'A');
  await later(1_000);
  expect(store.state).toBe('Not saved: no connection. Kept in this browser.');
  expect(keptDraft(ID)).toEqual({ template: named('A'), revision: 0 });
  answering = usual;
  await later(2_500);
  expect([store.state, there.template.name]).toEqual(['Saved', 'A']);

  keepDraft(ID, { template: named('B'), revision: 1 });
  await store.load(ID, true);
  expect([store.template!.name, store.announcement]).toEqual(['B', 'Changes brought back that were not saved']);
  await later(1_000);
  expect(there.template.name).toBe('B');
  store.undo();
  expect(store.template!.name).toBe('A');
});

it('that somebody else changed is theirs to take, with a way back to mine', async () => {
  const store = await opened();
  there = { template: named('Theirs'), revision: 4 };
  change(store, 'Mine');
  await later(1_000);
  expect([store.saving, store.theirs?.template.name]).toEqual(['conflict', 'Theirs']);
  change(store, 'Mine still');
  await later(5_000);
  expect([saves(), keptDraft(ID)?.template.name]).toEqual([1, 'Mine still']);
  store.takeTheirs();
  expect([store.template!.name, store.state, keptDraft(ID)]).toEqual(['Theirs', 'Saved', undefined]);
  store.undo();
  await later(1_000);
  expect(there).toEqual({ template: named('Mine still'), revision: 5 });
});

it('that somebody else changed can be kept as a new template', async () => {
  const store = await opened();
  there = { template: named('Theirs'), revision: 4 };
  change(store, 'Mine');
  await later(1_000);
  expect(await store.keepAsNew()).toBe(`${ID}-2`);
  expect(requests.find(({ to }) => to === 'POST /api/drafts')!.body).toEqual({ template: named('Mine') });
  expect([there.template.name, keptDraft(ID)]).toEqual(['Theirs', undefined]);
});

it('kept in a browser while somebody else saved is a conflict too', async () => {
  there = { template: named('Theirs'), revision: 2 };
  keepDraft(ID, { template: named('Mine'), revision: 1 });
  const store = await opened();
  await later(1_000);
  expect([store.saving, store.template!.name, store.theirs?.template.name]).toEqual(['conflict', 'Mine', 'Theirs']);
});

it('tells who else has it open, and follows what they save while nothing of its own waits', async () => {
  others = [{ name: 'Ines Aldan', isYou: false, since: '2026-11-26T10:00:00Z' }];
  const store = await opened();
  await later(0);
  expect(store.others).toEqual(others);
  there = { template: named('Theirs'), revision: 1 };
  await later(10_500);
  expect([store.template!.name, store.state]).toEqual(['Theirs', 'Saved']);
  expect(store.announcement).toBe('Ines Aldan changed this draft: it is shown as it is now.');
  store.undo();
  expect(store.template!.name).toBe(template.name);
  await store.close();
  expect(requests.at(-1)!.to === SAVE || requests.some(({ body }) => (body as { leaves?: true }).leaves)).toBe(true);
});

it('is published once it is saved, and goes on from the new version', async () => {
  const store = await opened();
  change(store, 'A');
  expect(await store.publish({ note: 'Shorter' })).toBeUndefined();
  expect(requests.at(-1)).toMatchObject({
    to: `POST /api/templates/${ID}/versions`,
    body: { revision: 1, note: 'Shorter' },
  });
  expect([store.isDraft, store.opened!.version, store.announcement]).toEqual([false, 4, 'Published as version 4']);
  there = { template: named('A'), revision: 0 };
  change(store, 'B');
  answering = (sent) => (sent.to.endsWith('/versions') ? Promise.reject(refusal(422, 'It has mistakes')) : usual(sent));
  expect(await store.publish({})).toMatchObject({ title: 'It has mistakes' });
  expect([store.isDraft, store.busy]).toEqual([true, false]);
});

it('keeps what is changed while it is published, as a draft of the new version', async () => {
  let release = (): void => undefined;
  answering = async (sent) => {
    if (!sent.to.endsWith('/versions')) return usual(sent);
    await new Promise<void>((resolve) => (release = resolve));
    there = { template: there.template, revision: 0 };
    return usual(sent);
  };
  const store = await opened();
  change(store, 'A');
  const published = store.publish({});
  await later(10);
  change(store, 'B');
  // Longer than a change waits to be saved.
  await later(2_000);
  release();
  expect(await published).toBeUndefined();
  await later(1_000);
  expect([store.template!.name, store.state, store.isDraft]).toEqual(['B', 'Saved', true]);
  expect(there).toEqual({ template: named('B'), revision: 1 });
});

it('is thrown away for what is published, and comes back by undoing', async () => {
  const store = await opened();
  change(store, 'A');
  await store.throwAway();
  expect([store.template!.name, store.isDraft, store.announcement]).toEqual([
    template.name,
    false,
    'Draft thrown away',
  ]);
  store.undo();
  await later(1_000);
  expect([store.isDraft, there]).toEqual([true, { template: named('A'), revision: 1 }]);
});

it('that the server refuses says why, and is tried again with the next change', async () => {
  answering = (sent) => (sent.to === SAVE ? Promise.reject(refusal(422, 'Too long')) : usual(sent));
  const store = await opened();
  change(store, 'A');
  await later(1_000);
  expect(store.state).toBe('Not saved: Too long.');
  answering = usual;
  change(store, 'B');
  await later(1_000);
  expect(store.state).toBe('Saved');
});

it('is one for all screens that work on it, and left with the last of them', async () => {
  const store = await opened();
  store.hold();
  change(store, 'A');
  store.hold();
  await store.load(ID, true);
  expect([store.template!.name, store.past.length]).toEqual(['A', 1]);
  await store.close();
  expect(store.template!.name).toBe('A');
  await store.close();
  expect([store.template, there.template.name]).toEqual([undefined, 'A']);
  await store.load(ID, true);
  expect([store.template!.name, store.past]).toEqual(['A', []]);
});

it('takes what is typed in one go as one step', async () => {
  const store = await opened();
  for (const words of ['A', 'AB', 'ABC']) {
    store.change(named(words), { words: 'Typing', joins: 'p1' });
    await later(300);
  }
  store.change(named('Other line'), { words: 'Typing', joins: 'p2' });
  await later(1_500);
  store.change(named('Later'), { words: 'Typing', joins: 'p2' });
  expect(store.past.map(({ template: before }) => before.name)).toEqual([template.name, 'ABC', 'Other line']);
  store.undo();
  expect(store.template!.name).toBe('Other line');
});

it('is looked at and never saved by whoever may not publish', async () => {
  const store = await opened(false);
  change(store, 'A');
  await later(20_000);
  await store.close();
  expect([saves(), requests.map(({ to }) => to)]).toEqual([0, [`GET /api/templates/${ID}`]]);
});
