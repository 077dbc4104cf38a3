import { moneyHeld, RecordRow } from './record-row';
import { roundMoney } from '../money/currency';
import { Decimal, NumberTooGreat, roundTo, type RoundingMode } from '../money/decimal';
import { type RecordSchema, LINES } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import { chosenPath, memberPath, namesOf } from '../record/value-path';
import { FormulaError, type Expression } from '../formula/ast';
import { keptWith } from './kept-with-row';
import { Cell, invalidate, type Column, type Found } from './cell';
import { FIGURE_TYPE_WORDS, type Figure, type FigureSheet } from './figure';
import { asCondition, callFunction } from '../formula/functions';
import type { Argument, CallContext, ExchangeRate } from '../formula/functions/function';
import type { RegisteredDocument } from '../formula/functions/register';
import { figuresOfList, Scope, worldOf, type World } from './names';
import { applyBinary, asPercentage, negate } from '../formula/operators';
import { parseFormula } from '../formula/parse';
import { printFormula } from '../formula/print';
import { ValuesRow, type Row, type RowField } from '../formula/row';
import { exchangeRates, TABLES, tablesOf } from './tables';
import {
  boolean,
  canonical,
  error,
  isPlainZero,
  money,
  number,
  percent,
  text,
  typeWords,
  type ErrorValue,
  type ListValue,
  type Value,
} from '../formula/value';

/** What the formulas of one document are evaluated over. */
export interface SheetInput {
  sheet: FigureSheet;
  schema: RecordSchema;
  snapshot: RecordSnapshot;
  /** The name the record goes by in formulas: `deal`. */
  root: string;
  /** Further roots with plain values: company, document, ask, user. */
  roots: Readonly<Record<string, Readonly<Record<string, Value>>>>;
  locale: string;
  /** IANA name of the zone that moments are shown in. */
  timeZone?: string;
  /** The document's day, counted from 1970-01-01: TODAY, and the day of exchange rates. */
  today?: number;
  serial?: number;
  /** Earlier filed documents of the same record, oldest first. */
  registered?: readonly RegisteredDocument[];
  rates?: readonly ExchangeRate[];
}

/** Longer lists are refused with a sentence: no document prints them. */
const LONGEST_LIST = 200_000;
/** Formulas inside figures inside figures: beyond this an error value, never a full stack. */
const DEEPEST_EVALUATION = 900;

/**
 * Evaluates figures and formulas over one record. Every figure is computed when it is first asked for and once only,
 * so the order in which figures are written does not matter; after a change of the record only what depends on the
 * change is computed again. Nothing here throws for what a formula says or a record holds: whatever goes wrong is an
 * error value.
 */
export class Sheet {
  readonly record: RecordRow;
  readonly rounding: RoundingMode;
  readonly world: World;
  readonly #roots: ReadonlyMap<string, ValuesRow>;
  readonly #cells = new Map<string, Cell>();
  readonly #shared = new Map<string, Cell>();
  readonly #sharedOf = new WeakMap<object, Map<string, Cell>>();
  readonly #scopes = new Map<string, Scope>();
  readonly #positions = new Map<Figure, number>();
  readonly #columns = new WeakMap<readonly Value[], Map<string, Column>>();
  readonly #outside: Scope;
  readonly #currency: Cell;
  #rates?: readonly ExchangeRate[];
  #depth = 0;

  constructor(readonly input: SheetInput) {
    const { sheet, snapshot, schema, root, roots, timeZone = 'UTC' } = input;
    this.record = new RecordRow(snapshot, { schema, timeZone }, root);
    this.rounding = sheet.rounding;
    this.#roots = new Map(
      Object.entries({ ...roots, ...this.#ownRoots() }).map(([name, values]) => [
        name,
        new ValuesRow(name, name, name, values),
      ]),
    );
    this.world = worldOf(sheet, { root, type: snapshot.type }, this.record.has(LINES), this.#roots.keys());
    this.#outside = new Scope(undefined, this.world);
    this.#currency = new Cell('currency', sheet.currency);
  }

  /** The roots that the sheet itself knows: its tables, and the currency beside what else the document is. */
  #ownRoots(): SheetInput['roots'] {
    const { sheet, roots } = this.input;
    const tables: SheetInput['roots'] = sheet.tables ? { [TABLES]: tablesOf(sheet.tables, () => this.currency) } : {};
    if (!roots.document) return tables;
    const document = { ...roots.document };
    const currency = (): Value =>
      this.currency === undefined
        ? { type: 'blank', cause: 'the document has no currency', lacks: 'currency' }
        : text(this.currency);
    Object.defineProperty(document, 'currency', { enumerable: true, get: currency });
    return { ...tables, document };
  }

  /** Rates of exchange: those given, and those of the sheet's own table. */
  get rates(): readonly ExchangeRate[] {
    return (this.#rates ??= [...(this.input.rates ?? []), ...exchangeRates(this.input.sheet.tables ?? [])]);
  }

  /** The document's currency by the sheet's formula; undefined if the record has none. */
  get currency(): string | undefined {
    if (this.#currency.state === 'evaluating') return undefined;
    const { value } = this.#computed(this.#currency);
    return value.type === 'text' ? value.value : undefined;
  }

  /** A figure of the document, or a derived list, by name. */
  figure(name: string): Cell {
    let cell = this.#cells.get(name);
    if (!cell) {
      const figure = this.world.figures.get(name);
      const list = this.world.lists.get(name);
      cell = new Cell(name, figure?.formula ?? list?.formula ?? '', undefined, figure);
      if (!figure && !list) cell.value = error(`There is no figure “${name}”.`);
      if (!figure && !list) cell.state = 'done';
      this.#cells.set(name, cell);
    }
    return this.#computed(cell);
  }

  /** A figure of an item: of a line, or a column of a derived list's row. */
  itemFigure(row: Row, figure: Figure): Cell {
    let position = this.#positions.get(figure);
    if (position === undefined) this.#positions.set(figure, (position = this.itemFigures(row).indexOf(figure)));
    const { cells } = keptWith(row);
    return this.#computed((cells[position] ??= new Cell(figure.name, figure.formula, row, figure)));
  }

  /** The figures that an item of a list has besides its own values. */
  itemFigures(row: Row): readonly Figure[] {
    return figuresOfList(row.list, this.world);
  }

  /** Evaluates a formula of the page, with an item in scope where there is one. */
  evaluate(id: string, formula: string, row?: Row): Cell {
    return this.#computed(new Cell(id, formula, row, undefined, false));
  }

  /** Takes the record as it is now: what depends on what changed is computed anew when it is next asked for. */
  update(snapshot: RecordSnapshot): void {
    invalidate(this.record.update(snapshot));
  }

  /**
   * How a cell's formula came to its value: what each of its paths, filters and calls gave, and the whole before it was
   * rounded. Computed once more, since only what someone opens needs it.
   */
  trace(cell: Cell): { found: ReadonlyMap<Expression, Found>; exact: Value } {
    const found = new Map<Expression, Found>();
    if (!cell.expression) return { found, exact: cell.value };
    const scratch = new Cell(cell.name, cell.formula, cell.row, cell.figure, false);
    return { found, exact: this.#guarded(cell.expression, new Frame(scratch, cell.row, false, found)) };
  }

  /** The value of a cell, computed if it is not. */
  #computed(cell: Cell): Cell {
    if (cell.state !== 'new') return cell;
    cell.state = 'evaluating';
    cell.value = this.#read(cell);
    if (cell.figure) this.#settle(cell, cell.figure);
    else if (!cell.row && this.world.lists.has(cell.name) && this.#cells.get(cell.name) === cell) this.#own(cell);
    cell.state = 'done';
    return cell;
  }

  #read(cell: Cell): Value {
    try {
      cell.expression ??= parseFormula(cell.formula);
    } catch (problem) {
      if (!(problem instanceof FormulaError)) throw problem;
      return error(`The formula “${shortened(cell.formula)}” cannot be read: ${problem.message}`);
    }
    return this.#guarded(cell.expression, new Frame(cell, cell.row, false));
  }

  #guarded(expression: Expression, frame: Frame): Value {
    const depth = this.#depth;
    try {
      return this.#evaluate(expression, frame);
    } catch (problem) {
      if (problem instanceof NumberTooGreat) return error(problem.message);
      throw problem;
    } finally {
      this.#depth = depth;
    }
  }

  /** The items of a derived list belong to it from now on, so that they have its columns. */
  #own(cell: Cell): void {
    const { value, name } = cell;
    if (value.type === 'error') return;
    if (value.type !== 'list') {
      cell.value = error(`“${name}” is ${typeWords(value)}, not a list.`);
      return;
    }
    const items = value.items.map((item): Value => {
      if (item.type !== 'record' || !(item.row instanceof ValuesRow)) return item;
      return { type: 'record', row: item.row.inList(name) };
    });
    cell.value = { ...value, items, of: { list: name } };
  }

  /** Gives a figure's value its declared type and rounding, and an error the place where it arose. */
  #settle(cell: Cell, figure: Figure): void {
    const settled = this.#typed(cell.value, figure, cell.row);
    const isPlaced = settled.type !== 'error' || settled.figure !== undefined;
    cell.value = isPlaced ? settled : { ...settled, figure: figure.name, message: placed(settled, cell, figure) };
  }

  #typed(value: Value, figure: Figure, row?: Row): Value {
    if (value.type === 'error' || value.type === 'blank') return value;
    switch (figure.type) {
      case 'amount':
        if (isPlainZero(value) && this.currency) return money(Decimal.ZERO, this.currency, 'amount');
        if (value.type !== 'money') break;
        return money(roundMoney(value.value, value.currency, this.rounding), value.currency, 'amount');
      case 'price':
        if (isPlainZero(value) && this.currency) return money(Decimal.ZERO, this.currency, 'price');
        if (value.type !== 'money') break;
        return money(this.#toDigits(value.value, figure), value.currency, 'price');
      case 'number':
        if (value.type !== 'number' && value.type !== 'percent') break;
        return number(this.#toDigits(value.value, figure));
      case 'percent':
        if (value.type !== 'number' && value.type !== 'percent') break;
        return percent(this.#toDigits(value.value, figure));
      default:
        if (value.type === figure.type) return value;
    }
    const where = row?.place ? `${row.place}: ` : '';
    return error(
      `${where}“${figure.label}” should be ${FIGURE_TYPE_WORDS[figure.type]}, but its formula gives ${typeWords(value)}.`,
      { figure: figure.name },
    );
  }

  #toDigits(value: Decimal, { digits }: Figure): Decimal {
    return digits === undefined ? value : roundTo(value, digits, this.rounding);
  }

  #evaluate(node: Expression, frame: Frame): Value {
    switch (node.kind) {
      case 'number':
        return { type: 'number', value: node.value };
      case 'percent':
        return percent(node.value);
      case 'text':
        return text(node.value);
      case 'boolean':
        return boolean(node.value);
      case 'name':
        return this.#name(node, frame);
    }
    if (++this.#depth > DEEPEST_EVALUATION) {
      this.#depth--;
      return error(`Formulas build on each other more than ${DEEPEST_EVALUATION} levels deep.`);
    }
    const value = this.#compound(node, frame);
    this.#depth--;
    return value;
  }

  #compound(
    node: Exclude<Expression, { kind: 'number' | 'percent' | 'text' | 'boolean' | 'name' }>,
    frame: Frame,
  ): Value {
    switch (node.kind) {
      case 'member':
        return this.#member(node, frame);
      case 'filter':
        return this.#filter(node, frame);
      case 'call':
        return this.#call(node, frame);
      case 'negative':
        return negate(this.#evaluate(node.operand, frame));
      case 'percentage':
        return asPercentage(this.#evaluate(node.operand, frame));
      case 'not': {
        const holds = asCondition(this.#evaluate(node.operand, frame));
        return typeof holds === 'boolean' ? boolean(!holds) : holds;
      }
      case 'binary':
        return this.#binary(node, frame);
    }
  }

  #binary(node: Extract<Expression, { kind: 'binary' }>, frame: Frame): Value {
    const left = this.#evaluate(node.left, frame);
    if (node.operator === '??') {
      return frame.found(node, left.type === 'blank' ? this.#evaluate(node.right, frame) : left);
    }
    if (node.operator === 'and' || node.operator === 'or') {
      const decided = node.operator === 'or';
      const first = asCondition(left);
      if (typeof first !== 'boolean') return first;
      if (first === decided) return boolean(decided);
      const second = asCondition(this.#evaluate(node.right, frame));
      return typeof second === 'boolean' ? boolean(second) : second;
    }
    return applyBinary(node.operator, left, this.#evaluate(node.right, frame), this.input.locale);
  }

  #call(node: Extract<Expression, { kind: 'call' }>, frame: Frame): Value {
    // What is the same for every item is computed once: `net / SUM(lines.net)`.
    if (frame.row && node.arguments.length > 0 && !frame.traced && !this.#scopeOf(frame.row).dependsOnItem(node)) {
      return this.#throughCell(
        node,
        this.#sharedCell(printFormula(node), () => this.#guardedCell(node)),
        frame,
      );
    }
    return frame.found(node, callFunction(node.name, node.arguments, new Call(this, frame, this.#valueOf)));
  }

  readonly #valueOf = (expression: Expression, frame: Frame) => this.#evaluate(expression, frame);

  #guardedCell(node: Expression): Cell {
    const cell = new Cell(printFormula(node), printFormula(node));
    cell.expression = node;
    return cell;
  }

  #sharedCell(key: string, make: () => Cell): Cell {
    let cell = this.#shared.get(key);
    if (!cell) this.#shared.set(key, (cell = make()));
    return this.#computed(cell);
  }

  /** Something computed once for a list, however many cells ask for it. */
  sharedFor(list: object, key: string, compute: (frame: Frame) => Value, asking: Frame): Value {
    let cells = this.#sharedOf.get(list);
    if (!cells) this.#sharedOf.set(list, (cells = new Map()));
    let cell = cells.get(key);
    if (!cell) cells.set(key, (cell = new Cell(key, key)));
    if (cell.state === 'new') {
      cell.state = 'evaluating';
      cell.value = compute(new Frame(cell, undefined, asking.aside));
      cell.state = 'done';
    }
    asking.goThrough(cell);
    return cell.state === 'done' ? cell.value : dependsOnItself(key);
  }

  #scopeOf(row: Row): Scope {
    const kept = keptWith(row);
    if (kept.scope && kept.scope.world === this.world) return kept.scope;
    const key = `${row.list ?? ''}|${row.shape}`;
    let scope = this.#scopes.get(key);
    if (!scope) this.#scopes.set(key, (scope = new Scope(row, this.world)));
    kept.scope = scope;
    return scope;
  }

  #name(node: Extract<Expression, { kind: 'name' }>, frame: Frame): Value {
    const { row } = frame;
    const { name } = node;
    const referent = (row ? this.#scopeOf(row) : this.#outside).referent(name);
    switch (referent.kind) {
      case 'field':
        return this.#field(node, row!.field(name), frame);
      case 'column':
        return this.#throughCell(node, this.itemFigure(row!, referent.figure), frame);
      case 'figure':
      case 'list':
        return this.#throughCell(node, this.figure(name), frame);
      case 'lines':
        return this.#field(node, this.record.field(LINES), frame);
      case 'item':
        return { type: 'record', row: row! };
      case 'this':
        if (!frame.cell.row)
          return error('“this” is the item that a figure of a line or of a list’s row is computed for.');
        return { type: 'record', row: frame.cell.row };
      case 'record':
        return { type: 'record', row: this.record };
      case 'root':
        return { type: 'record', row: this.#roots.get(name)! };
      case 'figures':
        return { type: 'record', row: FIGURES };
      case 'nothing':
        return error(`“${name}” is neither a field nor a figure.`);
      case 'ambiguous':
        return error(`“${name}” could mean ${referent.spelled.join(' or ')}; write out which.`);
    }
  }

  #member(node: Extract<Expression, { kind: 'member' }>, frame: Frame): Value {
    const object = this.#evaluate(node.object, frame);
    if (object.type === 'record') return this.#of(node, object.row, node.name, frame);
    if (object.type === 'error' || object.type === 'blank') return frame.found(node, object);
    if (object.type !== 'list') return frame.found(node, error(`${typeWords(object)} has no “${node.name}”.`));
    const column = this.#column(object.items, node.name);
    if (!('cells' in column)) return frame.found(node, column);
    // Noted before it is looked at: a column with an error in it is read all the same, and computed again once that is mended.
    frame.readColumn(column);
    const items = this.#columnValues(column);
    if (!Array.isArray(items)) return frame.found(node, items);
    return frame.found(node, { type: 'list', items, holds: this.#held(object, node.name) });
  }

  /** The fields or figures of one name over the items of a list, found once for each list. */
  #column(items: readonly Value[], name: string): Column | Value {
    let columns = this.#columns.get(items);
    if (!columns) this.#columns.set(items, (columns = new Map()));
    const known = columns.get(name);
    if (known) return known;
    if (items.length > LONGEST_LIST) return tooLong();
    const fields: RowField[] = [];
    const cells: Cell[] = [];
    for (const item of items) {
      if (item.type !== 'record') return error(`The list's items have no “${name}”.`);
      const { row } = item;
      const { isField, figure } = this.#scopeOf(row).member(name);
      if (figure && isField) return twiceNamed(name);
      if (figure) cells.push(this.itemFigure(row, figure));
      else if (isField) fields.push(row.field(name));
      else return unknownIn(row, name);
    }
    const column = { fields, cells };
    columns.set(name, column);
    return column;
  }

  #columnValues({ fields, cells }: Column): Value[] | Value {
    const values: Value[] = [];
    for (const { value } of fields) {
      if (value.type === 'error') return value;
      values.push(value);
    }
    for (const cell of cells) {
      if (cell.state === 'evaluating') return dependsOnItself(cell.figure?.name ?? cell.name);
      const { value } = cell.state === 'done' ? cell : this.#computed(cell);
      if (value.type === 'error') return value;
      values.push(value);
    }
    return values;
  }

  #of(node: Expression, row: Row, name: string, frame: Frame): Value {
    if (row === FIGURES) return this.#throughCell(node, this.figure(name), frame);
    const { isField, figure } = this.#scopeOf(row).member(name);
    if (figure && isField) return twiceNamed(name);
    if (figure) return this.#throughCell(node, this.itemFigure(row, figure), frame);
    if (isField) return this.#field(node, row.field(name), frame);
    return unknownIn(row, name);
  }

  #held(list: ListValue, name: string): ListValue['holds'] {
    const figure = figuresOfList(list.of?.list, this.world).find((each) => each.name === name);
    if (figure) return figure.type === 'amount' || figure.type === 'price' ? figure.type : undefined;
    return list.holdsMoney?.includes(name) ? 'amount' : moneyHeld(this.input.schema, list.of?.recordType, name);
  }

  #field(node: Expression, field: RowField, frame: Frame): Value {
    frame.read(field);
    if (frame.traced) frame.found(node, field.value, { kind: 'field', field });
    return field.value;
  }

  #throughCell(node: Expression, target: Cell, frame: Frame): Value {
    if (target.state === 'evaluating') return dependsOnItself(target.figure?.name ?? target.name);
    frame.goThrough(target);
    if (frame.traced) frame.found(node, target.value, { kind: 'cell', cell: target });
    return target.value;
  }

  /**
   * The items for which a condition holds, chosen once for all who ask for the same. What the condition looks at only
   * chooses; what counts as used is which items, in which order, came out.
   */
  #filter(node: Extract<Expression, { kind: 'filter' }>, frame: Frame): Value {
    const bound = frame.row && this.#scopeOf(frame.row).dependsOnItem(node);
    if (bound) return frame.found(node, this.#chosen(node, frame));
    const printed = printFormula(node);
    const shared = this.#sharedCell(`filter ${printed}`, () => this.#guardedCell(node));
    // The shared cell's own evaluation comes through here again, and does the choosing.
    if (shared === frame.cell) return this.#chosen(node, frame);
    if (shared.state === 'evaluating') return dependsOnItself(printed);
    frame.goThrough(shared);
    return frame.found(node, shared.value);
  }

  #chosen(node: Extract<Expression, { kind: 'filter' }>, frame: Frame): Value {
    const aside = new Frame(frame.cell, frame.row, true);
    const list = this.#evaluate(node.list, aside);
    if (list.type === 'error') return list;
    if (list.type !== 'list') return error(`Only a list can be filtered, not ${typeWords(list)}.`);
    if (list.items.length > LONGEST_LIST) return tooLong();
    const items: Value[] = [];
    const inner = new Frame(frame.cell, undefined, true);
    for (const item of list.items) {
      if (item.type !== 'record') return error('Only a list of records can be filtered.');
      inner.row = item.row;
      const holds = asCondition(this.#evaluate(node.condition, inner));
      if (typeof holds !== 'boolean') return holds;
      if (holds) items.push(item);
    }
    const chosen: ListValue = { ...list, items };
    if (!frame.aside) {
      const path = chosenPath(list.path ?? frame.cell.id, printFormula(node.condition));
      frame.cell.use({ path, canonical: canonical(chosen) });
    }
    return chosen;
  }
}

/** One run of a formula for a cell: what is in scope, and whether what is read counts as used. */
class Frame {
  constructor(
    readonly cell: Cell,
    public row: Row | undefined,
    /** Inside a filter's condition: what is read decides, and is not itself used. */
    readonly aside: boolean,
    readonly traced?: Map<Expression, Found>,
  ) {}

  read(field: RowField): void {
    this.cell.dependOn(field);
    if (!this.aside && field.counts) this.cell.use(field);
  }

  readColumn(column: Column): void {
    this.cell.dependOnColumn(column, !this.aside);
  }

  goThrough(cell: Cell): void {
    this.cell.dependOn(cell);
    if (!this.aside) this.cell.goThrough(cell);
  }

  /** Keeps a node's value for the workings; what is looked at for each item of a list is not kept. */
  found(node: Expression, value: Value, source: Found['source'] = COMPUTED): Value {
    if (this.traced && this.row === this.cell.row) this.traced.set(node, { value, source });
    return value;
  }

  /** The same run with another item in scope. */
  with(row: Row): Frame {
    return new Frame(this.cell, row, this.aside, this.traced);
  }
}

/** What a function sees of the evaluation it runs in. */
class Call implements CallContext {
  constructor(
    readonly sheet: Sheet,
    readonly frame: Frame,
    readonly valueOf: (expression: Expression, frame: Frame) => Value,
  ) {}

  get locale() {
    return this.sheet.input.locale;
  }
  get currency() {
    return this.sheet.currency;
  }
  get serial() {
    return this.sheet.input.serial;
  }
  get today() {
    return this.sheet.input.today;
  }
  get registered() {
    return this.sheet.input.registered;
  }
  get rounding() {
    return this.sheet.rounding;
  }
  get rates() {
    return this.sheet.rates;
  }
  get item() {
    return this.frame.row;
  }

  argument(expression: Expression): Argument {
    return new CallArgument(this, expression);
  }

  shared(list: object, key: string, compute: (context: CallContext) => Value): Value {
    return this.sheet.sharedFor(list, key, (frame) => compute(new Call(this.sheet, frame, this.valueOf)), this.frame);
  }
}

/** An argument of a call, evaluated when the function asks for it. */
class CallArgument implements Argument {
  constructor(
    readonly call: Call,
    readonly expression: Expression,
  ) {}

  value(): Value {
    return this.call.valueOf(this.expression, this.call.frame);
  }

  valueFor(row: Row): Value {
    return this.call.valueOf(this.expression, this.call.frame.with(row));
  }
}

/** A formula as far as a sentence has room for it. */
const shortened = (formula: string) => (formula.length > 80 ? `${formula.slice(0, 79)}…` : formula);

const COMPUTED: Found['source'] = { kind: 'computed' };
const FIGURES = new ValuesRow('figures', 'figures', 'figures', {});

const tooLong = () => error(`A list may have ${LONGEST_LIST} items at most.`);

const twiceNamed = (name: string) => error(`“${name}” is a field and a column of the list; rename the column.`);

function unknownIn(row: Row, name: string): Value {
  return error(`“${namesOf(row.path)}” has no “${name}”.`, { path: memberPath(row.path, name) });
}

/** An error's sentence with the place where it arose: the line, or the figure. One about a field has its place already. */
function placed({ message, path }: ErrorValue, { row }: Cell, { label }: Figure): string {
  if (path !== undefined || message.includes(`“${label}”`) || message.endsWith(ON_ITSELF)) return message;
  if (row?.place) return message.startsWith(row.place) ? message : `${row.place}: ${message}`;
  return `“${label}”: ${message}`;
}

const ON_ITSELF = 'depends on itself.';
const dependsOnItself = (name: string) => error(`“${name}” ${ON_ITSELF}`);
