import type { ErrorValue } from '../../formula/value';
import type { Finding } from './finding';

/** A value that could not be computed, or read. `of`: whose fault it is, where that is the template's whatever the record. */
export function failedValue(
  { message, path }: ErrorValue,
  at: { block: string; key?: string; workings?: string; of?: Finding['of'] },
): Finding {
  return {
    id: path ? `missing ${path}` : `error ${message}`,
    severity: 'stops',
    ...(at.of && { of: at.of }),
    title: path ? 'A value is missing' : 'A figure cannot be computed',
    sentence: message.endsWith('.') ? message : `${message}.`,
    block: at.block,
    values: at.key === undefined ? [] : [at.key],
    path,
    workings: at.workings,
  };
}
