import expected from './expected-totals.json';

/**
 * Totals of every demo deal that has any, computed outside Lumbix: with Python's `decimal`, each line's
 * quantity × price × (1 − discount) rounded half up to the minor unit, optional lines left out, tax on the sum of each
 * category and rate rounded in the same way. Six of them were checked by hand besides.
 */
export const expectedTotals: Readonly<Record<string, { subtotal: string; taxes: string[]; total: string }>> = expected;
