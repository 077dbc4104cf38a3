import { Decimal } from '#core/money/decimal';
import type { RecordSchema } from '#core/record/schema';
import type { RecordSnapshot } from '#core/record/snapshot';

/** A field that was written, as it can be taken back: values as they are typed. */
interface Change {
  type: string;
  id: string;
  field: string;
  label: string;
  before: string;
  after: string;
}

interface Page {
  schema: () => RecordSchema | undefined;
  /** All records on the page. */
  records: () => readonly RecordSnapshot[];
  /** Reads them anew. */
  reload: () => Promise<unknown>;
}

/** What is written to the records of a page: each change can be taken back, and done again, in its order. */
export function useRecordChanges({ schema, records, reload }: Page) {
  const toast = useToast();
  const done = shallowRef<readonly Change[]>([]);
  const undone = shallowRef<readonly Change[]>([]);

  const now = ({ type, id }: Pick<Change, 'type' | 'id'>) =>
    records().find((each) => each.type === type && each.id === id);
  const say = (summary: string, detail?: string) => toast.add({ severity: 'secondary', summary, detail, life: 4_000 });

  /** Sends a value. Gives why it was refused; where the answer was lost, looks whether the record has the value. */
  async function send({ type, id, field }: Omit<Change, 'label' | 'before' | 'after'>, value: string) {
    const version = now({ type, id })?.version ?? '';
    try {
      await api('PATCH /fields', { body: { type, id, version, field, value } });
    } catch (thrown) {
      const problem = asProblem(thrown);
      await reload();
      const isThere = problem.status === 0 && isSame(valueOf({ type, id }, field), value);
      if (!isThere) return { refused: `${problem.title}. ${problem.detail}` };
      return { refused: undefined, isConfirmed: false };
    }
    await reload();
    return { refused: undefined, isConfirmed: true };
  }

  const valueOf = (record: Pick<Change, 'type' | 'id'>, field: string) => writtenValue(now(record)?.fields[field]);

  /** Writes a field. Gives why it was refused, to be shown beside what was typed. */
  async function write(record: RecordSnapshot, field: string, after: string): Promise<string | undefined> {
    const { type, id } = record;
    const label = schema()?.types[type]?.fields[field]?.label ?? field;
    const before = writtenValue(record.fields[field]);
    const { refused, isConfirmed } = await send({ type, id, field }, after);
    if (refused !== undefined) return refused;
    // As the CRM keeps it: 485 may be 485.00 there.
    done.value = [...done.value, { type, id, field, label, before, after: valueOf(record, field) }];
    undone.value = [];
    if (isConfirmed) say('Written to the CRM', 'Ctrl Z takes it back.');
    else say('Written, not confirmed', 'The answer was lost; the record has the value. Ctrl Z takes it back.');
    return undefined;
  }

  /** Takes the last change back, and says which. */
  async function undo(): Promise<void> {
    const change = done.value.at(-1);
    if (change && (await put(change, change.after, change.before, 'Undone')))
      [done.value, undone.value] = [done.value.slice(0, -1), [...undone.value, change]];
  }

  async function redo(): Promise<void> {
    const change = undone.value.at(-1);
    if (change && (await put(change, change.before, change.after, 'Done again')))
      [done.value, undone.value] = [[...done.value, change], undone.value.slice(0, -1)];
  }

  /** Puts one value in place of another, if that is still there. */
  async function put(change: Change, from: string, to: string, word: string): Promise<boolean> {
    if (!isSame(valueOf(change, change.field), from)) {
      say(`${change.label} was changed since`, 'Somebody else wrote it, so it is left as it is.');
      return false;
    }
    const { refused } = await send(change, to);
    if (refused !== undefined) {
      toast.add({ severity: 'error', summary: `${change.label} is as it was`, detail: refused, life: 9_000 });
      return false;
    }
    say(`${word}: ${change.label}`, `It is ${to || 'blank'} now.`);
    return true;
  }

  return { write, undo, redo };
}

/** Whether two values as they are written are one: a decimal is the same with more zeros. */
function isSame(one: string, other: string): boolean {
  const [number, another] = [Decimal.read(one), Decimal.read(other)];
  return number && another ? number.equals(another) : one === other;
}
