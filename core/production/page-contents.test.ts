import { describe, expect, it } from 'vitest';
import { pageContents } from './page-contents';

const link = (href: string) => `<a href="${href}"><rect/></a>`;

describe('what is on the pages of a proof', () => {
  it('is known from their drawings: values with any id, and sections from where they begin to where they end', () => {
    const pages = pageContents([
      link('lumbix:totals.total') +
        link('lumbix-section:start:crane') +
        link('lumbix:lines[&quot;L-1&quot;].a&amp;b&#x20AC;'),
      link('lumbix:only &#38; here'),
      link('lumbix-section:end:crane') +
        link('https://example.com') +
        link('lumbix-section:start:note') +
        link('lumbix-section:end:note'),
    ]);
    expect(pages.map(({ values }) => values)).toEqual([['totals.total', 'lines["L-1"].a&b€'], ['only & here'], []]);
    expect(pages.map(({ sections }) => sections)).toEqual([
      [{ id: 'crane', begins: true, ends: false }],
      [{ id: 'crane', begins: false, ends: false }],
      [
        { id: 'crane', begins: false, ends: true },
        { id: 'note', begins: true, ends: true },
      ],
    ]);
  });
});
