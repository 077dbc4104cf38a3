import { fieldOf, LINES, pluralOf, recordTypeOf, type RecordSchema } from '../record/schema';
import { FormulaError, type Expression } from '../formula/ast';
import { parseFormula } from '../formula/parse';
import { printFormula } from '../formula/print';
import type { Shape, Type } from '../formula/type';
import { sentence } from '../formula/value';
import type { Checker } from '../sheet/check';

/** What a comparison fits to. `texts`: several choices; `records`: a list; `moment`: a date with its time; `other`: nothing but being there. */
export type SubjectKind =
  | 'text' | 'number' | 'percent' | 'money' | 'date' | 'moment' | 'yesNo' | 'texts' | 'records' | 'other'; // prettier-ignore

/** Something that a condition can look at. */
export interface Subject {
  formula: string;
  /** As a form names it: "Account: country". */
  label: string;
  kind: SubjectKind;
  /** The only values that it can have, where the source says so. */
  choices?: readonly Choice[];
  /** Dotted path of the field from the record on, where it is one. */
  path?: string;
}

export interface Choice {
  value: string;
  label: string;
}

/** Subjects that belong together. */
export interface SubjectGroup {
  title: string;
  subjects: readonly Subject[];
}

/** What people call something in a sentence. */
export interface Named {
  /** Without its article: "heating", "account’s country". */
  bare: string;
  /** What it is of, with its article: "the deal"; absent where it stands by itself. */
  owner?: string;
  /** What one of many is called, and many of them. */
  item?: { one: string; many: string };
  /** The record type and field that it is, where it is a field. */
  field?: { type: string; name: string };
}

/** Names and kinds of what conditions look at. `item` is what is in scope where a condition stands for each item of a list. */
export class Subjects {
  constructor(readonly checker: Checker) {}

  get schema(): RecordSchema {
    return this.checker.context.schema;
  }

  /** What a formula looks at. */
  of(formula: string, item?: Shape): Subject {
    const { type, reads } = this.checker.formula(formula, item);
    const named = this.named(formula, item);
    const choices = this.choicesOf(named.field);
    return {
      formula,
      label: sentence(named.bare),
      kind: kindOf(type),
      ...(choices && { choices }),
      ...(named.field && reads.length > 0 && { path: reads.at(-1)!.join('.') }),
    };
  }

  /** The choices of a field, with what people call them. */
  choicesOf(field: Named['field']): readonly Choice[] | undefined {
    return field && fieldOf(this.schema, field.type, field.name)?.allowed;
  }

  /** Everything that can be chosen where an item is in scope, or none is: fields nearby, lists, figures. */
  offered(item?: Shape): SubjectGroup[] {
    const { checker } = this;
    const { world, record } = checker;
    const outer = checker.outerNames();
    const groups: SubjectGroup[] = [];
    const add = (title: string, formulas: readonly string[]) => {
      const subjects = formulas.map((formula) => this.of(formula, item)).filter(({ kind }) => kind !== 'other');
      if (subjects.length > 0) groups.push({ title, subjects });
    };
    if (item) for (const [title, formulas] of this.#fieldsOf(item, (name) => name, item.label)) add(title, formulas);
    for (const [title, formulas] of this.#fieldsOf(record, (name) => `${world.record}.${name}`, record.label))
      add(title, formulas);
    const named = outer.filter(({ figure, name }) => figure !== undefined || world.lists.has(name));
    add(
      'Figures',
      named.map(({ name }) => name),
    );
    add('Document', ['document.currency', 'document.edition', 'document.issue_date']);
    return groups;
  }

  /** Fields of a shape, its lists, and those of the records that it leads to. */
  *#fieldsOf(shape: Shape, formulaOf: (name: string) => string, title: string): Generator<[string, string[]]> {
    const own: string[] = [];
    const related: [string, string[]][] = [];
    for (const { name, label, type } of this.checker.namesIn(shape)) {
      const formula = name === LINES && shape === this.checker.record ? LINES : formulaOf(quoted(name));
      if (type.is !== 'record') own.push(formula);
      // A way back to the record itself brings nothing new.
      else if (type.shape.recordType !== this.checker.record.recordType)
        related.push([
          label,
          [...type.shape.names()]
            .filter((inner) => !leadsOn(type.shape.type(inner)))
            .map((inner) => `${formula}.${quoted(inner)}`),
        ]);
    }
    yield [sentence(title), own];
    yield* related;
  }

  /** What a formula is called in a sentence; the formula itself where it has no name. */
  named(formula: string, item?: Shape): Named {
    try {
      return this.#named(parseFormula(formula), item);
    } catch (problem) {
      if (!(problem instanceof FormulaError)) throw problem;
      return { bare: formula };
    }
  }

  #named(node: Expression, item: Shape | undefined): Named {
    switch (node.kind) {
      case 'name':
        return this.#nameOf(node.name, item) ?? { bare: node.name };
      case 'member':
        return this.#memberOf(node, item) ?? { bare: printFormula(node) };
      case 'filter':
        return this.#named(node.list, item);
      case 'binary':
        return node.operator === '??' ? this.#named(node.left, item) : { bare: printFormula(node) };
      case 'call':
        return node.name === 'SUM' && node.arguments.length === 1
          ? { bare: `sum of the ${this.#named(node.arguments[0]!, item).bare}` }
          : { bare: printFormula(node) };
      default:
        return { bare: printFormula(node) };
    }
  }

  #nameOf(name: string, item: Shape | undefined): Named | undefined {
    const { checker } = this;
    const ofItem = item && checker.namesIn(item).find((each) => each.name === name);
    if (ofItem)
      return {
        bare: midSentence(ofItem.label),
        owner: `the ${item.label}`,
        ...this.#itemsOf(ofItem.type),
        ...(item.recordType !== undefined && !ofItem.figure && { field: { type: item.recordType, name } }),
      };
    const outer = checker.outerNames().find((each) => each.name === name);
    if (!outer) return undefined;
    return { bare: midSentence(outer.label), ...this.#itemsOf(outer.type, outer.figure ? undefined : outer.label) };
  }

  #memberOf(node: Extract<Expression, { kind: 'member' }>, item: Shape | undefined): Named | undefined {
    const { checker } = this;
    const { type } = checker.formula(printFormula(node.object), item);
    if (node.object.kind === 'name' && node.object.name === 'figures') return this.#nameOf(node.name, undefined);
    const shape =
      type.is === 'record' ? type.shape : type.is === 'list' && type.of.is === 'record' ? type.of.shape : undefined;
    const found = shape && checker.namesIn(shape).find(({ name }) => name === node.name);
    if (!shape || !found) return undefined;
    const label = midSentence(found.label);
    const isItself =
      shape === checker.record || (node.object.kind === 'name' && /^(item|this)$/.test(node.object.name));
    const owner = isItself ? shape.label : this.#named(node.object, item).bare;
    return {
      bare: isItself ? label : type.is === 'list' ? `${label} of the ${owner}` : `${owner}’s ${label}`,
      owner: `the ${owner}`,
      ...this.#itemsOf(found.type),
      ...(shape.recordType !== undefined && !found.figure && { field: { type: shape.recordType, name: node.name } }),
    };
  }

  #itemsOf(type: Type, listLabel?: string): Pick<Named, 'item'> {
    if (type.is !== 'list' || type.of.is !== 'record') return {};
    const { label, recordType } = type.of.shape;
    const known = recordTypeOf(this.schema, recordType);
    if (known) return { item: { one: midSentence(known.label), many: midSentence(pluralOf(known)) } };
    const of = listLabel === undefined ? '' : ` of “${listLabel}”`;
    return { item: { one: `${label}${of}`, many: `${label}s${of}` } };
  }
}

const KINDS: Partial<Record<Type['is'], SubjectKind>> = {
  text: 'text', number: 'number', percent: 'percent', money: 'money', date: 'date', datetime: 'moment', boolean: 'yesNo',
}; // prettier-ignore

function kindOf(type: Type): SubjectKind {
  if (type.is === 'list') return type.of.is === 'record' ? 'records' : type.of.is === 'text' ? 'texts' : 'other';
  return KINDS[type.is] ?? 'other';
}

const leadsOn = (type: Type | undefined): boolean =>
  type?.is === 'record' || (type?.is === 'list' && type.of.is === 'record');

const quoted = (name: string): string => printFormula({ kind: 'name', name, from: 0, to: 0 });

/** A label within a sentence: capitals stay where they are the word’s own, as in "VAT number". */
const midSentence = (label: string): string =>
  /^\p{Lu}\p{Ll}/u.test(label) ? label[0]!.toLowerCase() + label.slice(1) : label;
