import { FormulaError } from '../formula/ast';
import { parseFormula } from '../formula/parse';
import { activitiesOf } from '../record/activities';
import { calledByType, fieldOf, type RecordSchema } from '../record/schema';
import type { Fault } from '../shape/faults';
import { twice } from './blocks/kind';
import type { Plan, PlanStep } from './plan';
import type { Template } from './template';
import { typedFieldValue } from './typed-value';

/** What of a template's steps after filing its CRM cannot do: fields that cannot be set, values that are not allowed, kinds it does not know. */
export function* stepFaults({ plans, record }: Template, schema: RecordSchema): Generator<Fault> {
  for (const plan of plans) {
    const { label, steps = [] } = plan;
    const inPlan = (sentence: string): Fault => ({ path: label, sentence: `In the steps of “${label}”: ${sentence}` });
    for (const id of twice(steps)) yield inPlan(`two are called “${id}”. Give one another id.`);
    for (const step of steps) for (const sentence of faultsOf(step, record.type, schema)) yield inPlan(sentence);
  }
}

function* faultsOf(step: PlanStep, type: string, schema: RecordSchema): Generator<string> {
  switch (step.type) {
    case 'setFields':
      for (const { field, value } of step.fields) {
        const fault = fieldFault(schema, type, field) ?? valueFault(schema, type, field, value);
        if (fault !== undefined) yield fault;
      }
      return;
    case 'activity': {
      const fault = activityFault(schema, type, step.kind);
      if (fault !== undefined) yield fault;
      return;
    }
    case 'address': {
      const fault = fieldFault(schema, type, step.field);
      if (fault !== undefined) yield fault;
    }
  }
}

/** Why a field of a record type cannot be set by a step, in a sentence; undefined where it can. */
export function fieldFault(schema: RecordSchema, type: string, name: string): string | undefined {
  const called = calledByType(schema, type);
  const field = fieldOf(schema, type, name);
  if (!field) return `The ${called} has no field “${name}”.`;
  if (field.readonly || field.target !== undefined || field.type === 'image')
    return `${field.label} of the ${called} cannot be set from outside.`;
  return undefined;
}

/** Why an activity of a kind cannot be written on records of a type; undefined where it can. */
export function activityFault(schema: RecordSchema, type: string, kind: string): string | undefined {
  const fields = activitiesOf(schema, type);
  if (!fields) return `The CRM takes no activities on a ${calledByType(schema, type)}.`;
  const { allowed = [] } = fields.kind;
  if (allowed.some(({ value }) => value === kind)) return undefined;
  return `There is no activity of the kind “${kind}”. There are these: ${allowed.map(({ label }) => label).join(', ')}.`;
}

/** A value that stands in the formula itself must be one that the field takes; what others give is known with the record. */
function valueFault(schema: RecordSchema, type: string, field: string, formula: string): string | undefined {
  try {
    const expression = parseFormula(formula);
    if (expression.kind !== 'text') return undefined;
    const read = typedFieldValue(fieldOf(schema, type, field)!, expression.value);
    return 'fault' in read ? read.fault : undefined;
  } catch (problem) {
    // A formula that cannot be read is told where all formulas are.
    if (problem instanceof FormulaError) return undefined;
    throw problem;
  }
}

/** The places that the plans keep copies at. */
export const placesOfPlans = (plans: readonly Plan[]): string[] => [
  ...new Set(plans.flatMap(({ steps = [] }) => steps.flatMap((step) => (step.type === 'copy' ? step.place : [])))),
];
