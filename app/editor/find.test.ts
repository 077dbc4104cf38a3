import { getSchema } from '@tiptap/core';
import { EditorState } from '@tiptap/pm/state';
import { expect, it } from 'vitest';
import type { Template } from '#core/template/template';
import { shipped } from '../../demo/shipped';
import { sheetExtensions } from './extensions';
import { matchesOf, replaceMatches, type Search } from './find';
import { LayoutDoc } from './layout-doc';

const schema = getSchema(sheetExtensions);
type Body = Template['layout']['body'];
const { layout } = shipped.templates[0]!;
const BODY: Body = [
  {
    type: 'paragraph',
    attrs: { id: 'p' },
    content: [
      { type: 'text', text: 'The net and ' },
      { type: 'text', text: 'the NET', marks: [{ type: 'bold' }] },
      { type: 'value', attrs: { id: 'v', formula: 'SUM(lines.net)' } },
      { type: 'text', text: ' net' },
    ],
  },
  { type: 'totals', attrs: { id: 't', rows: [{ id: 'net', label: 'Net =[net]', formula: 'net' }] } },
];

function replacedIn(body: Body, search: Search, by: string): Body {
  const docs = new LayoutDoc(schema);
  let state = EditorState.create({ doc: docs.docOf({ ...layout, body }) });
  const matches = matchesOf(state.doc, search);
  replaceMatches(matches, search, by)(state, (transaction) => (state = state.apply(transaction)));
  return docs.layoutOf(state.doc, { ...layout, body }).body;
}

it('finds words in the text, whatever their case, and in formulas where that is asked for', () => {
  const { doc } = EditorState.create({ doc: new LayoutDoc(schema).docOf({ ...layout, body: BODY }) });
  expect(matchesOf(doc, { words: 'net', inFormulas: false })).toHaveLength(3);
  expect(matchesOf(doc, { words: 'net', inFormulas: true }).map(({ is }) => is)).toEqual([
    'text', 'text', 'attribute', 'text', 'attribute',
  ]); // prettier-ignore
  expect(matchesOf(doc, { words: '.*', inFormulas: true })).toEqual([]);
  expect(matchesOf(doc, { words: '', inFormulas: true })).toEqual([]);
});

it('replaces them with their looks, and leaves names alone', () => {
  const [paragraph, totals] = replacedIn(BODY, { words: 'net', inFormulas: true }, 'sum');
  expect(paragraph).toMatchObject({
    content: [
      { text: 'The sum and ' },
      { text: 'the sum', marks: [{ type: 'bold' }] },
      { attrs: { formula: 'SUM(lines.sum)' } },
      { text: ' sum' },
    ],
  });
  expect(totals!.attrs).toEqual({ id: 't', rows: [{ id: 'net', label: 'sum =[sum]', formula: 'sum' }] });
});

it('takes words out, and takes signs of replacements as they are', () => {
  const [paragraph] = replacedIn(BODY, { words: ' and ', inFormulas: false }, '');
  expect(JSON.stringify(paragraph)).toContain('"The net"');
  expect(JSON.stringify(replacedIn(BODY, { words: 'NET', inFormulas: false }, '$&'))).toContain('the $&');
});
