import { describe, expect, it } from 'vitest';
import { contract } from '../../core/contract/contract';
import type { ShapeOf } from '../../core/shape/shape';
import { accepted, acceptedTexts, Problem } from '../../server/problem';

const listQuery = contract['GET /records/{type}'].query;
const workingsQuery = contract['GET /productions/{id}/workings'].query;
const valuesQuery = contract['GET /records/{type}/{id}/values'].query;
const documentId = contract['GET /documents/{id}'].parameters;
const filingBody = contract['POST /documents'].body;
const changeBody = contract['PATCH /fields'].body;

/** The sentence that a request is refused with. */
function refused(status: number, call: () => unknown): string {
  try {
    call();
  } catch (problem) {
    expect((problem as Problem).status).toBe(status);
    return (problem as Problem).detail;
  }
  return '';
}
const ID = '0190a3c2-7d1e-7b1c-9a55-0123456789ab';
const FILING = { production: ID, skips: {} };
const CHANGE = { type: 'Deal', id: 'D-1', version: 'W/"3"', field: 'name', value: '' };
describe('a query', () => {
  it.each<[string, ShapeOf<unknown>, object, string]>([
    ['of no number', listQuery, { top: 'many' }, 'In the request, top: a number belongs here.'],
    ['of too many', listQuery, { top: '900' }, 'In the request, top: this is more than 100.'],
    ['of a place before the first', listQuery, { skip: '-1' }, 'In the request, skip: this is less than 0.'],
    [
      'of a view that there is not',
      listQuery,
      { view: 'best' },
      'In the request, view: this is one of all, needs-quote, quoted.',
    ],
    ['without its value', workingsQuery, {}, 'In the request, value: this is missing.'],
    [
      'of a path with more in it',
      valuesQuery,
      { paths: 'name;drop' },
      'In the request, paths: this takes names with points between them.',
    ],
    [
      'with more than there is',
      listQuery,
      { up: '1' },
      'In the address of the request: what is asked for can be one of sort, descending, skip, top, search, view, stage, owner.',
    ],
    ['of two views', listQuery, { view: ['all', 'quoted'] }, 'In the request, view: a text belongs here.'],
    [
      'of no character',
      listQuery,
      { search: 'a\0' },
      'The request has a text with a character that is none (NUL, or half of a pair). Write it anew.',
    ],
    ['of an id that is none', documentId, { id: 'x' }, 'In the request, id: this takes an id as Lumbix gives them.'],
  ])('%s is refused in words', (_, query, given, sentence) => {
    expect(refused(400, () => acceptedTexts(query, given))).toBe(sentence);
  });

  it('is read as what belongs there', () => {
    expect(acceptedTexts(listQuery, { top: '7', descending: 'true' })).toMatchObject({
      top: 7,
      descending: true,
      skip: 0,
      view: 'all',
    });
  });

  it('is never echoed', () => {
    for (const given of [{ view: 'x'.repeat(10_000) }, { top: 'x'.repeat(10_000) }, { ['x'.repeat(190)]: '1' }])
      expect(refused(400, () => acceptedTexts(listQuery, given))).not.toContain('xxx');
  });
});

describe('a place in a body', () => {
  it('is told by the names of its shape, never by those that were sent', () => {
    const rules = contract['PUT /people/rules'].body;
    const draft = contract['PUT /templates/{id}/draft'].body;
    const told = (shape: ShapeOf<unknown>, body: object) => refused(422, () => accepted(shape, body));
    expect(told(rules, { kinds: { 'made up': { see: 'x', act: [] } }, records: {} })).toBe(
      'In the request, kinds: a list belongs here.',
    );
    expect(told(rules, { kinds: { evil: 5 }, records: {} })).toBe('In the request, kinds: an object belongs here.');
    const figure = { name: 'net', label: 'Net', type: 'amount', formula: 5 };
    try {
      accepted(draft, { revision: 0, template: { sheet: { perLine: [figure] } } });
    } catch (problem) {
      const { faults } = (problem as Problem).members as { faults: { path: string; sentence: string }[] };
      expect(faults).toContainEqual({
        path: 'template.sheet.perLine[0].formula',
        sentence: 'In the request, formula: a text belongs here.',
      });
    }
    expect.assertions(5);
  });
});

describe('a body', () => {
  it('that is right comes through as it is', () => {
    expect(accepted(filingBody, { ...FILING, skips: { 'check amount': 'Known.' } })).toMatchObject({
      skips: { 'check amount': 'Known.' },
    });
    expect(accepted(changeBody, CHANGE)).toEqual(CHANGE);
  });

  it.each<[string, () => unknown, string]>([
    [
      'over anything that is there',
      () => accepted(changeBody, { ...CHANGE, version: '*' }),
      'In the request, version: this takes the entity tag that the record was read with.',
    ],
    [
      'with a number for a name',
      () => accepted(changeBody, { ...CHANGE, field: 5 }),
      'In the request, field: a text belongs here.',
    ],
    [
      'with more than there is',
      () => accepted(changeBody, { ...CHANGE, admin: true }),
      'In the request: there is a property here that is not known; look at how it is written.',
    ],
    [
      'with reasons that are no texts',
      () => accepted(filingBody, { ...FILING, skips: { a: {} } }),
      'In the request, skips: this does not belong here.',
    ],
    [
      'of an id that is none',
      () => accepted(filingBody, { ...FILING, production: 'today' }),
      'In the request, production: this takes an id as Lumbix gives them.',
    ],
    ['that is nothing', () => accepted(filingBody, null), 'In the request: this is missing.'],
  ])('%s is refused in words', (_, call, sentence) => {
    expect(refused(422, call)).toBe(sentence);
  });
});
