import type { Checker } from './check';
import { DECLARED, FUNCTIONS, signatureOf } from '../formula/functions';
import { parameterAt } from '../formula/functions/function';
import { typeInWords, type Shape, type Type } from '../formula/type';

/** Something that may stand where the cursor is. */
export interface Completion {
  /** What to put in. */
  insert: string;
  label: string;
  kind: 'field' | 'figure' | 'list' | 'function' | 'word' | 'value';
  /** Its type in words, or a function's parameters. */
  detail: string;
  /** A line of help: the label people know it by, or what a function does. */
  help: string;
}

/** What may be put in at one place of a formula. */
export interface Completions {
  /** Where what was typed so far begins. */
  from: number;
  options: Completion[];
}

const WORDS = ['and', 'or', 'not', 'in', 'true', 'false'];

/** What may stand at a place of a formula, complete or not: fields, figures, functions, and values of choices. */
export function completionsAt(source: string, position: number, checker: Checker, item?: Shape): Completions {
  const before = source.slice(0, position);
  const choice = choiceAt(before, checker, item);
  if (choice) return choice;
  const typed = /[A-Za-z_][A-Za-z_0-9]*$/.exec(before)?.[0] ?? '';
  const from = position - typed.length;
  const scope = scopeAt(before, checker, item);
  if (before[from - 1] === '.') {
    const object = expressionBefore(before, from - 1);
    if (object === 'figures') return { from, options: figuresOnly(checker) };
    const shape = object === '' ? undefined : shapeIn(checker.formula(object, scope).type);
    return { from, options: shape ? namesOf(shape, checker) : [] };
  }
  const ahead = before.slice(0, from);
  if (endsOperand(ahead)) return { from, options: /\s$/.test(ahead) ? BETWEEN_OPERANDS : [] };
  return {
    from,
    options: [...itemNames(scope, checker), ...outerNames(checker), ...FUNCTION_OPTIONS, ...WORD_OPTIONS],
  };
}

const FUNCTION_OPTIONS: readonly Completion[] = DECLARED.map((each) => ({
  insert: `${each.name}(`,
  label: each.name,
  kind: 'function',
  detail: `(${signatureOf(each)})`,
  help: each.help,
}));

const WORD_OPTIONS: readonly Completion[] = WORDS.map((word) => ({
  insert: word,
  label: word,
  kind: 'word',
  detail: '',
  help: '',
}));

/** What may join a value that is written out to another. */
const BETWEEN_OPERANDS = WORD_OPTIONS.filter(({ insert }) => ['and', 'or', 'in'].includes(insert));

/** Whether what was written ends with a whole value: a text, a number, a name, something in brackets. */
function endsOperand(written: string): boolean {
  const last = /([A-Za-z_0-9]+|\S)\s*$/.exec(written)?.[1] ?? '';
  return /^[A-Za-z_0-9"`)\]}%]/.test(last) && !['and', 'or', 'not', 'in'].includes(last);
}

function namesOf(shape: Shape, checker: Checker): Completion[] {
  return checker.namesIn(shape).map(({ name, label, type, figure }) => ({
    insert: plainOrQuoted(name),
    label: name,
    kind: figure ? 'figure' : type.is === 'list' ? 'list' : 'field',
    detail: typeInWords(type),
    help: label,
  }));
}

function itemNames(item: Shape | undefined, checker: Checker): Completion[] {
  if (!item) return [];
  const itself: Completion = {
    insert: 'item',
    label: 'item',
    kind: 'word',
    detail: `the ${item.label}`,
    help: 'The item in scope, said outright',
  };
  return [...namesOf(item, checker), itself];
}

function outerNames(checker: Checker): Completion[] {
  return checker.outerNames().map(({ name, label, type, figure }) => ({
    insert: name,
    label: name,
    kind: figure ? 'figure' : type.is === 'list' ? 'list' : 'field',
    detail: typeInWords(type),
    help: label,
  }));
}

function figuresOnly(checker: Checker): Completion[] {
  const { figures, lists } = checker.world;
  return outerNames(checker).filter(({ label }) => figures.has(label) || lists.has(label));
}

function plainOrQuoted(name: string): string {
  return /^[A-Za-z_][A-Za-z_0-9]*$/.test(name) ? name : `\`${name}\``;
}

function shapeIn(type: Type): Shape | undefined {
  const one = type.is === 'list' ? type.of : type;
  return one.is === 'record' ? one.shape : undefined;
}

/** Inside a text that is compared with a choice: the values that the choice can have. */
function choiceAt(before: string, checker: Checker, item?: Shape): Completions | undefined {
  const open = openText(before);
  if (open === -1) return undefined;
  const from = open + 1;
  const compared = /(=|<>)\s*$/.exec(before.slice(0, open));
  const scope = scopeAt(before.slice(0, open), checker, item);
  const left = compared ? expressionBefore(before, compared.index) : '';
  const type = left ? checker.formula(left, scope).type : undefined;
  const allowed = type?.is === 'text' ? type.allowed : undefined;
  const options = (allowed ?? []).map((value): Completion => ({
    insert: `${value}"`,
    label: value,
    kind: 'value',
    detail: '',
    help: '',
  }));
  return { from, options };
}

/** Where the text that is not closed yet begins; -1 if none is open. */
function openText(before: string): number {
  let open = -1;
  for (let at = 0; at < before.length; at++) if (before[at] === '"') open = open === -1 ? at : -1;
  return open;
}

/** The item in scope at the end of an unfinished formula: that of the innermost filter, or of a function's list. */
function scopeAt(before: string, checker: Checker, outer?: Shape): Shape | undefined {
  /** `starts`: where each argument of a call begins. */
  type Frame = { scope: Shape | undefined; called?: string; starts: number[] };
  const stack: Frame[] = [{ scope: outer, starts: [0] }];
  let quoted = false;
  for (let at = 0; at < before.length; at++) {
    const character = before[at];
    if (character === '"') quoted = !quoted;
    if (quoted) continue;
    const top = stack.at(-1)!;
    if (character === '[') {
      const list = expressionBefore(before, at);
      stack.push({ scope: shapeIn(checker.formula(list, top.scope).type), starts: [at + 1] });
    } else if (character === '(') {
      const called = /[A-Za-z_]+$/.exec(before.slice(0, at))?.[0]?.toUpperCase();
      stack.push({ scope: top.scope, called, starts: [at + 1] });
    } else if ((character === ']' || character === ')') && stack.length > 1) {
      stack.pop();
    } else if (character === ',' && top.called) {
      top.starts.push(at + 1);
      const parameters = FUNCTIONS.get(top.called)?.parameters ?? [];
      const parameter = parameters.length > 0 ? parameterAt(parameters, top.starts.length - 1) : undefined;
      const around = stack.at(-2)!.scope;
      const listAt = Math.max(
        0,
        parameters.findIndex(({ takes }) => takes === 'records' || takes === 'list'),
      );
      const list = before.slice(top.starts[listAt], (top.starts[listAt + 1] ?? at + 1) - 1);
      top.scope = parameter?.takes === 'formula for each item' ? shapeIn(checker.formula(list, around).type) : around;
    }
  }
  return stack.at(-1)!.scope;
}

/** The path, filter or call that ends at a place: `deal.account`, `lines[not optional]`, `FIRST(tax_rows)`. */
function expressionBefore(source: string, end: number): string {
  let start = end;
  const skipSpace = () => {
    while (start > 0 && /\s/.test(source[start - 1]!)) start--;
  };
  skipSpace();
  const last = start;
  for (;;) {
    const character = source[start - 1];
    if (character === ']' || character === ')') {
      start = openingOf(source, start - 1);
      if (start === -1) return '';
    } else if (character === '`') start = source.lastIndexOf('`', start - 2);
    else if (character !== undefined && /[A-Za-z_0-9.]/.test(character)) start--;
    else return source.slice(Math.max(0, start), last);
    if (start <= 0) return source.slice(0, last);
  }
}

/** Where the bracket that is closed at a place was opened; -1 if nowhere. */
function openingOf(source: string, closing: number): number {
  let depth = 0;
  for (let at = closing; at >= 0; at--) {
    if (source[at] === ')' || source[at] === ']') depth++;
    if (source[at] === '(' || source[at] === '[') depth--;
    if (depth === 0) return at;
  }
  return -1;
}
