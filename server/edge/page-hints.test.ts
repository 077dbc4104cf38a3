import { describe, expect, it } from 'vitest';
import { hintsOf, type BuiltPage } from './page-hints';

const page = (name: string, path: string, files: string[], children: BuiltPage[] = []): BuiltPage => ({
  name,
  path,
  files,
  children,
});
const hints = hintsOf([
  page('records-type', '/records/:type()', ['/_nuxt/list.css', '/_nuxt/list.js']),
  page(
    'setup',
    '/setup',
    ['/_nuxt/setup.js'],
    [page('setup-people', 'people', ['/_nuxt/people.js', '/_nuxt/setup.js'])],
  ),
]);

describe('the hints of a page', () => {
  it('name its files and those of the page that it is in, each once', () => {
    expect(hints('/setup/people', false)).toBe(
      '<link rel="modulepreload" as="script" crossorigin href="/_nuxt/setup.js">' +
        '<link rel="modulepreload" as="script" crossorigin href="/_nuxt/people.js">',
    );
    expect(hints('/records/Deal', false)).toContain('<link rel="stylesheet" href="/_nuxt/list.css">');
  });

  it('name what it reads, for who may be signed in', () => {
    const told = hints('/records/Deal?stage=%22%3E%3Cscript%3E&view=quoted', true);
    expect(told).toContain('<link rel="preload" as="fetch" crossorigin="anonymous" href="/api/me">');
    expect(told).toContain('/api/records/Deal?view=quoted&amp;stage=%22%3E%3Cscript%3E&amp;sort=day');
    expect(told).not.toContain('<script');
  });

  it('are none for an address without a page, whatever it is', () => {
    for (const address of ['/nowhere', '/%', '/%E0%A4%A', '//', '/records/', '/\\evil'])
      expect(hints(address, true)).toBe('');
  });
});
