import { expect, it } from 'vitest';
import { digestsOf, editions, type Digests } from './every';
import kept from './kept.json';

/** Where a change is meant, `npm run compositions` shows what it changes and renews the digests. */
it.each(editions)(
  '$template in $edition composes as it did for every demo deal',
  ({ template, edition }) => {
    expect(digestsOf(template, edition)).toEqual((kept as Digests)[`${template} ${edition}`]);
  },
  60_000,
);
