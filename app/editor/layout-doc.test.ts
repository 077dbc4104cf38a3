import { isDeepStrictEqual } from 'node:util';
import { getSchema } from '@tiptap/core';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { orderedMarks, type Mark } from '#core/template/inlines/marks';
import { layout as layoutShape } from '#core/template/layout';
import type { Template } from '#core/template/template';
import { shipped } from '../../demo/shipped';
import { arbitraryOf } from '../../tests/arbitrary-shape';
import { propertyRuns } from '../../tests/property-runs';
import { sheetExtensions } from './extensions';
import { LayoutDoc } from './layout-doc';

type Layout = Template['layout'];
const schema = getSchema(sheetExtensions);
const layouts = arbitraryOf(layoutShape) as fc.Arbitrary<Layout>;

/** The same document, known to nobody. */
const copied = (layout: Layout) => schema.nodeFromJSON(new LayoutDoc(schema).docOf(layout).toJSON());
interface Piece {
  type?: string;
  text?: string;
  marks?: unknown;
}
/** Text in as few pieces as its looks allow. */
const joined = (all: readonly Piece[]) =>
  all.reduce<Piece[]>((before, piece) => {
    const last = before.at(-1);
    const belongs = last?.type === 'text' && piece.type === 'text' && isDeepStrictEqual(last.marks, piece.marks);
    return belongs ? [...before.slice(0, -1), { ...last, text: last.text! + piece.text! }] : [...before, piece];
  }, []);
/** Without what says the same in another way: lists that hold nothing, text in several pieces of one look, marks twice. */
const bare = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value), (key, each: unknown) => {
    if ((key !== 'content' && key !== 'marks') || !Array.isArray(each)) return each;
    if (each.length === 0) return undefined;
    return key === 'marks' ? orderedMarks(each as Mark[]) : joined(each as Piece[]);
  });

it('every layout is one document, which gives the same layout', () => {
  fc.assert(
    fc.property(layouts, (layout) => {
      const docs = new LayoutDoc(schema);
      const doc = docs.docOf(layout);
      doc.check();
      expect(docs.layoutOf(doc, layout)).toBe(layout);
      expect(bare(new LayoutDoc(schema).layoutOf(copied(layout), layout))).toEqual(bare(layout));
    }),
    { numRuns: propertyRuns(200) },
  );
});

it.each(shipped.templates.map(({ id, layout }) => [id, layout] as const))('%s comes out as it went in', (_, layout) => {
  const docs = new LayoutDoc(schema);
  expect(docs.layoutOf(docs.docOf(layout), layout)).toBe(layout);
  expect(new LayoutDoc(schema).layoutOf(copied(layout), layout)).toEqual(layout);
});

it('a change leaves everything else the very same', () => {
  const { layout } = shipped.templates[0]!;
  const docs = new LayoutDoc(schema);
  const doc = docs.docOf(layout);
  const changed = { ...layout, body: layout.body.slice(1) };
  const after = docs.layoutOf(docs.docOf(changed), layout);
  expect(after.body[0]).toBe(layout.body[1]);
  expect(docs.docOf(changed).lastChild!.child(0)).toBe(doc.lastChild!.child(1));
});

it('a text that is too long for one piece is kept in several, whole characters each', () => {
  const docs = new LayoutDoc(schema);
  const { layout } = shipped.templates[0]!;
  const text = `a${'😀'.repeat(8_000)}`;
  const long = schema.node('pageBody', null, schema.node('paragraph', { id: 'p' }, schema.text(text)));
  const after = docs.layoutOf(schema.node('doc', null, long), layout);
  const [block] = after.body;
  const pieces = (block as { content: { text: string }[] }).content.map((each) => each.text);
  expect(pieces.join('')).toBe(text);
  expect(pieces.map(({ length }) => length)).toEqual([9_999, 6_002]);
});

it('page fields have no looks in a layout', () => {
  const docs = new LayoutDoc(schema);
  const { layout } = shipped.templates[0]!;
  const marked = schema.nodes.pageNumber!.create(null, null, [schema.mark('bold')]);
  const body = schema.node('pageBody', null, schema.node('paragraph', { id: 'p' }, marked));
  expect(docs.layoutOf(schema.node('doc', null, body), layout).body).toEqual([
    { type: 'paragraph', attrs: { id: 'p' }, content: [{ type: 'pageNumber' }] },
  ]);
});
