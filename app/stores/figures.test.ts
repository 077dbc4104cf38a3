import { beforeEach, describe, expect, it } from 'vitest';
import { CALCULATIONS } from '#core/calculations';
import { LINES } from '#core/record/schema';
import { readsOf } from '#core/template/reads';
import { demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { shippedTemplate } from '../../tests/shipped-template';
import { inNuxt, settled, type Answering, type Sent } from '../../tests/in-nuxt';
import * as client from '../composables/api';
import { FigureWorkshop } from '../workers/figure-workshop';
import { useDraftStore } from './draft';
import { useFiguresStore } from './figures';

const { template, pins } = shippedTemplate('glasshouse-quote');
const AROUND = { pins, version: 3, versionId: 'v-3', base: 'v-3', schema: demoSchema, issueDate: '2026-11-26' };
const OPENED = { ...AROUND, template, revision: 0, editedBy: null, editedAt: null };
let answering: Answering;
let requests: Sent[];

const usual: Answering = ({ to }) => {
  if (to === 'GET /api/templates/glasshouse-quote/draft') return OPENED;
  if (to.endsWith('/editors')) return { revision: 0, others: [] };
  if (to.startsWith('PUT')) return { revision: 1, savedAt: '2026-11-26T10:00:00Z' };
  if (to.endsWith('/registered')) return [];
  if (to.endsWith('/values')) return demoSnapshot('D-1187');
  if (to === 'GET /api/records/Deal') return { records: [{ id: 'D-1187' }] };
  return {};
};

beforeEach(() => {
  answering = usual;
  const workshop = new FigureWorkshop();
  requests = inNuxt((sent) => answering(sent), { ...client, useWorkshop: () => workshop });
});

const opened = async () => {
  const store = useFiguresStore();
  await store.load('glasshouse-quote', 'D-1187', true);
  expect(store.problem).toBeUndefined();
  return store;
};
const figure = (store: ReturnType<typeof useFiguresStore>, key: string) =>
  store.formulas.find((each) => each.key === key)?.figure;

describe('a figure sheet', () => {
  it('is opened with the values of a record, and nothing to undo', async () => {
    const store = await opened();
    expect(store.view!.figures.subtotal!.values[0]).toMatchObject({ failed: false });
    expect([useDraftStore().past, store.faults, store.failures]).toEqual([[], [], []]);
    const { query } = requests.find(({ to }) => to.endsWith('/values'))!;
    expect(String(query!.paths).split(',')).toEqual(expect.arrayContaining(['lines.quantity', 'account.name']));
    expect(readsOf(template, pins, demoSchema).fields.size).toBeGreaterThan(3);
  });

  it('takes the first record there is where none is asked for, and says so where there is none', async () => {
    const store = useFiguresStore();
    await store.load('glasshouse-quote', undefined, true);
    expect(store.shown!.record.id).toBe('D-1187');
    answering = (sent) => (sent.to === 'GET /api/records/Deal' ? { records: [] } : usual(sent));
    await store.load('glasshouse-quote', undefined, true);
    expect(store.problem).toMatchObject({ title: 'There is no record yet' });
  });

  it('explains the figure that is selected, for the row that is', async () => {
    const store = await opened();
    store.select('lines.net');
    await settled();
    expect(store.workings!.id).toBe('net of deal.lines{D-1187-1}');
    store.row = 2;
    await store.explain();
    expect(store.workings!.id).toContain('{D-1187-3}');
    store.select(undefined);
    await settled();
    expect(store.workings).toBeUndefined();
  });
});

describe('a change', () => {
  it('is computed at once, told, undone and done again', async () => {
    const store = await opened();
    const before = store.view!.figures.subtotal!.values[0]!.text;
    store.edit('subtotal', { formula: 'SUM(lines.net) * 2' }, 'Subtotal changed');
    await settled();
    expect(store.view!.figures.subtotal!.values[0]!.text).not.toBe(before);
    expect([useDraftStore().announcement, useDraftStore().past.length]).toEqual(['Subtotal changed', 1]);
    store.undo();
    await settled();
    expect(store.view!.figures.subtotal!.values[0]!.text).toBe(before);
    expect(useDraftStore().announcement).toBe('Undone: Subtotal changed');
    store.redo();
    expect(figure(store, 'subtotal')!.formula).toBe('SUM(lines.net) * 2');
    store.undo();
    store.undo();
    store.undo();
    expect(store.template).toEqual(template);
  });

  it('after an undo leaves nothing to do again', async () => {
    const store = await opened();
    store.add(undefined);
    store.undo();
    store.add(LINES);
    expect(useDraftStore().future).toEqual([]);
    expect(store.selected).toBe('lines.figure_1');
  });

  it('that cannot be read is a fault with its place', async () => {
    const store = await opened();
    store.edit('subtotal', { formula: 'SUM(' }, 'Being written');
    await settled();
    expect(store.faults.map(({ key }) => key)).toContain('subtotal');
  });

  it('asks for what a new formula reads and was not read yet', async () => {
    const store = await opened();
    const count = () => requests.filter(({ to }) => to.endsWith('/values')).length;
    const before = count();
    store.edit('subtotal', { formula: 'SUM(lines.net)' }, 'The same again');
    await settled();
    expect(count()).toBe(before);
    store.edit('subtotal', { formula: 'SUM(lines.net) + IF(deal.contact.account.city = "", 0, 1)' }, 'Another record');
    await settled();
    expect(count()).toBe(before + 1);
  });
});

describe('figures', () => {
  it('are added under a name that is free, moved, and taken out where nothing uses them', async () => {
    const store = await opened();
    store.add(undefined);
    store.add(undefined);
    expect(store.formulas.map(({ key }) => key)).toEqual(expect.arrayContaining(['figure_1', 'figure_2']));
    const last = store.template!.sheet.document.length - 1;
    store.reorder(undefined, last, 0);
    expect(store.template!.sheet.document[0]!.name).toBe('figure_2');
    store.reorder(undefined, 0, 0);
    await settled();
    expect(store.remove('figure_2')).toBeUndefined();
    expect(figure(store, 'figure_2')).toBeUndefined();
    expect(useDraftStore().announcement).toBe('“New figure” deleted');
    expect(store.remove('gone')).toBeUndefined();
  });

  it('that others need stay, with who they are', async () => {
    const store = await opened();
    expect(store.remove('subtotal')).toMatch(/^Can’t be deleted; used by .+ and a total that must match\.$/);
    expect(store.remove('lines.net')).toContain('Subtotal');
  });

  it('are renamed with every use, unless the name is none or is taken', async () => {
    const store = await opened();
    expect(store.rename('subtotal', 'sum of lines')).toBeDefined();
    expect(store.rename('subtotal', 'total')).toBe('There is a figure called “total” already.');
    expect(store.rename('subtotal', 'subtotal')).toBeUndefined();
    store.select('subtotal');
    expect(store.rename('subtotal', 'net_sum')).toBeUndefined();
    expect(store.selected).toBe('net_sum');
    expect(JSON.stringify(store.template!.layout)).toContain('net_sum');
    store.undo();
    expect(store.selected).toBe('subtotal');
    expect(JSON.stringify(store.template!.layout)).not.toContain('net_sum');
  });

  it('come in lists of their own, which are edited and taken out as a whole', async () => {
    const store = await opened();
    store.addList();
    store.edit('list_1', { label: 'By section' }, 'Renamed');
    store.add('list_1');
    await settled();
    expect(store.template!.sheet.lists.at(-1)).toMatchObject({ label: 'By section', columns: [{ name: 'figure_1' }] });
    expect(store.remove('list_1')).toBeUndefined();
    expect(store.template!.sheet.lists.map(({ name }) => name)).not.toContain('list_1');
  });

  it('come ready-made, and what they replace is told', async () => {
    const store = await opened();
    store.take(CALCULATIONS[0]!);
    expect(useDraftStore().announcement).toMatch(/^“Prices without tax, tax by category” taken: \d+ added/);
    store.setSheet({ rounding: 'half-even' }, 'Rounding changed');
    expect(store.template!.sheet.rounding).toBe('half-even');
  });
});
