/** What a plan does after a document is filed, with its values: told in words before it happens, then done by the server. */
import { isoOf } from '../formula/date';
import { asCondition } from '../formula/functions';
import { formatValue, type ErrorValue, type Value } from '../formula/value';
import { activitiesOf } from '../record/activities';
import { fieldOf, type FieldSchema, type RecordSchema } from '../record/schema';
import type { FieldValue } from '../record/snapshot';
import type { Sheet } from '../sheet/sheet';
import type { PlanStep } from '../template/plan';
import { activityFault, fieldFault } from '../template/plan-faults';
import { splitPlaceholders } from '../template/placeholders';
import { typedFieldValue } from '../template/typed-value';
import { INTERFACE_LOCALE } from '../words/interface';
import { safePath } from './file-name';

/** A step with its values. `words`: what it does, as a sentence; of one that is skipped, what it would do. */
export type ComposedStep = SkippedStep | StepToDo;
type SkippedStep = StepBase & { type: PlanStep['type']; skipped: true };
interface StepBase {
  id: string;
  words: string;
}
/** One whose condition holds, with what it is to do. */
export type StepToDo = StepBase &
  (
    | { type: 'setFields'; fields: Readonly<Record<string, FieldValue>> }
    | { type: 'activity'; kind: string; subject: string; text?: string }
    | { type: 'copy'; place: string; path: string }
    | { type: 'address'; field: string }
  );

/** Why a step cannot be done, in a sentence, with the error that is behind it, if one is. */
export interface StepFault {
  step: string;
  sentence: string;
  error?: ErrorValue;
}

/** What steps are composed with. */
export interface StepSurroundings {
  schema: RecordSchema;
  /** The record's type. */
  type: string;
  /** Labels of the places that copies are kept at, by their ids. */
  places: Readonly<Record<string, string>>;
  /** What stands for the document’s number, as long as it has none. */
  numberToCome?: string;
}

/** The steps of a plan over a document's figures, in their order, and what keeps any from being done. */
export function composeSteps(
  steps: readonly PlanStep[],
  sheet: Sheet,
  surroundings: StepSurroundings,
): { steps: ComposedStep[]; faults: StepFault[] } {
  const composer = new StepComposer(sheet, surroundings);
  const composed = steps.map((step) => composer.step(step));
  const { numberToCome } = surroundings;
  const told = (words: string) => (numberToCome === undefined ? words : words.replaceAll(numberToCome, '…'));
  return { steps: composed.map((step) => ({ ...step, words: told(step.words) })), faults: composer.faults };
}

class StepComposer {
  readonly faults: StepFault[] = [];

  constructor(
    private readonly sheet: Sheet,
    private readonly around: StepSurroundings,
  ) {}

  step(step: PlanStep): ComposedStep {
    const { id, type } = step;
    if (!this.#holds(step)) return { id, type, skipped: true, words: this.#plainWords(step) };
    switch (step.type) {
      case 'setFields':
        return this.#setFields(step);
      case 'activity':
        return this.#activity(step);
      case 'copy': {
        const path = safePath(
          this.#parts(step.id, step.path).map(({ text, isValue }) => (isValue ? text.replace(/[/\\]/g, '-') : text)),
          'pdf',
        );
        return { id, type: 'copy', place: step.place, path, words: `Keeps a copy in ${this.#place(step)}: “${path}”.` };
      }
      case 'address':
        if (!this.#field(id, step.field)) return { id, type, skipped: true, words: this.#plainWords(step) };
        return { id, type: 'address', field: step.field, words: this.#plainWords(step) };
    }
  }

  #holds({ id, when }: PlanStep): boolean {
    if (when === undefined) return true;
    const { value } = this.sheet.evaluate(`step ${id} when`, when);
    const holds = asCondition(value);
    if (typeof holds === 'boolean') return holds;
    if (holds.type === 'error') this.#fail(id, holds);
    return false;
  }

  #setFields({ id, fields }: Extract<PlanStep, { type: 'setFields' }>): ComposedStep {
    const values: Record<string, FieldValue> = {};
    const words: string[] = [];
    for (const { field: name, value: formula } of fields) {
      const field = this.#field(id, name);
      const { value } = this.sheet.evaluate(`step ${id} ${name}`, formula);
      if (value.type === 'error') this.#fail(id, value);
      if (!field || value.type === 'error') continue;
      const read = typedFieldValue(field, value.type === 'blank' ? '' : typedText(value));
      if ('fault' in read) {
        this.faults.push({ step: id, sentence: `${read.fault} It would be set to ${quoted(field, value)}.` });
        continue;
      }
      values[name] = read.value;
      words.push(value.type === 'blank' ? `empties ${field.label}` : `sets ${field.label} to ${quoted(field, value)}`);
    }
    return { id, type: 'setFields', fields: values, words: `${upper(listed(words))}.` };
  }

  #activity(step: Extract<PlanStep, { type: 'activity' }>): ComposedStep {
    const { id, kind } = step;
    const { schema, type } = this.around;
    const sentence = activityFault(schema, type, kind);
    if (sentence !== undefined) this.faults.push({ step: id, sentence });
    const known = activitiesOf(schema, type)?.kind.allowed?.find(({ value }) => value === kind);
    const subject = this.#text(id, step.subject);
    const text = step.text === undefined ? undefined : this.#text(id, step.text);
    return {
      id,
      type: 'activity',
      kind,
      subject,
      ...(text !== undefined && { text }),
      words: `Writes the activity “${subject}” (${(known?.label ?? kind).toLowerCase()}).`,
    };
  }

  /** A field that can be set; undefined, and a fault, where it cannot. */
  #field(step: string, name: string): FieldSchema | undefined {
    const { schema, type } = this.around;
    const sentence = fieldFault(schema, type, name);
    if (sentence !== undefined) this.faults.push({ step, sentence });
    return sentence === undefined ? fieldOf(schema, type, name) : undefined;
  }

  #place({ place }: { place: string }): string {
    return this.around.places[place] ?? `“${place}”`;
  }

  /** What a step does, without its values. */
  #plainWords(step: PlanStep): string {
    const label = (field: string) => fieldOf(this.around.schema, this.around.type, field)?.label ?? field;
    switch (step.type) {
      case 'setFields':
        return `Sets ${listed(step.fields.map(({ field }) => label(field)))}.`;
      case 'activity':
        return 'Writes an activity.';
      case 'copy':
        return `Keeps a copy in ${this.#place(step)}.`;
      case 'address':
        return `Puts the document’s address into ${label(step.field)}.`;
    }
  }

  #text(step: string, source: string): string {
    return this.#parts(step, source)
      .map(({ text }) => text)
      .join('')
      .trim();
  }

  /** A text with its values, for colleagues: in the interface’s notation. A blank is nothing. */
  #parts(step: string, source: string): { text: string; isValue: boolean }[] {
    return splitPlaceholders(source).map((part, position) => {
      if (part.kind === 'text') return { text: part.text, isValue: false };
      const { value } = this.sheet.evaluate(`step ${step} text ${position} ${part.formula}`, part.formula);
      if (value.type === 'error') this.#fail(step, value);
      return { text: value.type === 'blank' ? '' : formatValue(value, INTERFACE_LOCALE), isValue: true };
    });
  }

  #fail(step: string, error: ErrorValue): void {
    this.faults.push({ step, sentence: error.message, error });
  }
}

const MOST_DECIMALS = 10;

/** A value as a person would type it into a field. */
function typedText(value: Value): string {
  switch (value.type) {
    case 'text':
      return value.value;
    case 'number':
    case 'money':
      return value.value.round(MOST_DECIMALS).toFixed();
    case 'percent':
      return value.value.shifted(2).round(MOST_DECIMALS).toFixed();
    case 'boolean':
      return String(value.value);
    case 'date':
      return isoOf(value.day);
    case 'rich':
      return value.html;
    case 'list':
      return value.items.map(typedText).join(', ');
    default:
      return formatValue(value, INTERFACE_LOCALE);
  }
}

/** A value in words, by what people call it. */
function quoted({ allowed }: FieldSchema, value: Value): string {
  const known = value.type === 'text' ? allowed?.find((each) => each.value === value.value)?.label : undefined;
  return `“${known ?? formatValue(value, INTERFACE_LOCALE)}”`;
}

const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
const upper = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
