import type { Figure } from '../../sheet/figure';
import type { Finding } from './finding';

/** An internal figure (cost, margin) that would reach the page. */
export function printedInternal({ name, label }: Figure, at: { block: string; key: string }): Finding {
  return {
    id: `internal ${name}`,
    severity: 'stops',
    of: 'template',
    title: 'An internal figure is printed',
    sentence: `“${label}” is internal and must not be printed. Take it off the page.`,
    block: at.block,
    values: [at.key],
  };
}
