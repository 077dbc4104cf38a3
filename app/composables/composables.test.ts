import { nextTick, reactive, shallowRef, type Ref } from 'vue';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { inNuxt, refusal, settled } from '../../tests/in-nuxt';
import * as client from './api';
import { useAct, useAttempt } from './attempt';
import { addressOf } from '#core/contract/address';
import * as days from './day-notation';
import { useDrawnRows } from './drawn-rows';
import * as fieldText from './field-text';
import * as inWords from './in-words';
import * as kept from './kept';
import { useKeys } from './keys';
import { useListQuery } from './list-query';
import { useLoaded } from './loaded';
import { useWalk } from './walk';
import { useRecordChanges } from './record-changes';
import { listPath, producePath, recordPath } from './record-path';

const toasts: { severity: string; summary: string; detail?: string }[] = [];
const route = reactive<{ query: Record<string, unknown> }>({ query: {} });
const goTo = async ({ query }: { query: Record<string, string> }): Promise<void> => {
  route.query = query;
};
const replace = vi.fn(goTo);
const push = vi.fn(goTo);
let pressed: (event: KeyboardEvent) => void;
beforeEach(() => {
  toasts.length = 0;
  route.query = {};
  replace.mockClear();
  push.mockClear();
  inNuxt(() => ({}), {
    ...client,
    useRoute: () => route,
    useRouter: () => ({ replace, push }),
    useToast: () => ({ add: (toast: (typeof toasts)[number]) => toasts.push(toast) }),
    useEventListener: (_name: string, listener: typeof pressed) => (pressed = listener),
    document: { querySelector: () => null },
    navigator: { language: 'en-GB' },
    window: { innerHeight: 800 },
    requestAnimationFrame: (draw: () => void) => setTimeout(draw, 16),
  });
});

describe('the address of a call', () => {
  it('has its parameters encoded, and of its query what is given', () => {
    expect(addressOf('GET /documents/{id}/file', { parameters: { id: 'a/b?' } })).toBe('/api/documents/a%2Fb%3F/file');
    const query = { kind: 'quote', state: undefined };
    expect(addressOf('GET /documents', { query })).toBe('/api/documents?kind=quote');
  });

  it('of a record holds any id', () => {
    expect(listPath('Order')).toBe('/records/Order');
    expect(recordPath('Order', 'W/1 ä')).toBe('/records/Order/W%2F1%20%C3%A4');
    expect(producePath('Order', 'W1', 'quote')).toBe('/records/Order/W1/produce/quote');
  });

  it('that nobody answers at is a problem in words', () => {
    expect(client.asProblem(new Error('x'))).toMatchObject({ status: 0, title: 'Lumbix does not answer' });
    expect(client.asProblem(refusal(409, 'Changed'))).toMatchObject({ status: 409, title: 'Changed' });
  });
});

describe('what is loaded', () => {
  it('is the newest, whichever comes last', async () => {
    const answers: ((value: string) => void)[] = [];
    const loaded = useLoaded(() => new Promise<string>((resolve) => answers.push(resolve)));
    const [first, second] = [loaded.reload(), loaded.reload()];
    answers[1]!('second');
    await second;
    answers[0]!('first');
    await first;
    expect([loaded.value.value, loaded.loading.value]).toEqual(['second', false]);
  });

  it('stays while a later call fails, with what went wrong', async () => {
    let fails = false;
    const loaded = useLoaded(() => (fails ? Promise.reject(refusal(503, 'Away')) : Promise.resolve('kept')));
    await loaded.reload();
    fails = true;
    await loaded.reload();
    expect([loaded.value.value, loaded.problem.value?.title]).toEqual(['kept', 'Away']);
    fails = false;
    await loaded.reload();
    expect(loaded.problem.value).toBeUndefined();
  });
});

describe('an attempt', () => {
  it('says whether it went well, and keeps what went wrong beside what was typed', async () => {
    const { busy, problem, attempt } = useAttempt();
    const going = attempt(() => Promise.reject(refusal(422, 'Not like this')));
    expect(busy.value).toBe(true);
    expect(await going).toBe(false);
    expect([busy.value, problem.value?.title]).toEqual([false, 'Not like this']);
    expect(await attempt(() => Promise.resolve())).toBe(true);
    expect(problem.value).toBeUndefined();
  });

  it('from a row is told in passing, and the rows are read again whatever came of it', async () => {
    const reload = vi.fn(() => Promise.resolve());
    const act = useAct(reload);
    await act(() => Promise.resolve(), 'Done.');
    await act(() => Promise.reject(refusal(409, 'Too late')), 'Done.');
    expect(toasts.map(({ severity, summary }) => [severity, summary])).toEqual([
      ['secondary', 'Done.'],
      ['error', 'Too late'],
    ]);
    expect(reload).toHaveBeenCalledTimes(2);
  });
});

describe('what a list shows', () => {
  it('is what its address says, and the usual where it says nothing', () => {
    const list = useListQuery({ sort: 'name', descending: true });
    expect([list.sort.value, list.descending.value, list.skip.value, list.search.value]).toEqual(['name', true, 0, '']);
    route.query = { sort: 'day', descending: 'false', skip: '25', search: 'gates', stage: ['a', 'b'] };
    expect([list.sort.value, list.descending.value, list.skip.value, list.search.value]).toEqual([
      'day',
      false,
      25,
      'gates',
    ]);
    expect(list.read('stage')).toBeUndefined();
    route.query = { skip: 'x' };
    expect(list.skip.value).toBe(0);
  });

  it('begins at its first page again when anything but the page changes, and says nothing that is usual', () => {
    const list = useListQuery({ sort: 'name', descending: false });
    route.query = { skip: '50', stage: 'Asked' };
    list.change({ search: 'gates', stage: '' });
    expect(push).toHaveBeenLastCalledWith({ query: { search: 'gates' } });
    list.change({ skip: '25' });
    expect(push).toHaveBeenLastCalledWith({ query: { search: 'gates', skip: '25' } });
  });

  it('has every change, however soon one comes after another', async () => {
    const list = useListQuery({ sort: 'name', descending: false });
    let arrive = () => {};
    push.mockImplementationOnce(() => new Promise<void>((resolve) => (arrive = resolve)));
    list.change({ from: '2001-01-01' });
    list.change({ until: '2001-02-01' });
    expect(route.query).toEqual({ from: '2001-01-01', until: '2001-02-01' });
    arrive();
    await settled();
    list.change({ from: undefined });
    expect(route.query).toEqual({ until: '2001-02-01' });
  });

  it('is gone back through: only words that are being typed take the place of those before', () => {
    const list = useListQuery({ sort: 'name', descending: false });
    list.change({ search: 'ga' });
    list.change({ search: 'gates' });
    list.change({ stage: 'Asked' });
    list.change({ search: undefined });
    expect([push, replace].map(({ mock }) => mock.calls.length)).toEqual([3, 1]);
    list.clear('stage');
    expect(route.query).toEqual({});
  });
});

describe('changes to a record', () => {
  const gate = (price: string) => ({
    type: 'Deal',
    id: 'D-1',
    version: price,
    fields: { price: { amount: price, currency: null } },
  });
  const working = (answering: (value: string) => unknown) => {
    const record = shallowRef(gate('1'));
    let stored = '1';
    const requests = inNuxt(
      ({ body }) => {
        const { value } = body as { value: string };
        return answering(value) ?? ((stored = value), { changed: true });
      },
      {
        ...client,
        ...fieldText,
        useToast: () => ({ add: (toast: (typeof toasts)[number]) => toasts.push(toast) }),
        navigator: { language: 'en-GB' },
      },
    );
    const changes = useRecordChanges({
      schema: () => ({ types: { Deal: { fields: { price: { label: 'Price' } } } } }) as never,
      records: () => [record.value],
      reload: () => Promise.resolve((record.value = gate(stored))),
    });
    return {
      changes,
      requests,
      record,
      store: (value: string) => (stored = value),
      write: (value: string) => changes.write(record.value, 'price', value),
    };
  };
  const values = (requests: { body?: unknown }[]) => requests.map(({ body }) => (body as { value: string }).value);

  it('are taken back in turn, each saying what, and done again', async () => {
    const { changes, requests, write } = working(() => undefined);
    await write('2');
    await write('3');
    await changes.undo();
    await changes.undo();
    await changes.undo();
    await changes.redo();
    expect(values(requests)).toEqual(['2', '3', '2', '1', '2']);
    expect(toasts.map(({ summary }) => summary)).toEqual([
      'Written to the CRM',
      'Written to the CRM',
      'Undone: Price',
      'Undone: Price',
      'Done again: Price',
    ]);
    await write('5');
    await changes.redo();
    expect(values(requests).at(-1)).toBe('5');
  });

  it('that are refused say why, and are not there to be taken back', async () => {
    const { changes, requests, write } = working(() => Promise.reject(refusal(422, 'This value does not fit')));
    expect(await write('x')).toContain('This value does not fit.');
    await changes.undo();
    expect(requests).toHaveLength(1);
  });

  it('whose answer was lost are looked for on the record', async () => {
    let hasArrived = true;
    const work = working((value) => {
      if (hasArrived) work.store(value);
      return Promise.reject(new Error('cut off'));
    });
    expect(await work.write('2')).toBeUndefined();
    expect(toasts.at(-1)!.summary).toBe('Written, not confirmed');
    hasArrived = false;
    expect(await work.write('3')).toContain('does not answer');
    expect(work.record.value.version).toBe('2');
  });

  it('that somebody else changed since are left as they are', async () => {
    const { changes, requests, record, write } = working(() => undefined);
    await write('2');
    record.value = gate('9');
    await changes.undo();
    expect(requests).toHaveLength(1);
    expect(toasts.at(-1)!.summary).toBe('Price was changed since');
  });
});

describe('rows of a list', () => {
  const rows = (count: number) => Array.from({ length: count }, (_, at) => ({ id: `R-${at}` }));
  const drawnOf = (all: Ref<{ id: string }[]>) => useDrawnRows(() => all.value, 50);

  it('are drawn from the top until the window is full, and the others once the page is at rest', async () => {
    vi.useFakeTimers();
    const drawn = drawnOf(shallowRef(rows(25)));
    expect(drawn.value).toHaveLength(6);
    await vi.advanceTimersByTimeAsync(200);
    expect(drawn.value).toHaveLength(18);
    await vi.advanceTimersByTimeAsync(3_000);
    expect(drawn.value.map(({ id }) => id)).toEqual(rows(25).map(({ id }) => id));
    vi.useRealTimers();
  });

  it('that are read again stay drawn; those of another page begin at the top', async () => {
    vi.useFakeTimers();
    const all = shallowRef(rows(25));
    const drawn = drawnOf(all);
    await vi.advanceTimersByTimeAsync(3_000);
    all.value = rows(25);
    await nextTick();
    expect(drawn.value).toHaveLength(25);
    all.value = rows(25).reverse();
    await nextTick();
    expect(drawn.value.map(({ id }) => id)).toEqual(['R-24', 'R-23', 'R-22', 'R-21', 'R-20', 'R-19']);
    vi.useRealTimers();
  });
});

describe('walking along a list', () => {
  const pages: Record<string, string[]> = { 0: ['D-1', 'D-2'], 2: ['D-3', 'D-4'], 4: [] };
  const walking = () => {
    const requests = inNuxt(({ query }) => ({ records: (pages[query!.skip!] ?? []).map((id) => ({ id })) }), {
      ...client,
      ...kept,
    });
    return { walk: useWalk(), requests };
  };

  it('leads on to the next page of it, in its order and with its filters', async () => {
    const { walk, requests } = walking();
    walk.begin({ type: 'Deal', ids: ['D-1', 'D-2'], query: { stage: 'Asked', sort: 'name' } });
    expect(await walk.beside('Deal', 'D-1', 1)).toBe('D-2');
    expect(requests).toEqual([]);
    expect(await walk.beside('Deal', 'D-2', 1)).toBe('D-3');
    expect(requests[0]!.query).toMatchObject({ stage: 'Asked', sort: 'name', skip: '2' });
    expect(await walk.beside('Deal', 'D-3', -1)).toBe('D-2');
    expect(await walk.beside('Deal', 'D-4', 1)).toBeUndefined();
    expect(await walk.beside('Deal', 'D-1', -1)).toBeUndefined();
  });

  it('leads back to the page before', async () => {
    const { walk } = walking();
    walk.begin({ type: 'Deal', ids: ['D-3', 'D-4'], query: { skip: '2' } });
    expect(await walk.beside('Deal', 'D-3', -1)).toBe('D-2');
    expect(await walk.beside('Deal', 'D-2', -1)).toBe('D-1');
  });

  it('keeps to the records that were chosen', async () => {
    const { walk, requests } = walking();
    walk.begin({ type: 'Deal', ids: ['D-9', 'D-4'] });
    expect([await walk.beside('Deal', 'D-9', 1), await walk.beside('Deal', 'D-4', 1)]).toEqual(['D-4', undefined]);
    expect(requests).toEqual([]);
  });

  it('from no list goes by the usual one', async () => {
    const { walk } = walking();
    walk.begin({ type: 'Order', ids: ['O-1'] });
    expect(await walk.beside('Deal', 'D-1', 1)).toBe('D-2');
  });
});

describe('keys', () => {
  const press = (key: string, more: object = {}, typing = false) => {
    const event = { key, target: { matches: () => typing }, preventDefault: vi.fn(), ...more };
    pressed(event as never);
    return event.preventDefault.mock.calls.length > 0;
  };

  it('do what they are for, whatever the case of a letter', () => {
    const actions = { r: vi.fn(), 'Control+Enter': vi.fn(), '[': vi.fn() };
    useKeys(actions);
    expect([press('R'), press('['), press('Enter', { ctrlKey: true }), press('x')]).toEqual([true, true, true, false]);
    expect(Object.values(actions).map(({ mock }) => mock.calls.length)).toEqual([1, 1, 1]);
  });

  it('leave letters to whoever types, and everything to an open dialog and to Alt', () => {
    useKeys({ r: () => undefined, 'Control+k': () => undefined });
    expect([press('r', {}, true), press('k', { metaKey: true }, true), press('r', { altKey: true })]).toEqual([
      false,
      true,
      false,
    ]);
    vi.stubGlobal('document', { querySelector: () => ({}) });
    expect(press('r')).toBe(false);
  });
});

describe('a day in figures', () => {
  it.each([
    ['en-GB', 'dd/mm/yy', '09/11/2026'], ['en-US', 'mm/dd/yy', '11/09/2026'], ['de-DE', 'dd.mm.yy', '09.11.2026'],
    ['sv-SE', 'yy-mm-dd', '2026-11-09'], ['ja-JP', 'yy/mm/dd', '2026/11/09'],
  ])('in %s is %s', (locale, notation, written) => {
    expect(days.dayNotation(locale)).toBe(notation);
    expect(days.dayInFigures(new Date(2026, 10, 9), notation)).toBe(written);
  }); // prettier-ignore

  it('goes to the calendar and back', () => {
    expect(days.dayOfDate(days.dateOfDay('2026-11-09')!)).toBe('2026-11-09');
    expect([days.dateOfDay(undefined), days.dateOfDay('soon')]).toEqual([null, null]);
  });
});

describe('a field’s value', () => {
  it.each([
    [null, '', ''],
    ['text', 'text', 'text'],
    [true, 'yes', 'true'],
    [{ number: '1250.5' }, '1,250.5', '1250.5'],
    [{ percent: '0.125' }, '12.5\u202f%', '12.5'],
    [{ amount: '1250', currency: 'GBP' }, '1,250.00\u00a0GBP', '1250'],
    [{ amount: '1250', currency: null }, '1250 (no currency)', '1250'],
    [{ date: '2026-12-14' }, '14 Dec 2026', '2026-12-14'],
    [{ datetime: '2026-12-14T10:00:00Z' }, '14 Dec 2026', ''],
    [{ choices: ['a', 'b'] }, 'a, b', 'a, b'],
    [{ rich: '<p>One <b>two</b></p>' }, 'One two', '<p>One <b>two</b></p>'],
    [{ image: { link: 'x' } }, 'a picture', ''],
    [{ image: { link: 'x', refused: 'Damaged.' } }, 'Damaged.', ''],
    [{ type: 'Order', id: 'W1', fields: {} }, 'W1', ''],
    [[], '0', ''],
  ])('%j is read as “%s” and typed as “%s”', (value, read, typed) => {
    expect(fieldText.fieldText(value as never)).toBe(read);
    if (!Array.isArray(value) && !(value !== null && typeof value === 'object' && 'fields' in value))
      expect(fieldText.writtenValue(value as never)).toBe(typed);
  });

  const field = (type: string, nullable = true) =>
    ({ name: 'f', label: 'Price', type, nullable, readonly: false }) as never;
  it.each([
    ['money', '1,250.50', { value: '1250.50' }],
    ['money', '1250.5 GBP', { value: '1250.5' }],
    ['percent', '12.5 %', { value: '12.5' }],
    ['number', '1,5', { either: ['1.5', '15'] }],
    ['number', 'ten', { problem: 'Price is a number, such as 1,250.5.' }],
    ['date', '2026-02-30', { problem: 'Price is a date.' }],
    ['date', '2026-02-28', { value: '2026-02-28' }],
    ['text', ' as it is ', { value: 'as it is' }],
    ['text', '', { value: '' }],
  ])('of the type %s, typed as “%s”, is %j', (type, typed, read) => {
    expect(fieldText.typedValue(field(type), typed)).toEqual(read);
  });

  it('is typed in the notation that is shown, and cannot be left empty where it must have a value', () => {
    vi.stubGlobal('navigator', { language: 'de-DE' });
    expect(fieldText.typedText(field('money'), { amount: '1250.5', currency: 'EUR' })).toBe('1250,5');
    expect(fieldText.typedValue(field('money'), '5.800')).toEqual({ value: '5800' });
    expect(fieldText.typedValue(field('money'), '5.80')).toEqual({ either: ['5.80', '580'] });
    expect(fieldText.typedValue(field('money', false), ' ')).toEqual({ problem: 'Price cannot be empty.' });
  });

  it('that is chosen is read by what people call it', () => {
    const allowed = [{ value: 'NL', label: 'Netherlands' }, { value: 'GB', label: 'United Kingdom' }]; // prettier-ignore
    expect(fieldText.fieldText('NL', { allowed })).toBe('Netherlands');
    expect(fieldText.fieldText({ choices: ['GB', 'XX'] }, { allowed })).toBe('United Kingdom, XX');
  });

  it('as a percentage goes both ways, and stays where it is none', () => {
    expect([fieldText.percentPoints('0.125'), fieldText.percentFraction('12.5 %')]).toEqual(['12.5', '0.125']);
    expect([fieldText.percentPoints('x'), fieldText.percentFraction('half')]).toEqual(['x', 'half']);
  });

  it('of the register is a sum or a dash', () => {
    expect(inWords.sumText('12.5', 'EUR')).toBe('12.50\u00a0EUR');
    expect([inWords.sumText(null, 'EUR'), inWords.sumText('1', null)]).toEqual(['–', '–']);
    expect(inWords.dayText('no day')).toBe('no day');
  });
});
