import type { RecordSchema } from '../../record/schema';
import type { RecordSnapshot } from '../../record/snapshot';
import type { UsedChange } from '../../record/used';
import { describePath, parsePath } from '../../record/value-path';
import { usedWords } from '../used-words';
import type { Finding } from './finding';

/** How many changes are told one by one. */
const MOST_TOLD = 5;

/** What is printed otherwise than when the document was looked at first, because its record changed meanwhile. */
export function changedSince(
  changes: readonly UsedChange[],
  record: { snapshot: RecordSnapshot; schema: RecordSchema; called: string },
  values: string[],
): Finding | undefined {
  if (changes.length === 0) return undefined;
  const { snapshot, schema, called } = record;
  const told = [...new Set(changes.map((change) => changeWords(change, snapshot, schema)))];
  const more = told.length - MOST_TOLD;
  const all = more > 0 ? [...told.slice(0, MOST_TOLD), `And ${more} more.`] : told;
  return {
    id: 'changed since',
    severity: 'warns',
    title: `The ${called} changed while this was open`,
    sentence: all.join(' '),
    values,
    ready: { label: 'Go on with this', reason: 'Seen: goes on with what the record says now' },
  };
}

/** “Line 4, Vent motor: unit price was 485.00 and is 490.00 now.” What a formula decided has no words of its own. */
function changeWords({ path, before, after }: UsedChange, snapshot: RecordSnapshot, schema: RecordSchema): string {
  const what = describePath(path, snapshot, schema);
  const parsed = parsePath(path);
  const isValue = parsed && 'root' in parsed && !parsed.isChosen;
  if (!isValue) return `It changed ${what}.`;
  const words = (text: string) => usedWords(path, text, snapshot, schema) || 'blank';
  if (before === null) return `${what} is new: ${words(after!)}.`;
  if (after === null) return `${what} is not used any more.`;
  return `${what} was ${words(before)} and is ${words(after)} now.`;
}
