import { describe, expect, it } from 'vitest';
import { composeBlocks } from '../../tests/compose-blocks';
import type { Ask } from '../template/asks';
import type { Block } from '../template/blocks';
import type { DocumentChange, MadeChange } from './document-change';
import { isAnswer } from './answers';

/** What a template asks for with each document, and what is said. */
const DAYS: Ask = { name: 'fitting_days', label: 'Fitting days', type: 'number' };
const printed: Block[] = [
  {
    type: 'paragraph',
    attrs: { id: 'p' },
    content: [{ type: 'value', attrs: { id: 'v', formula: 'ask.fitting_days' } }],
  },
];
const said = (value: string, path = 'ask.fitting_days'): MadeChange => ({
  id: path,
  change: { type: 'value', path, value },
  label: 'Fitting days',
  by: 'Linus Hart',
  at: '2026-11-23T09:00:00.000Z',
});
const over = (asks: Ask[], changes: MadeChange[] = [], blocks = printed) =>
  composeBlocks(blocks, { template: { asks }, context: { changes } });
const textOf = (composition: ReturnType<typeof over>) => JSON.stringify(composition.document.body);

describe('what a template asks for', () => {
  it('is printed as it is said for this document', () => {
    const { findings, answers, ...rest } = over([DAYS], [said('2.5')]);
    expect(findings).toEqual([]);
    expect(answers).toEqual([{ ask: DAYS, value: { number: '2.5' }, given: true }]);
    expect(textOf({ findings, answers, ...rest })).toContain('2.5');
  });

  it('is what the template says from the record, where nobody says otherwise', () => {
    const usual = { ...DAYS, default: 'COUNT(lines) * 2' };
    const composition = over([usual]);
    expect(composition.answers).toEqual([{ ask: usual, value: { number: '8' }, given: false }]);
    expect(composition.findings).toEqual([]);
    expect(over([usual], [said('3')]).answers).toMatchObject([{ value: { number: '3' }, given: true }]);
  });

  it('stops filing while it is blank, with its way out, unless it may stay so', () => {
    expect(over([DAYS], [], []).findings).toMatchObject([
      {
        id: 'missing ask.fitting_days',
        severity: 'stops',
        path: 'ask.fitting_days',
        title: 'Fitting days is not filled in',
      },
    ]);
    expect(over([{ ...DAYS, optional: true }], [], []).findings).toEqual([]);
    // Printed all the same, it is missing like any blank.
    expect(over([{ ...DAYS, optional: true }]).findings).toMatchObject([
      { id: 'missing ask.fitting_days', severity: 'stops' },
    ]);
  });

  it.each<[Ask['type'], string, unknown]>([
    ['text', 'by crane', 'by crane'],
    ['number', '12', { number: '12' }],
    ['percent', '7.5', { percent: '0.075' }],
    ['date', '2026-12-01', { date: '2026-12-01' }],
    ['boolean', 'true', true],
    ['choice', 'van', 'van'],
  ])('of the kind %s is read as it is typed', (type, typed, value) => {
    const ask: Ask = { ...DAYS, type, allowed: ['van', 'ship'] };
    expect(over([ask], [said(typed)], []).answers).toEqual([{ ask, value, given: true }]);
  });

  it.each<[Ask['type'], string]>([
    ['number', 'many'],
    ['date', 'soon'],
    ['choice', 'train'],
  ])('of the kind %s is told where it cannot be: %s', (type, typed) => {
    const { findings, answers } = over([{ ...DAYS, type, allowed: ['van'] }], [said(typed)], []);
    expect(answers).toMatchObject([{ value: null, given: false }]);
    expect(findings.map(({ id }) => id)).toEqual(['change ask.fitting_days', 'missing ask.fitting_days']);
  });

  it.each<[Ask['type'], string, unknown]>([
    ['text', '"a" & "b"', 'ab'],
    ['percent', '12%', { percent: '0.12' }],
    ['date', 'document.issue_date', { date: '2026-11-23' }],
    ['boolean', 'COUNT(lines) > 3', true],
    ['choice', '"van"', 'van'],
    ['choice', '"train"', null],
    ['number', '"a text"', null],
    ['number', 'no_such_figure', null],
  ])('of the kind %s is usually %s', (type, formula, value) => {
    expect(over([{ ...DAYS, type, allowed: ['van'], default: formula, optional: true }], [], []).answers).toMatchObject(
      [{ value }],
    );
  });

  it('that is not asked for any more is told', () => {
    expect(over([], [said('3')], []).findings).toMatchObject([{ id: 'change ask.fitting_days', severity: 'stops' }]);
    expect(over([], [], []).answers).toBeUndefined();
  });

  it('may decide what prints, and which edition', () => {
    const section = (when: string): Block => ({
      type: 'whenSection',
      attrs: { id: 's', when, note: 'fitting' },
      content: [{ type: 'then', attrs: { id: 's.then' }, content: printed }],
    });
    const blocks = [section('ask.fitting_days > 3')];
    expect(over([DAYS], [said('2')], blocks).leftOut).toHaveLength(1);
    expect(over([DAYS], [said('4')], blocks).leftOut).toHaveLength(0);
    const { edition } = composeBlocks([], {
      template: { asks: [{ ...DAYS, type: 'text' }], edition: 'ask.fitting_days' },
      context: { changes: [said('nl')], edition: undefined },
    });
    expect(edition).toBe('nl');
  });

  it('is told from values of the record by its path', () => {
    const change = (path: string): DocumentChange => ({ type: 'value', path, value: '1' });
    expect(['ask.days', 'deal.lines{L-1}.quantity', 'deal.name', 'ask.a.b'].map((path) => isAnswer(change(path)))).toEqual([
      true, false, false, false,
    ]); // prettier-ignore
  });
});
