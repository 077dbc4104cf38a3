import { getSchema } from '@tiptap/core';
import { Fragment, Slice, type Node } from '@tiptap/pm/model';
import { EditorState, NodeSelection, Selection, TextSelection, type Command } from '@tiptap/pm/state';
import { deleteSelection, joinBackward, joinForward, splitBlock } from '@tiptap/pm/commands';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { layout as layoutShape } from '#core/template/layout';
import type { Template } from '#core/template/template';
import { shipped } from '../../demo/shipped';
import { compose } from '#core/production/compose';
import { faultsOf } from '#core/template/gate';
import { demoPictures, demoSchema, demoSnapshot } from '../../tests/demo-snapshot';
import { arbitraryOf } from '../../tests/arbitrary-shape';
import { propertyRuns } from '../../tests/property-runs';
import {
  addColumn,
  addOtherwise,
  dropRegion,
  duplicateChosen,
  goToCell,
  GRID_COMMANDS,
  insertBlock,
  insertInline,
  leaveList,
  liftItem,
  moveBeside,
  moveBlocks,
  moveChosen,
  ownRegion,
  partOf,
  removeChosen,
  removePart,
  setAttributes,
  setWidths,
  startOnPage,
  toggleList,
  unwrap,
  wrapChosen,
} from './commands';
import { tableOf } from '#core/template/design/tables';
import { totalsOf } from '#core/template/design/totals';
import { sheetExtensions } from './extensions';
import { PANELS } from './kinds/panels';
import { LayoutDoc } from './layout-doc';
import { newId } from './new-id';
import { partIdsPlugin } from './part-ids';
import { takeDoc } from './take-layout';
import { wholeGridsPlugin } from './whole-grids';

type Layout = Template['layout'];

const QUOTE = shipped.templates.find(({ id }) => id === 'glasshouse-quote')!;
const CONTEXT = { schema: demoSchema, pins: shipped, issueDate: '2026-11-27', available: demoPictures };
const schema = getSchema(sheetExtensions);
const EMPTY = schema.node('doc', null, schema.node('pageBody'));

/** A sheet without a screen, with the history that its draft keeps. */
class Desk {
  state = EditorState.create({ doc: EMPTY, plugins: [partIdsPlugin(), wholeGridsPlugin()] });
  readonly docs = new LayoutDoc(schema);
  readonly past: Layout[] = [];
  future: Layout[] = [];

  constructor(public layout: Layout) {
    this.#take(layout);
  }

  run(command: Command): void {
    command(this.state, (transaction) => (this.state = this.state.apply(transaction)));
    const after = this.docs.layoutOf(this.state.doc, this.layout);
    if (after === this.layout) return;
    this.past.push(this.layout);
    [this.layout, this.future] = [after, []];
  }

  undo(): void {
    const before = this.past.pop();
    if (!before) return;
    this.future.push(this.layout);
    this.#take(before);
  }

  redo(): void {
    const next = this.future.pop();
    if (!next) return;
    this.past.push(this.layout);
    this.#take(next);
  }

  #take(layout: Layout): void {
    const transaction = takeDoc(this.state, this.docs.docOf(layout));
    if (transaction) this.state = this.state.apply(transaction);
    this.layout = layout;
  }
}

/** The places of a document that something can be done at. */
function blocksOf(doc: Node): { id: string; position: number; size: number }[] {
  const found: { id: string; position: number; size: number }[] = [];
  doc.descendants((node, position) => {
    if (node.attrs.id) found.push({ id: node.attrs.id as string, position, size: node.nodeSize });
  });
  return found;
}

const typed =
  (text: string): Command =>
  (state, dispatch) => {
    if (!state.selection.$from.parent.inlineContent || !state.selection.$from.sameParent(state.selection.$to))
      return false;
    dispatch?.(state.tr.insertText(text));
    return true;
  };

/** What one step does at two places, told as numbers. */
const ACTIONS: readonly ((desk: Desk, a: number, b: number) => Command | void)[] = [
  ({ state: { doc } }, a) =>
    (state, dispatch) => {
      const place = a % (doc.content.size + 1);
      dispatch?.(state.tr.setSelection(Selection.near(doc.resolve(place))));
      return true;
    },
  ({ state: { doc } }, a, b) =>
    (state, dispatch) => {
      const places = [a, b].map((each) => Selection.near(doc.resolve(each % (doc.content.size + 1))).from);
      const [from, to] = places.sort((one, other) => one - other) as [number, number];
      const [$from, $to] = [doc.resolve(from), doc.resolve(to)];
      if (!$from.parent.inlineContent || !$to.parent.inlineContent) return false;
      dispatch?.(state.tr.setSelection(TextSelection.between($from, $to)));
      return true;
    },
  ({ state: { doc } }, a) =>
    (state, dispatch) => {
      const all = blocksOf(doc).filter(({ position }) => doc.nodeAt(position)!.type.spec.selectable !== false);
      const block = all[a % Math.max(1, all.length)];
      if (!block) return false;
      dispatch?.(state.tr.setSelection(NodeSelection.create(doc, block.position)));
      return true;
    },
  (_, a) => typed('abc d'.slice(0, 1 + (a % 5))),
  () => splitBlock,
  () => joinBackward,
  () => joinForward,
  () => deleteSelection,
  () => removeChosen,
  () => duplicateChosen,
  () => leaveList,
  () => liftItem,
  (_, a) => goToCell(a % 2 ? 1 : -1),
  (_, a) => moveChosen(a % 2 ? 1 : -1),
  (_, a) => toggleList(a % 2 ? 'bulletList' : 'numberedList'),
  (_, a) => Object.values(GRID_COMMANDS)[a % 4]!(schema),
  // Line tables and totals as they are designed.
  ({ state: { doc } }, a) => {
    const made =
      a % 2 ? tableOf(QUOTE, demoSchema, 'lines', newId) : totalsOf(QUOTE, demoSchema, ['total', 'tax'], newId);
    return doc.nodeSize > 4_000 ? undefined : insertBlock(schema.nodeFromJSON(made.block), 'Put in');
  },
  ({ state: { doc } }, a, b) => {
    const tables = blocksOf(doc).filter(({ position }) => doc.nodeAt(position)!.type.name === 'lineTable');
    const table = tables[a % Math.max(1, tables.length)];
    if (!table) return;
    const columns = doc.nodeAt(table.position)!.attrs.columns as object[];
    const moved = columns[b % columns.length]!;
    const others = columns.filter((each) => each !== moved);
    const next = b % 3 === 0 && others.length > 0 ? others : [...others, moved];
    return setAttributes(table.id, { columns: next }, 'Columns changed');
  },
  (_, a) => {
    const inserts = PANELS.flatMap(({ insert }) => insert ?? []);
    const node = schema.nodeFromJSON(inserts[a % inserts.length]!.make(newId));
    return node.isInline ? insertInline(node, 'Put in') : insertBlock(node, 'Put in');
  },
  (_, a) =>
    insertInline(schema.node('value', { id: newId(), formula: 'deal.name' }), 'Put in', a % 2 ? 'Name' : undefined),
  ({ state: { doc } }, a, b) => {
    const all = blocksOf(doc);
    const [own, other] = [a, b].map((at) => all[at % Math.max(1, all.length)]);
    return own && other && moveBeside(own.id, other.id, (a + b) % 2 ? 'before' : 'after');
  },
  ({ state: { doc } }, a) => {
    const all = blocksOf(doc);
    const part = all[a % Math.max(1, all.length)];
    return part && addColumn(part.id);
  },
  ({ state: { doc } }, a, b) => {
    const held = blocksOf(doc).filter(({ position }) => /^(gridTable|columns)$/.test(doc.nodeAt(position)!.type.name));
    const table = held[a % Math.max(1, held.length)];
    if (!table) return;
    const node = doc.nodeAt(table.position)!;
    const count = node.type.name === 'columns' ? node.childCount : (node.firstChild?.childCount ?? 0);
    return setWidths(
      table.id,
      Array.from({ length: count }, (_each, at) => 0.5 + ((b + at) % 4)),
    );
  },
  (_, a) => {
    const column = (inside: readonly Node[]) => schema.node('column', { id: newId(), width: 1 }, [...inside]);
    const wraps: readonly ((inside: readonly Node[]) => Node)[] = [
      (inside) => schema.node('keepTogether', { id: newId() }, [...inside]),
      (inside) => schema.node('columns', { id: newId() }, [column(inside), column([])]),
      (inside) => schema.node('forEach', { id: newId(), list: 'lines' }, [...inside]),
      (inside) =>
        schema.node('whenSection', { id: newId(), when: 'true' }, schema.node('then', { id: newId() }, [...inside])),
    ];
    return wrapChosen((_schema, inside) => wraps[a % wraps.length]!(inside), 'Put around');
  },
  ({ state: { doc } }, a) => {
    const held = blocksOf(doc).filter(({ position }) => doc.nodeAt(position)!.type.name === 'whenSection');
    return addOtherwise(held[a % Math.max(1, held.length)]?.id ?? '');
  },
  () => startOnPage,
  ({ state: { doc } }, a) => {
    const all = blocksOf(doc);
    return unwrap(all[a % Math.max(1, all.length)]?.id ?? '');
  },
  ({ state: { doc } }, a) => {
    const all = blocksOf(doc);
    return removePart(all[a % Math.max(1, all.length)]?.id ?? '', 'Deleted');
  },
  ({ state: { doc } }, a) => {
    const all = blocksOf(doc);
    const { id } = all[a % Math.max(1, all.length)] ?? { id: '' };
    return partOf(doc, id)?.node.type.name === 'heading'
      ? setAttributes(id, { level: 1 + (a % 3) }, 'Level changed')
      : undefined;
  },
  ({ state: { doc } }, a, b) => {
    const all = blocksOf(doc).filter(({ position }) => doc.nodeAt(position)!.type.isInGroup('block'));
    const [from, to] = [all[a % Math.max(1, all.length)], all[b % Math.max(1, all.length)]];
    return from && to ? moveBlocks(from.position, from.position + from.size, to.position) : undefined;
  },
  // What was cut at one place is pasted at another.
  ({ state: { doc } }, a, b) => {
    const all = blocksOf(doc);
    const block = all[a % Math.max(1, all.length)];
    if (!block) return undefined;
    const slice = new Slice(Fragment.from(doc.nodeAt(block.position)!), 0, 0);
    return (state, dispatch) => {
      const place = Selection.near(doc.resolve(b % (doc.content.size + 1)));
      dispatch?.(state.tr.setSelection(place).replaceSelection(slice));
      return true;
    };
  },
  (_, a) => ownRegion(a % 2 ? 'pageHeader' : 'pageFooter', [], 'Own'),
  (_, a) => dropRegion(a % 2 ? 'pageHeader' : 'pageFooter', 'As in the house style'),
  (desk) => desk.undo(),
  (desk) => desk.redo(),
];

const steps = fc.array(fc.tuple(fc.nat({ max: ACTIONS.length - 1 }), fc.nat({ max: 9_999 }), fc.nat({ max: 9_999 })), {
  minLength: 20,
  maxLength: 60,
});
const layouts = fc.oneof(
  fc.constantFrom(...shipped.templates.map(({ layout }) => layout)),
  arbitraryOf(layoutShape) as fc.Arbitrary<Layout>,
);

it('whatever is done to a sheet, its layout stays one that is taken, and undoing leads back to the beginning', () => {
  fc.assert(
    fc.property(layouts, steps, (layout, all) => {
      const desk = new Desk(layout);
      for (const [action, a, b] of all) {
        const command = ACTIONS[action]!(desk, a, b);
        if (command) desk.run(command);
      }
      desk.state.doc.check();
      expect(() => layoutShape.validateSync(desk.layout, { strict: true })).not.toThrow();
      const template = { ...QUOTE, layout: desk.layout };
      if (faultsOf(template, shipped, demoSchema).count === 0)
        expect(() => compose(template, demoSnapshot('D-1187'), CONTEXT)).not.toThrow();
      while (desk.past.length > 0) desk.undo();
      expect(desk.layout).toBe(layout);
      expect(desk.state.doc.eq(desk.docs.docOf(layout))).toBe(true);
    }),
    { numRuns: propertyRuns(50) },
  );
}, 120_000);
