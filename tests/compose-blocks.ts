import { shipped } from '../demo/shipped';
import { compose, type ComposeContext } from '../core/production/compose';
import type { Composition } from '../core/production/composition';
import type { RecordSnapshot } from '../core/record/snapshot';
import type { Block } from '../core/template/blocks';
import type { Template } from '../core/template/template';
import { demoPictures, demoSchema, demoSnapshot } from './demo-snapshot';

interface Around {
  /** A demo deal by its id, or a record. */
  deal?: RecordSnapshot | string;
  /** What the template has besides its blocks. */
  template?: Partial<Template>;
  context?: Partial<ComposeContext>;
}

/** The ordinary quote with other blocks and without its checks, composed in English over a demo deal. */
export function composeBlocks(blocks: Block[], { deal = 'D-1187', template, context }: Around = {}): Composition {
  const quote = shipped.templates[0]!;
  return compose(
    { ...quote, checks: [], layout: { ...quote.layout, body: blocks }, ...template },
    typeof deal === 'string' ? demoSnapshot(deal) : deal,
    {
      schema: demoSchema,
      pins: shipped,
      issueDate: '2026-11-23',
      edition: 'en',
      available: demoPictures,
      ...context,
    },
  );
}
