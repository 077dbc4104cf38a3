import { blankError, error, typeWords, type Value } from '../value';

/** A value used as a condition: true, false, or the error that it is neither. */
export function asCondition(value: Value): boolean | Value {
  if (value.type === 'boolean') return value.value;
  if (value.type === 'error') return value;
  if (value.type === 'blank') return blankError(value);
  return error(`A condition is yes or no, not ${typeWords(value)}.`);
}
