import { describe, expect, it } from 'vitest';
import glasshouseQuote from '../../demo/templates/glasshouse-quote.json';
import { shipped } from '../../demo/shipped';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { activitiesOf } from '../record/activities';
import { faultsOf } from '../template/gate';
import type { PlanStep } from '../template/plan';
import type { Template } from '../template/template';
import { compose } from './compose';
import { safePath } from './file-name';

const quote = glasshouseQuote as unknown as Template;
const withSteps = (steps: PlanStep[]): Template => ({ ...quote, plans: [{ ...quote.plans[0]!, steps }] });
const composed = (steps: PlanStep[], deal = 'D-1188') =>
  compose(withSteps(steps), demoSnapshot(deal), {
    schema: demoSchema,
    pins: shipped,
    issueDate: '2026-11-27',
    edition: 'en',
    available: demoPictures,
    number: { serial: 7, text: 'Q-2026-0007' },
    places: { archive: 'Archive' },
  });
const setFields = (field: string, value: string, when?: string): PlanStep => ({
  type: 'setFields',
  id: 'set',
  when,
  fields: [{ field, value }],
});

describe('steps after filing', () => {
  it('have their values, and say in words what they will do', () => {
    const { steps, findings } = composed([
      {
        type: 'setFields',
        id: 'set',
        fields: [
          { field: 'stage', value: '"Quoted"' },
          { field: 'closes_on', value: 'DATE(2026, 12, 24)' },
          { field: 'discount_percent', value: '12.5%' },
          { field: 'amount', value: 'total' },
          { field: 'validity_days', value: '10 + 20' },
          { field: 'site_works', value: 'deal.site_works' },
          { field: 'order_number', value: 'IF(false, "x", deal.order_number)' },
        ],
      },
      { type: 'activity', id: 'note', kind: 'note', subject: 'Quote =[document.number]', text: '=[subtotal]' },
      { type: 'copy', id: 'copy', place: 'archive', path: '=[deal.account.name]/=[document.number]' },
      { type: 'address', id: 'link', field: 'document_link' },
    ]);
    expect(findings.filter(({ id }) => id.startsWith('step'))).toEqual([]);
    expect(steps[0]).toMatchObject({
      fields: {
        stage: 'Quoted',
        closes_on: { date: '2026-12-24' },
        discount_percent: { percent: '0.125' },
        validity_days: { number: '30' },
      },
      words: expect.stringMatching(
        /^Sets Stage to “Quoted”, sets Closing date to “24 December 2026”, .* and /,
      ) as string,
    });
    const [, note, copy, link] = steps;
    expect(note).toMatchObject({ kind: 'note', subject: 'Quote Q-2026-0007' });
    expect(note!.words).toBe('Writes the activity “Quote Q-2026-0007” (note).');
    expect(copy).toMatchObject({
      place: 'archive',
      path: expect.stringMatching(/^[^/]+\/Q-2026-0007\.pdf$/) as string,
    });
    expect(copy!.words).toMatch(/^Keeps a copy in Archive: “.+\/Q-2026-0007\.pdf”\.$/);
    expect(link!.words).toBe('Puts the document’s address into Latest document.');
  });

  it('tell of the number as long as there is none, without the words that stand for it on the page', () => {
    const note: PlanStep = { type: 'activity', id: 'note', kind: 'note', subject: 'Quote =[document.number] filed' };
    const { steps } = compose(withSteps([note]), demoSnapshot('D-1188'), {
      schema: demoSchema,
      pins: shipped,
      issueDate: '2026-11-27',
      edition: 'de',
      available: demoPictures,
    });
    expect(steps[0]!.words).toBe('Writes the activity “Quote … filed” (note).');
  });

  it('are skipped where their condition does not hold, and told as what they would do', () => {
    const { steps } = composed([setFields('stage', '"Quoted"', 'deal.stage = "Lost"')]);
    expect(steps).toEqual([{ id: 'set', type: 'setFields', skipped: true, words: 'Sets Stage.' }]);
  });

  it('that cannot be done stop filing, with the reason', () => {
    const sentences = (step: PlanStep) =>
      composed([step])
        .findings.filter(({ severity, id }) => severity === 'stops' && /^(step|error)/.test(id))
        .map(({ sentence }) => sentence);
    expect(sentences(setFields('stage', '"Quotd"'))).toEqual([
      expect.stringMatching(/^Stage is one of Enquiry, .+ It would be set to “Quotd”\.$/) as string,
    ]);
    expect(sentences(setFields('nothing', '"x"'))).toEqual(['The deal has no field “nothing”.']);
    expect(sentences(setFields('number', '"x"'))).toEqual(['Number of the deal cannot be set from outside.']);
    expect(sentences(setFields('validity_days', '1 / 0'))).toHaveLength(1);
    expect(sentences({ type: 'activity', id: 'a', kind: 'parade', subject: 'x' })).toEqual([
      'There is no activity of the kind “parade”. There are these: Note, Call, Message, Visit.',
    ]);
  });

  it('read what nothing prints, and so never make a document stale', () => {
    const before = composed([]).usedDigest;
    expect(composed([setFields('stage', 'deal.owner', 'false')]).usedDigest).toBe(before);
    expect(composed([{ type: 'activity', id: 'a', kind: 'note', subject: '=[deal.owner]' }]).usedDigest).toBe(before);
  });
});

describe('a template’s steps at the gate', () => {
  const faults = (steps: PlanStep[]) =>
    faultsOf(withSteps(steps), shipped, demoSchema).faults.map((each) => each.sentence);

  it('name fields, values and kinds that the CRM knows, and formulas that can be read', () => {
    expect(faults([setFields('stage', '"Quoted"')])).toEqual([]);
    expect(faults([setFields('stage', '"Quotd"')])).toEqual([
      expect.stringMatching(/^In the steps of “File and follow up”: Stage is one of/) as string,
    ]);
    expect(faults([setFields('stage', 'deal.stagge')])).toEqual([expect.stringContaining('stagge') as string]);
    expect(faults([{ type: 'address', id: 'a', field: 'lines' }])).toEqual([
      'In the steps of “File and follow up”: Line items of the deal cannot be set from outside.',
    ]);
    expect(faults([setFields('owner', '"A"'), setFields('owner', '"B"')])).toEqual([
      'In the steps of “File and follow up”: two are called “set”. Give one another id.',
    ]);
  });
});

it('activities are found by what their fields are', () => {
  expect(activitiesOf(demoSchema, 'Deal')).toMatchObject({
    relation: 'activities',
    type: 'Activity',
    kind: { name: 'kind' },
    subject: { name: 'subject' },
    text: { name: 'text' },
  });
  expect(activitiesOf(demoSchema, 'Product')).toBeUndefined();
});

describe('a path for a copy', () => {
  it('is made of safe names, and leads nowhere else', () => {
    expect(safePath(['Invoices/', '2026', '/I-1'], 'pdf')).toBe('Invoices/2026/I-1.pdf');
    expect(safePath(['../../etc/passwd'], 'pdf')).toBe('etc/passwd.pdf');
    expect(safePath(['/a//./b/c.PDF'], 'pdf')).toBe('a/b/c.pdf');
    expect(safePath(['con/<x>:y'], 'pdf')).toBe('con-/-x--y.pdf');
    expect(safePath(['/'], 'pdf')).toBe('Document.pdf');
  });
});
