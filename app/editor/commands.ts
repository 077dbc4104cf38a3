import type { Node, ResolvedPos, Schema } from '@tiptap/pm/model';
import {
  NodeSelection,
  Selection,
  TextSelection,
  type Command,
  type EditorState,
  type Transaction,
} from '@tiptap/pm/state';
import { newId } from './new-id';

/** The words of a change, for its step of the history. */
export const WORDS = 'words';

/** What a change joins: those of one name that follow one another quickly are one step. */
export const JOINS = 'joins';

/** A part of the sheet with the place it stands at. */
export interface Placed {
  node: Node;
  position: number;
}

export const isBlock = ({ type }: Node): boolean => type.isInGroup('block');

/** The part with an id; undefined where there is none. */
export function partOf(doc: Node, id: string): Placed | undefined {
  let found: Placed | undefined;
  doc.descendants((node, position) => {
    if (!found && node.attrs.id === id) found = { node, position };
    return !found;
  });
  return found;
}

/** The parts around a place, from the innermost out, as far as they have an id. */
export function partsAround($place: ResolvedPos): Placed[] {
  const found: Placed[] = [];
  for (let depth = $place.depth; depth > 0; depth--) {
    const node = $place.node(depth);
    if (node.attrs.id) found.push({ node, position: $place.before(depth) });
  }
  return found;
}

/** What is chosen: the part itself and the parts around it, from the innermost out. */
export function chosenParts({ selection }: EditorState): Placed[] {
  const around = partsAround(selection.$from);
  return selection instanceof NodeSelection && selection.node.attrs.id
    ? [{ node: selection.node, position: selection.from }, ...around]
    : around;
}

/** The chosen blocks beside one another: one, or all that a selection reaches into. */
function chosenBlocks(state: EditorState): { from: number; to: number; parent: Node } | undefined {
  const { selection } = state;
  if (selection instanceof NodeSelection && isBlock(selection.node))
    return { from: selection.from, to: selection.to, parent: selection.$from.parent };
  const range = selection.$from.blockRange(selection.$to, (node) => holdsBlocks(node));
  return range ? { from: range.start, to: range.end, parent: range.parent } : undefined;
}

const blocksBetween = (doc: Node, { from, to }: { from: number; to: number }): readonly Node[] =>
  doc.slice(from, to).content.content;

/** Whether any block may stand in it. */
const holdsBlocks = ({ type }: Node): boolean => type.contentMatch.matchType(type.schema.nodes.paragraph!) !== null;

const said = (tr: Transaction, words: string) => tr.setMeta(WORDS, words);

/** Puts a block after the one that is chosen; in place of it where that is an empty line. */
export function insertBlock(block: Node, words: string): Command {
  return (state, dispatch) => {
    const at = chosenBlocks(state);
    const place = at ? at.to : endOfBody(state.doc);
    if (place === undefined) return false;
    const before = at && state.doc.nodeAt(at.from);
    const isEmptyLine =
      !!before && before.type.name === 'paragraph' && before.childCount === 0 && at.to - at.from === 2;
    if (!dispatch) return true;
    const from = isEmptyLine ? at.from : place;
    const tr = state.tr.replaceWith(from, place, block);
    dispatch(said(chosenIn(tr, from), words).scrollIntoView());
    return true;
  };
}

/** Sets the caret where writing goes on in a part, or chooses the part. */
function chosenIn(tr: Transaction, position: number): Transaction {
  const node = tr.doc.nodeAt(position)!;
  if (node.isAtom) return tr.setSelection(NodeSelection.create(tr.doc, position));
  const inside = Selection.findFrom(tr.doc.resolve(position + 1), 1, true);
  const isInside = inside !== null && inside.from < position + node.nodeSize;
  return tr.setSelection(isInside ? inside : NodeSelection.create(tr.doc, position));
}

/** The place behind the last block of the body. */
function endOfBody(doc: Node): number | undefined {
  let end: number | undefined;
  doc.forEach((region, offset) => {
    if (region.type.name === 'pageBody') end = offset + region.nodeSize - 1;
  });
  return end;
}

/** Puts something into the text at the caret; in a line of its own where no text is. `label`: words before it on an empty line. */
export function insertInline(inline: Node, words: string, label?: string): Command {
  return (state, dispatch) => {
    const { $from, from, to } = state.selection;
    const isLine = $from.parent.inlineContent;
    const isEmpty = !isLine || ($from.parent.childCount === 0 && $from.parent.type.name !== 'gridCell');
    const all = label !== undefined && isEmpty ? [state.schema.text(`${label}: `), inline] : [inline];
    if (!isLine) return insertBlock(state.schema.node('paragraph', null, all), words)(state, dispatch);
    if (dispatch) {
      const marks = state.storedMarks ?? $from.marks();
      const tr = state.tr.replaceWith(
        from,
        to,
        all.map((each) => each.mark(marks)),
      );
      const end = from + all.reduce((size, each) => size + each.nodeSize, 0);
      dispatch(said(tr.setSelection(TextSelection.create(tr.doc, end)), words).scrollIntoView());
    }
    return true;
  };
}

/** Whether an attribute of a part may be left out where it is to be. */
const mayBe = ({ type }: Node, name: string, value: unknown): boolean =>
  (value !== undefined && value !== null) || type.spec.attrs?.[name]?.default !== undefined;

/** Changes attributes of a part; what is null or undefined is not said any more. */
export function setAttributes(id: string, attributes: Readonly<Record<string, unknown>>, words: string): Command {
  return (state, dispatch) => {
    const part = partOf(state.doc, id);
    if (!part || !Object.entries(attributes).every(([name, value]) => mayBe(part.node, name, value))) return false;
    if (dispatch) {
      const tr = state.tr;
      for (const [name, value] of Object.entries(attributes)) tr.setNodeAttribute(part.position, name, value ?? null);
      // The part stays chosen: setting an attribute puts another node in its place.
      if (state.selection instanceof NodeSelection && state.selection.from === part.position)
        tr.setSelection(NodeSelection.create(tr.doc, part.position));
      dispatch(said(tr, words));
    }
    return true;
  };
}

/** Deletes a part; of a section or a table that must hold some, not the last one. */
export function removePart(id: string, words: string): Command {
  return (state, dispatch) => {
    const part = partOf(state.doc, id);
    if (!part) return false;
    const $at = state.doc.resolve(part.position);
    if (!$at.parent.canReplace($at.index(), $at.index() + 1)) return false;
    dispatch?.(said(state.tr.delete(part.position, part.position + part.node.nodeSize), words).scrollIntoView());
    return true;
  };
}

/** Deletes the chosen blocks. */
export const removeChosen: Command = (state, dispatch) => {
  const at = chosenBlocks(state);
  if (!at) return false;
  dispatch?.(said(state.tr.delete(at.from, at.to), 'Deleted').scrollIntoView());
  return true;
};

/** The same nodes under other ids. */
function renewed(node: Node): Node {
  if (node.isText) return node;
  const attrs = 'id' in node.attrs ? { ...node.attrs, id: newId() } : node.attrs;
  return node.type.create(attrs, node.children.map(renewed), node.marks);
}

/** Puts the chosen blocks there once more, behind themselves, and chooses the new ones. */
export const duplicateChosen: Command = (state, dispatch) => {
  const at = chosenBlocks(state);
  if (!at) return false;
  if (dispatch) {
    const copies = blocksBetween(state.doc, at).map(renewed);
    dispatch(said(chosenIn(state.tr.insert(at.to, copies), at.to), 'Duplicated').scrollIntoView());
  }
  return true;
};

/** Moves the chosen blocks before the one above them, or behind the one below; out of and into what holds blocks. */
export function moveChosen(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const at = chosenBlocks(state);
    if (!at) return false;
    const edge = state.doc.resolve(direction < 0 ? at.from : at.to);
    const beside = direction < 0 ? edge.nodeBefore : edge.nodeAfter;
    const target = beside ? direction * beside.nodeSize + edge.pos : beyond(edge, direction);
    if (target === undefined) return false;
    return moveBlocks(at.from, at.to, target)(state, dispatch);
  };
}

/** Where blocks at the edge of a section go next: before or behind the section. */
function beyond(edge: ResolvedPos, direction: -1 | 1): number | undefined {
  for (let depth = edge.depth; depth > 1; depth--) {
    if (holdsBlocks(edge.node(depth - 1))) return direction < 0 ? edge.before(depth) : edge.after(depth);
  }
  return undefined;
}

/** Moves the blocks between two places to a third. */
export function moveBlocks(from: number, to: number, target: number): Command {
  return (state, dispatch) => {
    if (target > from && target < to) return false;
    const { doc } = state;
    if (!holdsBlocks(doc.resolve(target).parent)) return false;
    if (!doc.resolve(from).parent.canReplace(doc.resolve(from).index(), doc.resolve(to).index())) return false;
    if (dispatch) {
      const { content } = doc.slice(from, to);
      const tr = state.tr.delete(from, to);
      const place = tr.mapping.map(target);
      tr.insert(place, content);
      const offset = Math.min(state.selection.from - from, content.size);
      const isChosen = state.selection instanceof NodeSelection;
      const moved = isChosen
        ? NodeSelection.create(tr.doc, place)
        : TextSelection.near(tr.doc.resolve(place + Math.max(0, offset)));
      dispatch(said(tr.setSelection(moved), 'Moved').scrollIntoView());
    }
    return true;
  };
}

/** Moves a block, or all that are chosen where it is one of them, beside another one. */
export function moveBeside(id: string, other: string, side: 'before' | 'after'): Command {
  return (state, dispatch) => {
    const [own, to] = [partOf(state.doc, id), partOf(state.doc, other)];
    if (!own || !to || !isBlock(own.node) || !isBlock(to.node)) return false;
    const end = own.position + own.node.nodeSize;
    const chosen = chosenBlocks(state);
    const isChosen = chosen && chosen.from <= own.position && end <= chosen.to;
    const { from, to: until } = isChosen ? chosen : { from: own.position, to: end };
    const target = side === 'before' ? to.position : to.position + to.node.nodeSize;
    if (target >= from && target <= until) return false;
    return moveBlocks(from, until, target)(state, dispatch);
  };
}

/** Puts what holds blocks around the chosen ones, and chooses it. */
export function wrapChosen(make: (schema: Schema, inside: readonly Node[]) => Node, words: string): Command {
  return (state, dispatch) => {
    const at = chosenBlocks(state);
    if (!at) return false;
    if (dispatch) {
      const tr = state.tr.replaceWith(at.from, at.to, make(state.schema, blocksBetween(state.doc, at)));
      dispatch(said(tr.setSelection(NodeSelection.create(tr.doc, at.from)), words).scrollIntoView());
    }
    return true;
  };
}

/** Whether what is chosen is more than an empty line, so that something can be put around it. */
export function hasChosenBlocks(state: EditorState): boolean {
  const at = chosenBlocks(state);
  if (!at) return false;
  return blocksBetween(state.doc, at).some((node) => node.isAtom || node.textContent !== '' || node.nodeSize > 2);
}

/** Has the chosen blocks begin a page, with all that they stand in. */
export const startOnPage: Command = (state, dispatch) => {
  const at = chosenBlocks(state);
  const $from = at && state.doc.resolve(at.from);
  if (!$from || $from.node(1)?.type.name !== 'pageBody') return false;
  const place = $from.depth > 1 ? $from.before(2) : $from.pos;
  if (dispatch) {
    const tr = state.tr.insert(place, state.schema.node('pageBreak', { id: newId() }));
    dispatch(said(tr, 'Started on a new page').scrollIntoView());
  }
  return true;
};

/** Adds what a section prints where its condition does not hold. */
export function addOtherwise(id: string): Command {
  return (state, dispatch) => {
    const part = partOf(state.doc, id);
    if (part?.node.type.name !== 'whenSection' || part.node.childCount > 1) return false;
    if (dispatch) {
      const { schema, tr } = state;
      const end = part.position + part.node.nodeSize - 1;
      tr.insert(end, schema.node('otherwise', { id: newId() }, schema.node('paragraph', { id: newId() })));
      dispatch(said(tr.setSelection(TextSelection.create(tr.doc, end + 2)), 'Otherwise added').scrollIntoView());
    }
    return true;
  };
}

/** Puts what a part holds in its place. */
export function unwrap(id: string): Command {
  return (state, dispatch) => {
    const part = partOf(state.doc, id);
    if (!part || !isBlock(part.node) || part.node.isTextblock || part.node.isAtom) return false;
    const inside: Node[] = [];
    part.node.descendants((node) => {
      if (!isBlock(node)) return true;
      inside.push(node);
      return false;
    });
    if (inside.length === 0) return false;
    const { position, node } = part;
    dispatch?.(said(state.tr.replaceWith(position, position + node.nodeSize, inside), 'Taken apart').scrollIntoView());
    return true;
  };
}

const isList = ({ type }: Node): boolean => type.name === 'bulletList' || type.name === 'numberedList';

/** Makes the lines that are chosen a list, or lines again where they are one of that kind already. */
export function toggleList(kind: 'bulletList' | 'numberedList'): Command {
  return (state, dispatch) => {
    const at = chosenBlocks(state);
    if (!at) return false;
    const { schema, doc } = state;
    const blocks = blocksBetween(doc, at);
    if (!blocks.every((node) => node.isTextblock || isList(node))) return false;
    const lines = blocks.flatMap((node) => (isList(node) ? node.children : [node]));
    if (lines.length === 0) return false;
    if (dispatch) {
      const isAll = blocks.every((node) => node.type.name === kind);
      const made = isAll
        ? lines.map((line) => schema.node('paragraph', { id: newId() }, line.content))
        : [
            schema.node(
              kind,
              { id: newId() },
              lines.map((line) => schema.node('listItem', { id: newId() }, line.content)),
            ),
          ];
      const tr = state.tr.replaceWith(at.from, at.to, made);
      tr.setSelection(Selection.near(tr.doc.resolve(Math.min(state.selection.from, tr.doc.content.size)), -1));
      dispatch(said(tr, isAll ? 'List taken apart' : 'List made').scrollIntoView());
    }
    return true;
  };
}

/** Enter in an empty item leaves the list: a line behind it, or between its two halves. */
export const leaveList: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  const { parent } = $from;
  if (!empty || parent.type.name !== 'listItem' || parent.childCount > 0) return false;
  if (dispatch) dispatch(said(outOfList(state, $from, []), 'List left').scrollIntoView());
  return true;
};

/** Backspace at the start of the first item makes it a line before the list. */
export const liftItem: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if (!empty || $from.parentOffset > 0 || $from.parent.type.name !== 'listItem' || $from.index(-1) > 0) return false;
  if (dispatch) dispatch(said(outOfList(state, $from, $from.parent.content), 'List left').scrollIntoView());
  return true;
};

/** A list without one of its items, which is a line where it stood. */
function outOfList(state: EditorState, $item: ResolvedPos, content: Node['content'] | []): Transaction {
  const list = $item.node(-1);
  const index = $item.index(-1);
  const items = list.children;
  const line = state.schema.node('paragraph', { id: newId() }, content);
  const part = (some: readonly Node[], attrs: object) =>
    some.length > 0 ? [list.type.create({ ...list.attrs, ...attrs }, some)] : [];
  const before = part(items.slice(0, index), {});
  const all = [...before, line, ...part(items.slice(index + 1), before.length > 0 ? { id: newId() } : {})];
  const tr = state.tr.replaceWith($item.before(-1), $item.after(-1), all);
  const at = $item.before(-1) + (before[0]?.nodeSize ?? 0);
  return tr.setSelection(TextSelection.create(tr.doc, at + 1));
}

/** The cell of a table of words that the caret is in. */
function cellOf(state: EditorState): { table: Placed; row: number; column: number } | undefined {
  const parts = partsAround(state.selection.$from);
  const table = parts.find(({ node }) => node.type.name === 'gridTable');
  if (!table) return undefined;
  const { $from } = state.selection;
  const depth = $from.depth - parts.indexOf(table);
  return { table, row: $from.index(depth), column: $from.depth > depth + 1 ? $from.index(depth + 1) : 0 };
}

/** Changes the rows and widths of the table that the caret is in. */
function changeGrid(
  change: (rows: Node[][], widths: number[], at: { row: number; column: number }) => void,
  words: string,
): Command {
  return (state, dispatch) => {
    const cell = cellOf(state);
    if (!cell) return false;
    const { table, row, column } = cell;
    const rows = table.node.children.map(({ children }) => [...children]);
    const widths = [...((table.node.attrs.widths as number[] | null) ?? [])];
    const count = rows.length;
    change(rows, widths, { row, column });
    if (rows.length === 0 || widths.length === 0 || widths.length > 40) return false;
    if (dispatch) {
      const { schema } = state;
      const made = rows.map((cells, at) =>
        schema.node(
          'gridRow',
          { id: count === rows.length ? (table.node.child(at).attrs.id as string) : newId() },
          cells,
        ),
      );
      const node = table.node.type.create({ ...table.node.attrs, widths }, made);
      const tr = state.tr.replaceWith(table.position, table.position + table.node.nodeSize, node);
      const target = placeOfCell(node, Math.min(row, rows.length - 1), Math.min(column, widths.length - 1));
      tr.setSelection(Selection.near(tr.doc.resolve(table.position + 1 + target)));
      dispatch(said(tr, words));
    }
    return true;
  };
}

/** The place in a table where a cell begins. */
function placeOfCell(table: Node, row: number, column: number): number {
  let place = 0;
  for (let at = 0; at < row; at++) place += table.child(at).nodeSize;
  place += 1;
  const cells = table.child(row);
  for (let at = 0; at < Math.min(column, cells.childCount); at++) place += cells.child(at).nodeSize;
  return place;
}

const emptyCell = (schema: Schema) => schema.node('gridCell', { id: newId() });

export const GRID_COMMANDS = {
  addRow: (schema: Schema) =>
    changeGrid(
      (rows, widths, { row }) =>
        void rows.splice(
          row + 1,
          0,
          widths.map(() => emptyCell(schema)),
        ),
      'Row added',
    ),
  removeRow: () => changeGrid((rows, _, { row }) => void rows.splice(row, 1), 'Row deleted'),
  addColumn: (schema: Schema) =>
    changeGrid((rows, widths, { column }) => {
      for (const cells of rows) cells.splice(column + 1, 0, emptyCell(schema));
      widths.splice(column + 1, 0, widths[column] ?? 1);
    }, 'Column added'),
  removeColumn: () =>
    changeGrid((rows, widths, { column }) => {
      for (const cells of rows) cells.splice(column, 1);
      widths.splice(column, 1);
    }, 'Column deleted'),
};

/** Adds a column beside a column, or as the last one of columns. */
export function addColumn(id: string): Command {
  return (state, dispatch) => {
    const part = partOf(state.doc, id);
    if (!part || !['columns', 'column'].includes(part.node.type.name)) return false;
    const isWhole = part.node.type.name === 'columns';
    const place = part.position + part.node.nodeSize - (isWhole ? 1 : 0);
    if (dispatch) {
      const { schema, tr } = state;
      const line = schema.node('paragraph', { id: newId() });
      tr.insert(place, schema.node('column', { id: newId(), width: 1 }, line));
      dispatch(said(tr.setSelection(Selection.near(tr.doc.resolve(place + 2))), 'Column added').scrollIntoView());
    }
    return true;
  };
}

/** Gives the columns of a table, or columns beside one another, other widths. */
export function setWidths(id: string, widths: readonly number[]): Command {
  return (state, dispatch) => {
    const part = partOf(state.doc, id);
    if (!part || !widths.every((each) => each >= 0.01 && each <= 100)) return false;
    const tr = state.tr;
    if (part.node.type.name === 'gridTable') tr.setNodeAttribute(part.position, 'widths', [...widths]);
    else if (part.node.type.name === 'columns' && part.node.childCount === widths.length)
      part.node.forEach((_, offset, at) => tr.setNodeAttribute(part.position + 1 + offset, 'width', widths[at]!));
    else return false;
    // What was chosen as a whole stays so: setting an attribute puts another node in its place.
    if (state.selection instanceof NodeSelection) tr.setSelection(NodeSelection.create(tr.doc, state.selection.from));
    dispatch?.(said(tr, 'Widths changed'));
    return true;
  };
}

/** Goes to the next or the previous cell of a table of words; from the last one into a new row. */
export function goToCell(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const cell = cellOf(state);
    if (!cell) return false;
    const { table, row, column } = cell;
    const across = table.node.child(row).childCount;
    const next = row * across + column + direction;
    if (next < 0) return true;
    if (next >= across * table.node.childCount)
      return GRID_COMMANDS.addRow(state.schema)(
        state,
        dispatch &&
          ((tr) => {
            const grown = tr.doc.nodeAt(table.position)!;
            const start = table.position + 1 + placeOfCell(grown, row + 1, 0);
            dispatch(tr.setSelection(Selection.near(tr.doc.resolve(start + 1))));
          }),
      );
    const place = placeOfCell(table.node, Math.floor(next / across), next % across);
    dispatch?.(state.tr.setSelection(Selection.near(state.doc.resolve(table.position + 1 + place + 1))));
    return true;
  };
}

/** Puts a part of the page in as the template's own, with blocks like those of the house style. */
export function ownRegion(type: 'pageHeader' | 'pageFooter', blocks: readonly Node[], words: string): Command {
  return (state, dispatch) => {
    const { doc, schema, tr } = state;
    if (regionOf(doc, type)) return false;
    const region = schema.node(
      type,
      null,
      blocks.length > 0 ? blocks.map(renewed) : schema.node('paragraph', { id: newId() }),
    );
    const place = type === 'pageHeader' ? 0 : doc.content.size;
    tr.insert(place, region);
    dispatch?.(said(tr.setSelection(Selection.near(tr.doc.resolve(place + 1))), words).scrollIntoView());
    return true;
  };
}

/** Takes the template's own part of the page out: the house style's is printed again. */
export function dropRegion(type: 'pageHeader' | 'pageFooter', words: string): Command {
  return (state, dispatch) => {
    const region = regionOf(state.doc, type);
    if (!region) return false;
    dispatch?.(said(state.tr.delete(region.position, region.position + region.node.nodeSize), words));
    return true;
  };
}

function regionOf(doc: Node, type: string): Placed | undefined {
  let found: Placed | undefined;
  doc.forEach((node, position) => {
    if (node.type.name === type) found = { node, position };
  });
  return found;
}
