import { own } from '../record/own';
import {
  calledByType,
  fieldLabel,
  fieldOf,
  recordTypeOf,
  type FieldSchema,
  type RecordSchema,
  LINES,
} from '../record/schema';
import { FormulaError, type Expression } from '../formula/ast';
import { type Figure, type FigureSheet, type FigureType, type LookupTable } from './figure';
import { FUNCTIONS, refuseCount } from '../formula/functions';
import {
  parameterAt,
  TAKES_LISTS,
  TAKES_WORDS,
  type FormulaFunction,
  type Parameter,
} from '../formula/functions/function';
import { figuresOfList, referentOf, worldOf, type ItemScope, type World } from './names';
import { nearestName } from '../formula/nearest';
import { parseFormula } from '../formula/parse';
import { TABLES } from './tables';
import { sentence } from '../formula/value';
import {
  BOOLEAN,
  commonType,
  DATE,
  DATETIME,
  IMAGE,
  isNumeric,
  listOf,
  MONEY,
  NUMBER,
  PERCENT,
  RICH,
  shapeOf,
  TEXT,
  typeInWords,
  UNKNOWN,
  type Shape,
  type Type,
} from '../formula/type';

/** Something wrong with a formula, with its place and what to do about it. */
export interface Diagnostic {
  /** Character offsets in the formula, end exclusive. */
  from: number;
  to: number;
  message: string;
  /** What to put in its place. */
  fix?: string;
  /** The field that a record does not have, where that is what is wrong: its name, and what such a record is called. */
  missing?: { owner: string; name: string };
}

/** A figure or list that a formula names. `key` is `total`, `tax_rows`, or `lines.net` and `tax_rows.base` for columns. */
export interface Use {
  key: string;
  from: number;
  to: number;
}

/** What checking one formula found. */
export interface Checked {
  type: Type;
  diagnostics: Diagnostic[];
  uses: Use[];
  /** The fields it reads: paths of field names from the document's record on. */
  reads: readonly (readonly string[])[];
}

/** What formulas are checked against: no record, only what a record could be. */
export interface CheckContext {
  sheet: FigureSheet;
  schema: RecordSchema;
  /** The record's type, and the name it goes by in formulas. */
  record: { type: string; root: string };
  /** Further roots: company, document, ask, user. */
  roots: Readonly<Record<string, Readonly<Record<string, Type>>>>;
}

/** The roots that every document has. */
export const DOCUMENT_ROOT: Readonly<Record<string, Type>> = {
  number: TEXT, issue_date: DATE, edition: TEXT, currency: TEXT,
}; // prettier-ignore

type Node<Kind extends Expression['kind']> = Extract<Expression, { kind: Kind }>;

/** Types formulas against the schema and the figure sheet, without data. */
export class Checker {
  /** Whether mistakes are told with what was probably meant, which takes most of the time where there are many. */
  suggests = true;
  readonly world: World;
  readonly record: Shape;
  readonly #roots: ReadonlyMap<string, Shape>;
  readonly #lists = new Map<string, Type | 'being typed'>();
  readonly #shapes = new Map<string, Shape>();
  readonly #checked = new Map<Shape | undefined, Map<string, Checked>>();
  #typing = 0;

  constructor(readonly context: CheckContext) {
    const { sheet, schema, record, roots } = context;
    const tables = sheet.tables
      ? { [TABLES]: Object.fromEntries(sheet.tables.map((table) => [table.name, tableType(table)])) }
      : {};
    this.#roots = new Map(Object.entries({ ...roots, ...tables }).map(([name, types]) => [name, shapeOf(name, types)]));
    const hasLines = fieldOf(schema, record.type, LINES) !== undefined;
    this.world = worldOf(sheet, record, hasLines, this.#roots.keys());
    this.record = this.#recordShape(record.type, record.root, [[]]);
  }

  /** What was probably meant by a name that there is not, where that is told. */
  meant(nearest: () => string | undefined): string | undefined {
    return this.suggests ? nearest() : undefined;
  }

  /** Checks one formula, once however often it stands; `item` is what is in scope where it stands for each item of a list. */
  formula(source: string, item?: Shape): Checked {
    const known = this.#checked.get(item)?.get(source);
    if (known) return known;
    const checked = this.#check(source, item);
    // While a list is being typed, what is computed from it is not known yet.
    if (this.#typing === 0) {
      const ofItem = this.#checked.get(item) ?? new Map<string, Checked>();
      this.#checked.set(item, ofItem.set(source, checked));
    }
    return checked;
  }

  #check(source: string, item?: Shape): Checked {
    const run = new Run(this, source, item);
    try {
      const type = run.typeOf(parseFormula(source), item);
      return { type, diagnostics: run.diagnostics, uses: run.uses, reads: run.reads };
    } catch (problem) {
      if (!(problem instanceof FormulaError)) throw problem;
      const { message, from, to } = problem;
      return { type: UNKNOWN, diagnostics: [{ from, to, message }], uses: [], reads: [] };
    }
  }

  /** The type that a figure has for others: the declared one, whatever its formula gives. */
  figureType({ type }: Figure): Type {
    return FIGURE_TYPES[type];
  }

  /** The type of a derived list, with its columns. */
  listType(name: string): Type {
    const known = this.#lists.get(name);
    if (known === 'being typed') return UNKNOWN;
    if (known) return known;
    this.#lists.set(name, 'being typed');
    this.#typing++;
    const { type } = this.formula(this.world.lists.get(name)!.formula);
    this.#typing--;
    const owned =
      type.is === 'list' && type.of.is === 'record'
        ? listOf({ is: 'record', shape: { ...type.of.shape, label: 'row', list: name } })
        : type;
    this.#lists.set(name, owned);
    return owned;
  }

  rootShape(name: string): Shape | undefined {
    return this.#roots.get(name);
  }

  /** What a line has, for the per-line figures. */
  get lines(): Shape | undefined {
    const type = this.record.type(LINES);
    return type?.is === 'list' && type.of.is === 'record' ? type.of.shape : undefined;
  }

  /** The item in scope for the formulas over a list: `lines`, a derived list's name, or any formula that gives a list. */
  itemOf(list: string | undefined, outer?: Shape): Shape | undefined {
    if (list === undefined) return undefined;
    if (list === LINES) return this.lines;
    const type = this.world.lists.has(list) ? this.listType(list) : this.formula(list, outer).type;
    return type.is === 'list' && type.of.is === 'record' ? type.of.shape : undefined;
  }

  /** The item in scope within lists, from the outside in: each list's formula may be about the item around it. */
  itemIn(lists: readonly string[]): Shape | undefined {
    return lists.reduce<Shape | undefined>((outer, list) => this.itemOf(list, outer), undefined);
  }

  /** All that has a name in a shape: its own values, and the figures of its list. */
  namesIn(shape: Shape): { name: string; label: string; type: Type; figure?: Figure }[] {
    const own = [...shape.names()].map((name) => ({ name, label: shape.labelOf(name), type: shape.type(name)! }));
    const figures = figuresOfList(shape.list, this.world).map((figure) => ({
      name: figure.name,
      label: figure.label,
      type: this.figureType(figure),
      figure,
    }));
    return [...own, ...figures];
  }

  /** The names that stand alone, outside of items: figures, lists, the record and the other roots. */
  outerNames(): { name: string; label: string; type: Type; figure?: Figure }[] {
    const { figures, lists, record, hasLines } = this.world;
    return [
      ...[...figures.values()].map((figure) => ({
        name: figure.name,
        label: figure.label,
        type: this.figureType(figure),
        figure,
      })),
      ...[...lists.values()].map(({ name, label }) => ({ name, label, type: this.listType(name) })),
      { name: record, label: this.record.label, type: { is: 'record', shape: this.record } as Type },
      ...(hasLines ? [{ name: LINES, label: this.record.labelOf(LINES), type: this.record.type(LINES)! }] : []),
      ...[...this.#roots].map(([name, shape]) => ({ name, label: name, type: { is: 'record', shape } as Type })),
    ];
  }

  /** The shape of a related record, or of the items of a list of them. */
  #recordShape(type: string, label: string, places: NonNullable<Shape['places']>, list?: string): Shape {
    const key = JSON.stringify([type, list, places]);
    const known = this.#shapes.get(key);
    if (known) return known;
    const { schema } = this.context;
    const fields = recordTypeOf(schema, type)?.fields ?? {};
    const shape: Shape = {
      label,
      recordType: type,
      list,
      places,
      names: () => Object.keys(fields),
      type: (name) => {
        const field = own(fields, name);
        return (
          field &&
          this.#fieldType(
            field,
            type,
            places.map((place) => [...place, name]),
          )
        );
      },
      labelOf: (name) => fieldLabel(schema, type, name),
    };
    this.#shapes.set(key, shape);
    return shape;
  }

  /** The type of a field, found at these places. */
  #fieldType(field: FieldSchema, owner: string, places: NonNullable<Shape['places']>): Type {
    const allowed = field.allowed?.map(({ value }) => value);
    const target = () => calledByType(this.context.schema, field.target, field.name);
    switch (field.type) {
      case 'text':
        return TEXT;
      case 'number':
        return NUMBER;
      case 'percent':
        return PERCENT;
      case 'money':
        return MONEY;
      case 'boolean':
        return BOOLEAN;
      case 'date':
        return DATE;
      case 'datetime':
        return DATETIME;
      case 'choice':
        return { is: 'text', allowed };
      case 'choices':
        return listOf({ is: 'text', allowed });
      case 'rich':
        return RICH;
      case 'image':
        return IMAGE;
      case 'record':
        return { is: 'record', shape: this.#recordShape(field.target ?? '', target(), places) };
      case 'records': {
        const isLines = field.name === LINES && owner === this.context.record.type;
        return listOf({
          is: 'record',
          shape: this.#recordShape(field.target ?? '', target(), places, isLines ? LINES : field.name),
        });
      }
    }
  }
}

const FIGURE_TYPES: Readonly<Record<FigureType, Type>> = {
  amount: MONEY, price: MONEY, number: NUMBER, percent: PERCENT, text: TEXT, date: DATE, boolean: BOOLEAN,
}; // prettier-ignore

function tableType(table: LookupTable): Type {
  const types = { number: NUMBER, percent: PERCENT, money: MONEY, text: TEXT, date: DATE } as const;
  const columns = Object.fromEntries(table.columns.map(({ name, type }) => [name, types[type]]));
  return listOf({ is: 'record', shape: shapeOf('row', columns, `${TABLES}.${table.name}`) });
}

/** The checking of one formula. */
class Run {
  readonly diagnostics: Diagnostic[] = [];
  readonly uses: Use[] = [];
  readonly reads: (readonly string[])[] = [];

  constructor(
    readonly checker: Checker,
    readonly source: string,
    /** The item that the formula is for. */
    readonly own: Shape | undefined,
  ) {}

  typeOf(node: Expression, item: Shape | undefined): Type {
    switch (node.kind) {
      case 'number':
        return node.value.isZero() ? { is: 'number', zero: true } : NUMBER;
      case 'percent':
        return PERCENT;
      case 'text':
        return TEXT;
      case 'boolean':
        return BOOLEAN;
      case 'name':
        return this.#name(node, item);
      case 'member':
        return this.#member(node, item);
      case 'filter':
        return this.#filter(node, item);
      case 'call':
        return this.#call(node, item);
      case 'negative': {
        const type = this.#single(node.operand, item);
        if (isNumeric(type) || type.is === 'money' || type.is === 'unknown') return type;
        return this.#wrong(node, `${sentence(typeInWords(type))} has no negative.`);
      }
      case 'percentage': {
        const type = this.#single(node.operand, item);
        if (type.is !== 'number' && type.is !== 'unknown')
          this.#wrong(node, `% follows a number, not ${typeInWords(type)}.`);
        return PERCENT;
      }
      case 'not':
        this.#condition(node.operand, item);
        return BOOLEAN;
      case 'binary':
        return this.#binary(node, item);
    }
  }

  #name(node: Node<'name'>, item: Shape | undefined): Type {
    const { name } = node;
    const { world } = this.checker;
    const scope = item && itemScope(item);
    const referent = referentOf(name, scope, world);
    switch (referent.kind) {
      case 'field':
        this.#reads(item!, name);
        return item!.type(name)!;
      case 'column':
        this.#used(`${item!.list}.${name}`, node);
        return this.checker.figureType(referent.figure);
      case 'figure':
        this.#used(name, node);
        return this.checker.figureType(referent.figure);
      case 'list':
        this.#used(name, node);
        return this.checker.listType(name);
      case 'item':
        return { is: 'record', shape: item! };
      case 'this':
        return this.own ? { is: 'record', shape: this.own } : this.#noItem(node);
      case 'record':
        return { is: 'record', shape: this.checker.record };
      case 'lines':
        this.#reads(this.checker.record, LINES);
        return this.checker.record.type(LINES)!;
      case 'root':
        return { is: 'record', shape: this.checker.rootShape(name)! };
      case 'figures':
        return { is: 'record', shape: FIGURES };
      case 'ambiguous':
        return this.#wrong(
          node,
          `“${name}” could mean ${referent.spelled.join(' or ')}; write out which.`,
          referent.spelled[0],
        );
      case 'nothing':
        return this.#unknownName(node, item);
    }
  }

  #noItem(node: Node<'name'>): Type {
    return this.#wrong(
      node,
      `“${node.name}” is the item that a figure of a line or of a list’s row is computed for; here there is none.`,
    );
  }

  #unknownName(node: Node<'name'>, item: Shape | undefined): Type {
    const { name } = node;
    if (name === 'this' || name === 'item') return this.#noItem(node);
    if (FUNCTIONS.has(name.toUpperCase()))
      return this.#wrong(node, `${name.toUpperCase()} is a function: write ${name.toUpperCase()}(…).`);
    const suggestion = this.checker.meant(() => this.#nearestInScope(name, item));
    const missing = item?.recordType === undefined ? undefined : { owner: item.label, name };
    return this.#wrong(node, `There is no field and no figure “${name}”${didYouMean(suggestion)}`, suggestion, missing);
  }

  /** What was probably meant by a bare name, as it would be written here. */
  #nearestInScope(name: string, item: Shape | undefined): string | undefined {
    const { checker } = this;
    const { world, record, lines } = checker;
    const near = nearest(name, [...(item ? checker.namesIn(item) : []), ...checker.outerNames()]);
    if (near) return near;
    const ofRecord = nearest(name, checker.namesIn(record));
    if (ofRecord) return `${world.record}.${ofRecord}`;
    const ofLines = lines && nearest(name, checker.namesIn(lines));
    return ofLines && `${LINES}.${ofLines}`;
  }

  #member(node: Node<'member'>, item: Shape | undefined): Type {
    const object = this.typeOf(node.object, item);
    if (object.is === 'unknown') return UNKNOWN;
    if (object.is === 'record') return this.#of(node, object.shape);
    if (object.is === 'list' && object.of.is === 'record') return listOf(this.#of(node, object.of.shape));
    if (object.is === 'list' && object.of.is === 'unknown') return UNKNOWN;
    return this.#wrong(node, `${sentence(typeInWords(object))} has no fields, so “.${node.name}” leads nowhere.`);
  }

  #of(node: Node<'member'>, shape: Shape): Type {
    const { checker } = this;
    const { name } = node;
    const quoted = this.source[node.to - 1] === '`' ? 2 : 0;
    const at = { from: node.to - name.length - quoted, to: node.to };
    if (shape === FIGURES) return this.#figureNamed(name, at);
    const column = figuresOfList(shape.list, checker.world).find((figure) => figure.name === name);
    const own = shape.type(name);
    if (own && column) return this.#wrong(at, `“${name}” is a field and a column of the list; rename the column.`);
    if (column) {
      this.#used(`${shape.list}.${name}`, at);
      return checker.figureType(column);
    }
    if (own) {
      this.#reads(shape, name);
      return own;
    }
    const near = checker.meant(() => nearest(name, checker.namesIn(shape)));
    const missing = shape.recordType === undefined ? undefined : { owner: shape.label, name };
    return this.#wrong(at, `${sentence(`the ${shape.label}`)} has no “${name}”${didYouMean(near)}`, near, missing);
  }

  #figureNamed(name: string, at: { from: number; to: number }): Type {
    const { figures, lists } = this.checker.world;
    const figure = figures.get(name);
    if (figure) {
      this.#used(name, at);
      return this.checker.figureType(figure);
    }
    if (lists.has(name)) {
      this.#used(name, at);
      return this.checker.listType(name);
    }
    const near = this.checker.meant(() => nearestName(name, [...figures.keys(), ...lists.keys()]));
    return this.#wrong(at, `There is no figure “${name}”${didYouMean(near)}`, near);
  }

  #filter(node: Node<'filter'>, item: Shape | undefined): Type {
    const list = this.typeOf(node.list, item);
    const of = list.is === 'list' ? list.of : list;
    if (of.is === 'unknown') return UNKNOWN;
    if (list.is !== 'list')
      return this.#wrong(node.list, `Only a list can be filtered, and this is ${typeInWords(list)}.`);
    if (of.is !== 'record')
      return this.#wrong(node.list, `Only a list of records can be filtered, and this is ${typeInWords(list)}.`);
    this.#condition(node.condition, of.shape);
    return list;
  }

  #call(node: Node<'call'>, item: Shape | undefined): Type {
    const called = FUNCTIONS.get(node.name);
    const at = { from: node.from, to: node.from + node.name.length };
    if (!called) {
      node.arguments.forEach((argument) => this.typeOf(argument, item));
      const near = this.checker.meant(() => nearestName(node.name, FUNCTIONS.keys()));
      return this.#wrong(at, `There is no function ${node.name}${didYouMean(near)}`, near);
    }
    const refused = refuseCount(called, node.arguments.length);
    if (refused) this.#wrong({ from: node.from, to: node.to }, refused);
    const types = this.#argumentTypes(node, called, item);
    if (called.name === 'PART' && !this.own)
      this.#wrong(at, 'PART is for a figure of a line: it gives the line’s own part.');
    return typeof called.result === 'function' ? called.result(types, node.arguments) : called.result;
  }

  #argumentTypes(node: Node<'call'>, called: FormulaFunction, item: Shape | undefined): Type[] {
    const types: Type[] = [];
    for (const [position, argument] of node.arguments.entries()) {
      const parameter = parameterAt(called.parameters, position);
      if (parameter.takes === 'formula for each item') {
        const list = types.find((type) => type.is === 'list');
        const each = list?.is === 'list' && list.of.is === 'record' ? list.of.shape : undefined;
        types.push(this.typeOf(argument, each));
        continue;
      }
      const type = this.typeOf(argument, item);
      types.push(type);
      if (called.name === 'SWITCH') continue;
      this.#argument(argument, type, parameter, called);
    }
    if (called.name === 'SWITCH') this.#switchCases(node, types);
    return types;
  }

  #switchCases(node: Node<'call'>, types: readonly Type[]): void {
    const subject = types[0];
    for (let at = 1; subject && at + 1 < types.length; at += 2) {
      this.#comparable(node.arguments[at]!, subject, types[at]!, node.arguments[0]!, node.arguments[at]!);
    }
  }

  #argument(node: Expression, type: Type, parameter: Parameter, called: FormulaFunction): void {
    if (type.is === 'unknown' || (type.is === 'list' && type.of.is === 'unknown')) return;
    const { takes } = parameter;
    const items = type.is === 'list' ? type.of : type;
    if (TAKES_LISTS.has(takes)) {
      if (fitsItems(takes, items)) {
        if (called.name === 'COUNT' && items.is === 'text')
          this.#wrong(node, 'COUNT passes over texts; to count them, write COUNTA.');
        return;
      }
    } else if (takes === 'list') {
      if (type.is === 'list') return;
    } else if (takes === 'records') {
      if (type.is === 'list' && type.of.is === 'record') return;
    } else if (type.is === 'list') {
      return void this.#listWhereOne(node, type);
    } else if (fitsOne(takes, type)) {
      return;
    }
    this.#wrong(
      node,
      `${called.name} takes ${TAKES_WORDS[takes]} as its “${parameter.name}”, not ${typeInWords(type)}.`,
    );
  }

  #binary(node: Node<'binary'>, item: Shape | undefined): Type {
    const { operator } = node;
    if (operator === 'and' || operator === 'or') {
      this.#condition(node.left, item);
      this.#condition(node.right, item);
      return BOOLEAN;
    }
    if (operator === 'in') return this.#membership(node, item);
    if (operator === '??') {
      const left = this.typeOf(node.left, item);
      const right = this.typeOf(node.right, item);
      const common = commonType(left, right);
      return (
        common ??
        this.#wrong(
          node,
          `Before ?? stands ${typeInWords(left)}, after it ${typeInWords(right)}: the two must be of one kind.`,
        )
      );
    }
    const left = this.#single(node.left, item);
    const right = this.#single(node.right, item);
    if (operator === '/' && node.right.kind === 'number' && node.right.value.isZero())
      return this.#wrong(node.right, 'This divides by zero.');
    if (left.is === 'unknown' || right.is === 'unknown')
      return operator === '&' ? TEXT : COMPARISONS.has(operator) ? BOOLEAN : UNKNOWN;
    if (operator === '&') {
      for (const [side, type] of [
        [node.left, left],
        [node.right, right],
      ] as const) {
        if (type.is === 'record')
          this.#wrong(
            side,
            `A ${type.shape.label} cannot be joined to a text; choose one of its fields, such as “.name”.`,
          );
      }
      return TEXT;
    }
    if (COMPARISONS.has(operator)) {
      if (operator !== '=' && operator !== '<>' && (left.is === 'boolean' || left.is === 'record'))
        this.#wrong(node, `${sentence(typeInWords(left))} has no order.`);
      this.#comparable(node, left, right, node.left, node.right);
      return BOOLEAN;
    }
    const result = arithmetic(operator, left, right);
    return result ?? this.#wrong(node, impossible(operator, left, right));
  }

  #membership(node: Node<'binary'>, item: Shape | undefined): Type {
    const left = this.#single(node.left, item);
    const right = this.typeOf(node.right, item);
    if (right.is === 'unknown') return BOOLEAN;
    if (right.is !== 'list') this.#wrong(node.right, `“in” looks in a list, and this is ${typeInWords(right)}.`);
    else this.#comparable(node, left, right.of, node.left, node.right);
    return BOOLEAN;
  }

  /** Two values that can be equal at all; a text that a field of choices can never hold is told. */
  #comparable(node: Expression, left: Type, right: Type, leftNode: Expression, rightNode: Expression): void {
    if (left.is === 'unknown' || right.is === 'unknown') return;
    const moneyBesideNumber =
      (left.is === 'money' && right.is === 'number') || (left.is === 'number' && right.is === 'money');
    if ((!commonType(left, right) && !moneyBesideNumber) || (left.is === 'list') !== (right.is === 'list')) {
      this.#wrong(node, `${sentence(typeInWords(left))} is never equal to ${typeInWords(right)}.`);
      return;
    }
    this.#neverHeld(leftNode, right);
    this.#neverHeld(rightNode, left);
  }

  #neverHeld(literal: Expression, type: Type): void {
    if (literal.kind !== 'text' || type.is !== 'text' || !type.allowed || type.allowed.includes(literal.value)) return;
    const { allowed } = type;
    const near = this.checker.meant(() => nearestName(literal.value, allowed));
    const choices = new Intl.ListFormat('en', { type: 'disjunction' }).format(allowed.map((value) => `“${value}”`));
    this.#wrong(literal, `This is never “${literal.value}”: it can be ${choices}.`, near && `"${near}"`);
  }

  #condition(node: Expression, item: Shape | undefined): void {
    const type = this.typeOf(node, item);
    if (type.is === 'boolean' || type.is === 'unknown') return;
    if (type.is === 'list') return void this.#listWhereOne(node, type);
    this.#wrong(node, `A condition is yes or no, and this is ${typeInWords(type)}; compare it with something.`);
  }

  /** The type of an operand that has to be one value. */
  #single(node: Expression, item: Shape | undefined): Type {
    const type = this.typeOf(node, item);
    return type.is === 'list' ? this.#listWhereOne(node, type) : type;
  }

  #listWhereOne(node: Expression, type: Type & { is: 'list' }): Type {
    const text = this.source.slice(node.from, node.to);
    const summed = isNumeric(type.of) || type.of.is === 'money';
    const choice = summed ? `SUM(${text})` : `FIRST(${text})`;
    return this.#wrong(
      node,
      `This is ${typeInWords(type)}, and one value is needed: write ${choice}${summed ? ' for their sum' : ''}.`,
      choice,
    );
  }

  /** Notes that a field of records of a shape is read. */
  #reads({ places = [] }: Shape, name: string): void {
    for (const place of places) this.reads.push([...place, name]);
  }

  #used(key: string, { from, to }: { from: number; to: number }): void {
    this.uses.push({ key, from, to });
  }

  #wrong(
    { from, to }: { from: number; to: number },
    message: string,
    fix?: string,
    missing?: Diagnostic['missing'],
  ): Type {
    this.diagnostics.push({ from, to, message, fix, ...(missing && { missing }) });
    return UNKNOWN;
  }
}

const FIGURES: Shape = shapeOf('figures', {});

function itemScope(item: Shape): ItemScope {
  return {
    has: (name) => item.type(name) !== undefined,
    leadsTo: (name) => {
      const type = item.type(name);
      return type?.is === 'record' ? type.shape.recordType : undefined;
    },
    list: item.list,
  };
}

const COMPARISONS: ReadonlySet<string> = new Set(['=', '<>', '<', '<=', '>', '>=']);

function fitsItems(takes: Parameter['takes'], type: Type): boolean {
  const amounts = isNumeric(type) || type.is === 'money';
  if (takes === 'amounts') return amounts;
  return takes === 'several' || amounts || type.is === 'date' || type.is === 'datetime';
}

function fitsOne(takes: Parameter['takes'], type: Type): boolean {
  switch (takes) {
    case 'number':
      return isNumeric(type);
    case 'amount':
      return isNumeric(type) || type.is === 'money';
    case 'text':
      return type.is === 'text';
    case 'condition':
      return type.is === 'boolean';
    case 'date':
      return type.is === 'date';
    default:
      return true;
  }
}

/** The type of a sum, difference, product, quotient or power; undefined where there is none. */
function arithmetic(operator: string, left: Type, right: Type): Type | undefined {
  const numeric = isNumeric(left) && isNumeric(right);
  const both = left.is === 'percent' && right.is === 'percent' ? PERCENT : NUMBER;
  switch (operator) {
    case '+':
    case '-':
      if (numeric) return both;
      if (left.is === 'money' || right.is === 'money')
        return commonType(left, right)?.is === 'money' ? MONEY : undefined;
      if (left.is === 'date' && right.is === 'number') return DATE;
      if (operator === '+' && left.is === 'number' && right.is === 'date') return DATE;
      return operator === '-' && left.is === 'date' && right.is === 'date' ? NUMBER : undefined;
    case '*':
      if (numeric) return both;
      return (left.is === 'money' && isNumeric(right)) || (isNumeric(left) && right.is === 'money') ? MONEY : undefined;
    case '/':
      if (numeric) return left.is === 'percent' && right.is === 'number' ? PERCENT : NUMBER;
      if (left.is === 'money' && right.is === 'money') return NUMBER;
      return left.is === 'money' && isNumeric(right) ? MONEY : undefined;
    default:
      return numeric ? NUMBER : undefined;
  }
}

function impossible(operator: string, left: Type, right: Type): string {
  const [one, other] = [typeInWords(left), typeInWords(right)];
  switch (operator) {
    case '+':
      return `${sentence(other)} cannot be added to ${one}.`;
    case '-':
      return `${sentence(other)} cannot be taken from ${one}.`;
    case '*':
      return `${sentence(one)} cannot be multiplied by ${other}.`;
    case '/':
      return `${sentence(one)} cannot be divided by ${other}.`;
    default:
      return 'Powers are taken of numbers.';
  }
}

function nearest(name: string, candidates: { name: string; label: string }[]): string | undefined {
  const byName = nearestName(
    name,
    candidates.map((each) => each.name),
  );
  if (byName) return byName;
  const label = nearestName(
    name,
    candidates.map((each) => each.label),
  );
  return label === undefined ? undefined : candidates.find((each) => each.label === label)?.name;
}

const didYouMean = (name: string | undefined) => (name === undefined ? '.' : `; did you mean ${name}?`);
