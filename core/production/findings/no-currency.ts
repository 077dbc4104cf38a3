import { NO_CURRENCY, type Value } from '../../formula/value';
import type { Finding } from './finding';

/** A document without a currency. `record`: what the record is called by its type. */
export function noCurrency(value: Value, record: string): Finding {
  const path = value.type === 'blank' || value.type === 'error' ? value.path : undefined;
  return {
    id: path === undefined ? NO_CURRENCY : `missing ${path}`,
    severity: 'stops',
    title: 'No currency',
    sentence: `The ${record} has no currency that is an ISO 4217 code, so no sum can be printed. Set it on the ${record}.`,
    values: [],
    path,
  };
}
