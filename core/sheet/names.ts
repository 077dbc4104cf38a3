import { LINES } from '../record/schema';
import type { Expression } from '../formula/ast';
import { FUNCTIONS } from '../formula/functions';
import { type DerivedList, type Figure, type FigureSheet } from './figure';

/** The names there are outside of any item: figures, lists, and the roots. */
export interface World {
  /** The name of the record: `deal`; and its type. */
  record: string;
  recordType: string;
  hasLines: boolean;
  perLine: readonly Figure[];
  figures: ReadonlyMap<string, Figure>;
  lists: ReadonlyMap<string, DerivedList>;
  /** company, document, tables, ask, user. */
  roots: ReadonlySet<string>;
}

/** What an item brings into scope: its own values, and the figures of the list it came from. */
export interface ItemScope {
  has(name: string): boolean;
  /** The record type that a name leads to, where it leads to one record. */
  leadsTo(name: string): string | undefined;
  list?: string;
}

/** What a bare name means. */
export type Referent =
  | { kind: 'item' }
  | { kind: 'this' }
  | { kind: 'field' }
  | { kind: 'column'; figure: Figure }
  | { kind: 'figure'; figure: Figure }
  | { kind: 'list'; list: DerivedList }
  | { kind: 'record' }
  | { kind: 'lines' }
  | { kind: 'root' }
  | { kind: 'figures' }
  | { kind: 'nothing' }
  /** Ways to write out each of the referents. */
  | { kind: 'ambiguous'; spelled: string[] };

/** Names that formulas use for the item in scope and for the figures; nothing else can be called by them. */
export const RESERVED: readonly string[] = ['item', 'this', 'figures', LINES];

/** The names outside of any item, for a sheet over one type of record. `hasLines`: the record has line items. */
export function worldOf(
  sheet: FigureSheet,
  record: { root: string; type: string },
  hasLines: boolean,
  roots: Iterable<string>,
): World {
  return {
    record: record.root,
    recordType: record.type,
    hasLines,
    perLine: sheet.perLine,
    figures: new Map(sheet.document.map((figure) => [figure.name, figure])),
    lists: new Map(sheet.lists.map((list) => [list.name, list])),
    roots: new Set(roots),
  };
}

/** The figures that the items of a list have besides their own values. */
export function figuresOfList(list: string | undefined, world: World): readonly Figure[] {
  if (list === LINES) return world.perLine;
  return (list !== undefined && world.lists.get(list)?.columns) || [];
}

/**
 * What a bare name means. A name with two referents is ambiguous and never a guess, so that a field that is added in
 * the CRM later cannot change a formula silently.
 */
export function referentOf(name: string, item: ItemScope | undefined, world: World): Referent {
  if (item && name === 'item') return { kind: 'item' };
  if (item && name === 'this') return { kind: 'this' };
  const referents: [Referent, string][] = [];
  // A line's way back to its deal is the deal: `deal` means the same by either way.
  const isWayBack = name === world.record && item?.leadsTo(name) === world.recordType;
  if (item?.has(name) && !isWayBack) referents.push([{ kind: 'field' }, `item.${name}`]);
  const column = item && figuresOfList(item.list, world).find((figure) => figure.name === name);
  if (column) referents.push([{ kind: 'column', figure: column }, `the column ${name}`]);
  const figure = world.figures.get(name);
  if (figure) referents.push([{ kind: 'figure', figure }, `figures.${name}`]);
  const list = world.lists.get(name);
  if (list) referents.push([{ kind: 'list', list }, `figures.${name}`]);
  if (name === world.record) referents.push([{ kind: 'record' }, `the ${name}`]);
  if (name === LINES && world.hasLines) referents.push([{ kind: 'lines' }, `${world.record}.${LINES}`]);
  if (world.roots.has(name)) referents.push([{ kind: 'root' }, `the ${name}`]);
  if (name === 'figures' && referents.length === 0) return { kind: 'figures' };
  if (referents.length === 0) return { kind: 'nothing' };
  if (referents.length === 1) return referents[0]![0];
  return { kind: 'ambiguous', spelled: referents.map(([, spelled]) => spelled) };
}

/** What a name after a dot can be of an item: a value of its own, and a figure of its list. Both at once is a fault. */
export interface Member {
  isField: boolean;
  figure?: Figure;
}

/** The names in scope for the rows of one list and shape, each looked up once. */
export class Scope {
  readonly #referents = new Map<string, Referent>();
  readonly #members = new Map<string, Member>();
  readonly #itemBound = new Map<Expression, boolean>();

  constructor(
    readonly item: ItemScope | undefined,
    readonly world: World,
  ) {}

  referent(name: string): Referent {
    let referent = this.#referents.get(name);
    if (!referent) this.#referents.set(name, (referent = referentOf(name, this.item, this.world)));
    return referent;
  }

  /** What `item.name` is; neither a field nor a figure where the item has no such name. */
  member(name: string): Member {
    let member = this.#members.get(name);
    if (!member) {
      const figure = figuresOfList(this.item?.list, this.world).find((each) => each.name === name);
      this.#members.set(name, (member = { isField: this.item?.has(name) === true, figure }));
    }
    return member;
  }

  /** Whether an expression's value depends on the item in scope. What does not is computed once for all items. */
  dependsOnItem(node: Expression): boolean {
    if (!this.item) return false;
    let bound = this.#itemBound.get(node);
    if (bound === undefined) this.#itemBound.set(node, (bound = this.#findsItem(node)));
    return bound;
  }

  #findsItem(node: Expression): boolean {
    switch (node.kind) {
      case 'number':
      case 'percent':
      case 'text':
      case 'boolean':
        return false;
      case 'name':
        return ['item', 'this', 'field', 'column', 'ambiguous'].includes(this.referent(node.name).kind);
      case 'member':
        return this.dependsOnItem(node.object);
      case 'filter':
        return this.dependsOnItem(node.list) || mentionsThis(node.condition);
      case 'call':
        // Arguments may be formulas for other items, which are not told apart here: erring on this side is safe.
        return (
          FUNCTIONS.get(node.name)?.ofItem === true ||
          node.arguments.some((argument) => this.dependsOnItem(argument) || mentionsThis(argument))
        );
      case 'binary':
        return this.dependsOnItem(node.left) || this.dependsOnItem(node.right);
      default:
        return this.dependsOnItem(node.operand);
    }
  }
}

/** Whether an expression names the item that a figure is being computed for. */
function mentionsThis(node: Expression): boolean {
  switch (node.kind) {
    case 'name':
      return node.name === 'this';
    case 'member':
      return mentionsThis(node.object);
    case 'filter':
      return mentionsThis(node.list) || mentionsThis(node.condition);
    case 'call':
      return node.arguments.some(mentionsThis);
    case 'binary':
      return mentionsThis(node.left) || mentionsThis(node.right);
    case 'negative':
    case 'percentage':
    case 'not':
      return mentionsThis(node.operand);
    default:
      return false;
  }
}
