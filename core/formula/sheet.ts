import { roundMoney } from '../money/currency';
import { roundTo, type RoundingMode } from '../money/decimal';
import type { RecordSchema } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import { FormulaError, type Expression } from './ast';
import type { Cell, InputSource } from './cell';
import { LINES, type DerivedList, type Figure, type FigureSheet } from './figure';
import { asCondition, callFunction, type CallContext } from './functions';
import { applyBinary, asPercentage, negate } from './operators';
import { parseFormula } from './parse';
import { printFormula } from './print';
import { moneyHeld, RecordRow, ValuesRow, type Row } from './row';
import {
  boolean,
  canonical,
  error,
  money,
  number,
  percent,
  text,
  typeWords,
  type ListValue,
  type Value,
} from './value';

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
  serial?: number;
}

/** Longer lists are refused with a sentence: no document prints them. */
const LONGEST_LIST = 200_000;

/**
 * Evaluates figures and formulas over one record. Every figure is computed when it is first asked for and once only,
 * so the order in which figures are written does not matter. Nothing here throws for what a formula says or a
 * record holds: whatever goes wrong is an error value.
 */
export class Sheet {
  readonly record: RecordRow;
  readonly rounding: RoundingMode;
  readonly #perLine: ReadonlyMap<string, Figure>;
  readonly #lists: ReadonlyMap<string, DerivedList>;
  readonly #document: ReadonlyMap<string, Figure>;
  readonly #roots: ReadonlyMap<string, ValuesRow>;
  readonly #cells = new Map<string, Cell>();
  readonly #rowCells = new WeakMap<Row, Map<string, Cell>>();
  #currency: string | undefined | null = null;

  constructor(readonly input: SheetInput) {
    const { sheet, snapshot, schema, root, roots } = input;
    this.record = new RecordRow(snapshot, schema, root);
    this.rounding = sheet.rounding;
    this.#perLine = new Map(sheet.perLine.map((figure) => [figure.name, figure]));
    this.#lists = new Map(sheet.lists.map((list) => [list.name, list]));
    this.#document = new Map(sheet.document.map((figure) => [figure.name, figure]));
    this.#roots = new Map(
      Object.entries(roots).map(([name, values]) => [name, new ValuesRow(name, name, name, values)]),
    );
  }

  /** The document's currency by the sheet's formula; undefined if the record has none. */
  get currency(): string | undefined {
    if (this.#currency === null) {
      this.#currency = undefined;
      const { value } = this.evaluate('currency', this.input.sheet.currency);
      this.#currency = value.type === 'text' ? value.value : undefined;
    }
    return this.#currency;
  }

  /** A figure of the document by name. */
  figure(name: string): Cell {
    const figure = this.#document.get(name);
    if (figure) return this.#named(name, figure);
    const list = this.#lists.get(name);
    if (list) return this.#list(list);
    return this.#failed(name, error(`There is no figure “${name}”.`));
  }

  /** A figure of an item: of a line, or a column of a derived list's row. */
  itemFigure(row: Row, figure: Figure): Cell {
    let cells = this.#rowCells.get(row);
    if (!cells) this.#rowCells.set(row, (cells = new Map()));
    const known = cells.get(figure.name);
    if (known) return known;
    const cell = newCell(`${figure.name} of ${row.path}`, figure.formula, row, figure);
    cells.set(figure.name, cell);
    return this.#compute(cell);
  }

  /** The figures that an item of a list has besides its own values. */
  itemFigures(row: Row): readonly Figure[] {
    if (row.list === LINES) return this.input.sheet.perLine;
    return (row.list && this.#lists.get(row.list)?.columns) || [];
  }

  /** Evaluates a formula of the page, with an item in scope where there is one. */
  evaluate(id: string, formula: string, row?: Row): Cell {
    return this.#compute(newCell(id, formula, row));
  }

  #named(name: string, figure: Figure): Cell {
    const known = this.#cells.get(name);
    if (known) return known;
    const cell = newCell(name, figure.formula, undefined, figure);
    this.#cells.set(name, cell);
    return this.#compute(cell);
  }

  #list(list: DerivedList): Cell {
    const known = this.#cells.get(list.name);
    if (known) return known;
    const cell = newCell(list.name, list.formula);
    this.#cells.set(list.name, cell);
    this.#compute(cell);
    if (cell.value.type === 'list') cell.value = this.#owned(cell.value, list.name);
    else if (cell.value.type !== 'error') cell.value = error(`“${list.name}” is ${typeWords(cell.value)}, not a list.`);
    return cell;
  }

  /** The items of a derived list belong to it from now on, so that they have its columns. */
  #owned(value: ListValue, list: string): ListValue {
    const items = value.items.map((item): Value => {
      if (item.type !== 'record' || !(item.row instanceof ValuesRow)) return item;
      const { id, title, values, place } = item.row;
      return { type: 'record', row: new ValuesRow(`${list}{${id}}`, id, title, values, list, place) };
    });
    return { ...value, items, of: { list } };
  }

  #failed(id: string, value: Value): Cell {
    return { ...newCell(id, ''), state: 'done', value };
  }

  #compute(cell: Cell): Cell {
    try {
      cell.expression = parseFormula(cell.formula);
      cell.value = this.#evaluate(cell.expression, cell, cell.row);
    } catch (problem) {
      if (!(problem instanceof FormulaError)) throw problem;
      cell.value = error(`The formula “${cell.formula}” cannot be read: ${problem.message}`);
    }
    if (cell.figure) this.#settle(cell, cell.figure);
    cell.state = 'done';
    return cell;
  }

  /** Gives a figure's value its declared type and rounding, keeping what it was before. */
  #settle(cell: Cell, figure: Figure): void {
    const settled = this.#typed(cell.value, figure, cell.row);
    if (settled.type === 'error') {
      cell.value = settled.figure ? settled : { ...settled, figure: figure.name };
      return;
    }
    if ('value' in settled && 'value' in cell.value && String(settled.value) !== String(cell.value.value)) cell.beforeRounding = cell.value; // prettier-ignore
    cell.value = settled;
  }

  #typed(value: Value, figure: Figure, row?: Row): Value {
    if (value.type === 'error' || value.type === 'blank') return value;
    switch (figure.type) {
      case 'amount':
        if (value.type !== 'money') break;
        return money(roundMoney(value.value, value.currency, this.rounding), value.currency, 'amount');
      case 'price':
        if (value.type !== 'money') break;
        return money(digitsOf(figure, value.value, this.rounding), value.currency, 'price');
      case 'number':
        if (value.type !== 'number' && value.type !== 'percent') break;
        return number(digitsOf(figure, value.value, this.rounding));
      case 'percent':
        if (value.type !== 'number' && value.type !== 'percent') break;
        return percent(digitsOf(figure, value.value, this.rounding));
      default:
        if (value.type === figure.type) return value;
    }
    const where = row?.place ? `${row.place}: ` : '';
    return error(`${where}“${figure.label}” should be ${DECLARED_WORDS[figure.type]}, but its formula gives ${typeWords(value)}.`, { figure: figure.name }); // prettier-ignore
  }

  #evaluate(node: Expression, cell: Cell, row: Row | undefined): Value {
    switch (node.kind) {
      case 'number':
        return number(node.value);
      case 'percent':
        return percent(node.value);
      case 'text':
        return text(node.value);
      case 'boolean':
        return boolean(node.value);
      case 'name':
        return this.#noted(node, this.#name(node.name, cell, row), cell, row);
      case 'member':
        return this.#noted(node, this.#member(node, cell, row), cell, row);
      case 'filter':
        return this.#noted(node, { value: this.#filter(node, cell, row), source: { kind: 'computed' } }, cell, row);
      case 'call':
        return callFunction(node.name, node.arguments, this.#callContext(cell, row));
      case 'negative':
        return negate(this.#evaluate(node.operand, cell, row));
      case 'percentage':
        return asPercentage(this.#evaluate(node.operand, cell, row));
      case 'not': {
        const holds = asCondition(this.#evaluate(node.operand, cell, row));
        return typeof holds === 'boolean' ? boolean(!holds) : holds;
      }
      case 'binary':
        return this.#binary(node, cell, row);
    }
  }

  #binary(node: Extract<Expression, { kind: 'binary' }>, cell: Cell, row: Row | undefined): Value {
    const left = this.#evaluate(node.left, cell, row);
    if (node.operator === '??') {
      const value = left.type === 'blank' ? this.#evaluate(node.right, cell, row) : left;
      return this.#noted(node, { value, source: { kind: 'computed' } }, cell, row);
    }
    if (node.operator === 'and' || node.operator === 'or') {
      const decided = node.operator === 'or';
      const first = asCondition(left);
      if (typeof first !== 'boolean') return first;
      if (first === decided) return boolean(decided);
      const second = asCondition(this.#evaluate(node.right, cell, row));
      return typeof second === 'boolean' ? boolean(second) : second;
    }
    return applyBinary(node.operator, left, this.#evaluate(node.right, cell, row), this.input.locale);
  }

  #callContext(cell: Cell, row: Row | undefined): CallContext {
    return {
      locale: this.input.locale,
      currency: this.currency,
      rounding: this.rounding,
      serial: this.input.serial,
      evaluate: (expression) => this.#evaluate(expression, cell, row),
      evaluateFor: (expression, item) =>
        item.type === 'record' ? this.#evaluate(expression, cell, item.row) : error('The list holds no records.'),
    };
  }

  /** Keeps an input of the cell's own formula for its workings; what a filter looks at per item is not one. */
  #noted(node: Expression, found: Found, cell: Cell, row: Row | undefined): Value {
    if (row === cell.row) cell.inputs.set(node, found);
    return found.value;
  }

  /**
   * What a bare name means. A name with two meanings is an error and never a guess, so that a field that is added
   * in the CRM later cannot change a formula silently.
   */
  #name(name: string, cell: Cell, row: Row | undefined): Found {
    if (name === 'item' && row) return computed({ type: 'record', row });
    const meanings: (() => Found)[] = [];
    const spelled: string[] = [];
    if (row?.has(name)) {
      meanings.push(() => this.#field(row, name, cell));
      spelled.push(`item.${name}`);
    }
    const itemFigure = row && this.itemFigures(row).find((figure) => figure.name === name);
    if (itemFigure) {
      meanings.push(() => this.#throughCell(this.itemFigure(row, itemFigure), cell));
      spelled.push(`the column ${name}`);
    }
    if (this.#document.has(name) || this.#lists.has(name)) {
      meanings.push(() => this.#throughCell(this.figure(name), cell));
      spelled.push(`figures.${name}`);
    }
    if (name === this.input.root) meanings.push(() => computed({ type: 'record', row: this.record }));
    if (name === LINES && this.record.has(LINES)) {
      meanings.push(() => this.#field(this.record, LINES, cell));
      spelled.push(`${this.input.root}.${LINES}`);
    }
    const root = this.#roots.get(name);
    if (root) meanings.push(() => computed({ type: 'record', row: root }));
    if (name === 'figures' && meanings.length === 0) return computed({ type: 'record', row: FIGURES });

    if (meanings.length === 1) return meanings[0]!();
    if (meanings.length === 0) return computed(error(`“${name}” is neither a field nor a figure.`));
    return computed(error(`“${name}” could mean ${spelled.join(' or ')}; write out which.`));
  }

  #member(node: Extract<Expression, { kind: 'member' }>, cell: Cell, row: Row | undefined): Found {
    const object = this.#evaluate(node.object, cell, row);
    if (object.type === 'error' || object.type === 'blank') return computed(object);
    if (object.type === 'record') return this.#of(object.row, node.name, cell);
    if (object.type !== 'list') return computed(error(`${typeWords(object)} has no “${node.name}”.`));
    const items = object.items.map((item) =>
      item.type === 'record'
        ? this.#of(item.row, node.name, cell).value
        : error(`The list's items have no “${node.name}”.`),
    );
    const failed = items.find((item) => item.type === 'error');
    return computed(failed ?? { type: 'list', items, holds: this.#held(object, node.name) });
  }

  #of(row: Row, name: string, cell: Cell): Found {
    if (row === FIGURES) return this.#throughCell(this.figure(name), cell);
    const figure = this.itemFigures(row).find((each) => each.name === name);
    if (figure && row.has(name))
      return computed(error(`“${name}” is a field and a column of the list; rename the column.`));
    if (figure) return this.#throughCell(this.itemFigure(row, figure), cell);
    if (row.has(name)) return this.#field(row, name, cell);
    return computed(error(`“${row.path.replace(/\{.*?\}/g, '')}” has no “${name}”.`, { path: `${row.path}.${name}` }));
  }

  #held(list: ListValue, name: string): ListValue['holds'] {
    const figures = list.of?.list === LINES ? this.#perLine.get(name) : this.#lists.get(list.of?.list ?? '')?.columns.find((column) => column.name === name); // prettier-ignore
    if (figures?.type === 'amount' || figures?.type === 'price') return figures.type;
    return moneyHeld(this.input.schema, list.of?.recordType, name);
  }

  #field(row: Row, name: string, cell: Cell): Found {
    const value = row.value(name);
    const path = `${row.path}.${name}`;
    if (value.type !== 'record' && row instanceof RecordRow) cell.reads.set(path, canonical(value));
    return { value, source: { kind: 'field', path, label: row.label(name) } };
  }

  #throughCell(target: Cell, cell: Cell): Found {
    if (target.state === 'evaluating')
      return computed(error(`“${target.figure?.name ?? target.id}” depends on itself.`));
    cell.through.add(target);
    return { value: target.value, source: { kind: 'figure', cell: target } };
  }

  /**
   * The items for which a condition holds. What the condition looks at only chooses; what counts as used is which
   * items, in which order, came out.
   */
  #filter(node: Extract<Expression, { kind: 'filter' }>, cell: Cell, row: Row | undefined): Value {
    const aside: Cell = { ...cell, reads: new Map(), through: new Set(), inputs: new Map() };
    const list = this.#evaluate(node.list, aside, row);
    cell.through = new Set([...cell.through, ...aside.through]);
    if (list.type === 'error') return list;
    if (list.type !== 'list') return error(`A filter chooses from a list, not from ${typeWords(list)}.`);
    if (list.items.length > LONGEST_LIST) return error(`A list may have ${LONGEST_LIST} items at most.`);
    const items: Value[] = [];
    for (const item of list.items) {
      if (item.type !== 'record') return error('Only a list of records can be filtered.');
      const holds = asCondition(this.#evaluate(node.condition, aside, item.row));
      if (typeof holds !== 'boolean') return holds;
      if (holds) items.push(item);
    }
    const chosen: ListValue = { ...list, items };
    cell.reads.set(`${list.path ?? cell.id}[${printFormula(node.condition)}]`, canonical(chosen));
    return chosen;
  }
}

interface Found {
  value: Value;
  source: InputSource;
}

const FIGURES = new ValuesRow('figures', 'figures', 'figures', {});

const computed = (value: Value): Found => ({ value, source: { kind: 'computed' } });

const DECLARED_WORDS: Readonly<Record<Figure['type'], string>> = {
  amount: 'an amount of money', price: 'a price', number: 'a number', percent: 'a percentage',
  text: 'a text', date: 'a date', boolean: 'yes or no',
}; // prettier-ignore

function digitsOf<D extends Parameters<typeof roundTo>[0]>(figure: Figure, value: D, mode: RoundingMode) {
  return figure.digits === undefined ? value : roundTo(value, figure.digits, mode);
}

function newCell(id: string, formula: string, row?: Row, figure?: Figure): Cell {
  return {
    id,
    formula,
    row,
    figure,
    state: 'evaluating',
    value: error(`“${id}” depends on itself.`),
    inputs: new Map(),
    reads: new Map(),
    through: new Set(),
  };
}
