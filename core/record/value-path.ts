import { nameOf } from './layout';
import { own } from './own';
import { fieldLabel, fieldOf, LINES, recordTypeOf, type RecordSchema } from './schema';
import { isRecord, isRecordList, type FieldValue, type RecordSnapshot } from './snapshot';

/**
 * Value paths say where a value that a document used came from: `deal.account.city`; `deal.lines{L-4}.unit_price`, with an
 * item by its id; `deal.lines[not optional]`, the items that a condition chose; `when heated`, the outcome of a condition.
 * They are kept with filed documents, so what is made here today must be read here for good.
 */

/** The path of a value by its name. */
export const memberPath = (owner: string, name: string): string => `${owner}.${name}`;

/** The path of an item of a list, by its id: a line that moves is still the same line. */
export const itemPath = (list: string, id: string): string => `${list}{${id.replace(/[\\{}]/g, '\\$&')}}`;

/** The path of the items of a list that a condition chose. */
export const chosenPath = (list: string, condition: string): string => `${list}[${condition}]`;

/** The path of what a formula of the template decided: whether something is printed, or which of several things. */
export const outcomePath = (of: 'when' | 'choice', key: string): string => `${of} ${key}`;

/** One name of a path, with the id of the item where it leads to one. */
interface Step {
  name: string;
  item?: string;
}

/** A path taken apart. */
export type ValuePath = { outcome: 'when' | 'choice' } | { root: string; steps: Step[]; isChosen: boolean };

/** Takes a path apart; undefined for a text that is none. */
export function parsePath(path: string): ValuePath | undefined {
  const [, outcome] = /^(when|choice) /.exec(path) ?? [];
  if (outcome) return { outcome: outcome as 'when' | 'choice' };
  const step = /(\.?)(\w+)(?:\{((?:[^\\{}]|\\.)*)\})?/sy;
  const names: Step[] = [];
  for (let at = 0; at < path.length && path[at] !== '['; at = step.lastIndex) {
    step.lastIndex = at;
    const [, dot, name, item] = step.exec(path) ?? [];
    if (name === undefined || (dot === '.') !== at > 0) return undefined;
    names.push({ name, ...(item !== undefined && { item: item.replace(/\\(.)/gs, '$1') }) });
  }
  const [root, ...steps] = names;
  return root && { root: root.name, steps, isChosen: path.endsWith(']') };
}

/** A path for people who look for a name in it: without the ids of items. */
export function namesOf(path: string): string {
  const parsed = parsePath(path);
  return parsed && 'root' in parsed ? [parsed.root, ...parsed.steps.map(({ name }) => name)].join('.') : path;
}

/** What people call an item of a list: "Line 4, Vent motor", or "Contact 2, Ines Roe" in a list of others. */
export function placeOf(item: RecordSnapshot, position: number, list: string, schema: RecordSchema): string {
  const name = nameOf(item, schema);
  const called = list === LINES ? 'Line' : (recordTypeOf(schema, item.type)?.label ?? 'Item');
  return `${called} ${position + 1}${name === undefined ? '' : `, ${name}`}`;
}

/** A path in people's words: `deal.lines{L-4}.unit_price` is "Line 4, Vent motor: unit price". Never empty. */
export function describePath(path: string, snapshot: RecordSnapshot, schema: RecordSchema): string {
  const parsed = parsePath(path);
  if (!parsed) return path.endsWith(']') ? 'which items are included' : 'a value of the template';
  if ('outcome' in parsed)
    return parsed.outcome === 'when' ? 'which sections are printed' : 'what the template chooses';
  const { root, steps, isChosen } = parsed;
  if (root === 'registered' || root === 'billed') return 'documents filed before';
  if (isChosen) return `which ${chosenWords(steps, snapshot, schema)} are included`;
  return stepWords(steps, snapshot, schema) || worded(root);
}

/** What a list of chosen items holds: "line items". */
function chosenWords(steps: readonly Step[], { type }: RecordSnapshot, schema: RecordSchema): string {
  let owner: string | undefined = type;
  let words = 'items';
  for (const { name } of steps) {
    const field = fieldOf(schema, owner, name);
    words = (field?.label ?? worded(name)).toLowerCase();
    owner = field?.target;
  }
  return words;
}

function stepWords(steps: readonly Step[], snapshot: RecordSnapshot, schema: RecordSchema): string {
  const words: string[] = [];
  let record: RecordSnapshot | undefined = snapshot;
  for (const { name, item } of steps) {
    const value: FieldValue | undefined = record && own(record.fields, name);
    if (item !== undefined && value !== undefined && isRecordList(value)) {
      const position = value.findIndex(({ id }) => id === item);
      record = value[position];
      words.push(record ? placeOf(record, position, name, schema) : gone(name, item));
      continue;
    }
    const label = record ? fieldLabel(schema, record.type, name) : worded(name);
    words.push(words.length === 0 ? label : label.toLowerCase());
    record = value !== undefined && isRecord(value) ? value : undefined;
  }
  return words.join(': ');
}

const worded = (name: string) => name.replaceAll('_', ' ').trim() || name;

const gone = (list: string, id: string) => `${list === LINES ? 'a line' : 'an item'} that is gone (${id})`;
