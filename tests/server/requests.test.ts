import { describe, expect, it } from 'vitest';
import { ValidationError, type ISchema } from 'yup';
import { faultsOfProblem } from '../../core/shape/faults';
import { accepted, Problem } from '../../server/problem';
import { changeBody, dealsQuery, documentId, filingBody, proofQuery, valuesQuery } from '../../server/requests';

const refused = async (query: ISchema<unknown>, given: object): Promise<string> => {
  const problem: unknown = await query.validate(given).catch((thrown: unknown) => thrown);
  expect(problem).toBeInstanceOf(ValidationError);
  return faultsOfProblem(problem as ValidationError, undefined, 'the request')[0]!.sentence;
};
const ID = '0190a3c2-7d1e-7b1c-9a55-0123456789ab';
const FILING = {
  recordId: 'D-1',
  templateId: 'q',
  templateVersionId: ID,
  issueDate: '2026-11-23',
  used: {},
  skipped: {},
};
const CHANGE = { type: 'Deal', id: 'D-1', version: 'W/"3"', field: 'name', value: '' };
const faultOf = (call: () => unknown): string => {
  try {
    call();
  } catch (problem) {
    expect((problem as Problem).status).toBe(422);
    return (problem as Problem).detail;
  }
  return '';
};

describe('a query', () => {
  it.each<[string, ISchema<unknown>, object, string]>([
    [
      'of no number',
      dealsQuery,
      { top: 'many' },
      'In the request, top: “many” stands here, but a number belongs here.',
    ],
    ['of too many', dealsQuery, { top: '900' }, 'In the request, top: 900 is more than 100.'],
    ['of a place before the first', dealsQuery, { skip: '-1' }, 'In the request, skip: -1 is less than 0.'],
    [
      'of a view that there is not',
      dealsQuery,
      { view: 'best' },
      'In the request, view: “best” stands here, but this is one of all, needs-quote, quoted.',
    ],
    ['without its deal', proofQuery, { template: 'q' }, 'In the request, deal: this is missing.'],
    [
      'of a path with more in it',
      valuesQuery,
      { paths: 'name;drop' },
      'In the request, paths: “name;drop” stands here, but this takes names with points between them.',
    ],
    [
      'of an id that is none',
      documentId,
      { id: 'x' },
      'In the request, id: “x” stands here, but this takes an id as Lumbix gives them.',
    ],
  ])('%s is refused in words', async (_, query, given, sentence) => {
    expect(await refused(query, given)).toBe(sentence);
  });

  it('is not echoed at length', async () => {
    expect((await refused(dealsQuery, { view: 'x'.repeat(10_000) })).length).toBeLessThan(200);
    expect((await refused(dealsQuery, { top: 'x'.repeat(10_000) })).length).toBeLessThan(200);
  });
});

describe('a body', () => {
  it('that is right comes through as it is', () => {
    expect(accepted(filingBody, { ...FILING, used: { 'deal.name': 'x' }, edition: 'en' })).toMatchObject({
      edition: 'en',
    });
    expect(accepted(changeBody, CHANGE)).toEqual(CHANGE);
  });

  it.each<[string, () => unknown, string]>([
    [
      'over anything that is there',
      () => accepted(changeBody, { ...CHANGE, version: '*' }),
      'In the request, version: “*” stands here, but this takes the entity tag that the record was read with.',
    ],
    [
      'with a number for a name',
      () => accepted(changeBody, { ...CHANGE, field: 5 }),
      'In the request, field: 5 stands here, but a text belongs here.',
    ],
    [
      'with more than there is',
      () => accepted(changeBody, { ...CHANGE, admin: true }),
      'In the request: there is no property admin here; look at how it is written.',
    ],
    [
      'with used values that are no texts',
      () => accepted(filingBody, { ...FILING, used: { a: {} } }),
      'In the request, used: {"a":{}} does not belong here.',
    ],
    [
      'of a day that is none',
      () => accepted(filingBody, { ...FILING, issueDate: 'today' }),
      'In the request, issueDate: “today” stands here, but this takes a day such as 2026-11-23.',
    ],
    ['that is nothing', () => accepted(filingBody, null), 'In the request: this is missing.'],
  ])('%s is refused in words', (_, call, sentence) => {
    expect(faultOf(call)).toBe(sentence);
  });
});
