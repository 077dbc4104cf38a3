import { createRouterMatcher, type RouteRecordRaw } from 'vue-router';
import { readsOf, type PageQuery } from '../../core/contract/page-reads';

/** A page of the app as the build knows it: its route, and the files that it is made of, besides those of every page. */
export interface BuiltPage {
  name?: string;
  path: string;
  files: readonly string[];
  children: readonly BuiltPage[];
}

/** Tells what a page needs, so that the browser sends for all of it at once, before the first script has run. */
export type PageHints = (address: string, isSignedIn: boolean) => string;

/** Gives the hints of pages as elements of their heads. */
export function hintsOf(pages: readonly BuiltPage[]): PageHints {
  const matcher = createRouterMatcher(pages.map(routeOf), {});
  return (address, isSignedIn) => {
    const [pathname, query = ''] = address.split('?', 2) as [string, string?];
    let path = pathname;
    try {
      path = decodeURI(pathname);
    } catch {
      // Such an address has no page.
    }
    const { matched, name, params } = matcher.resolve({ path }, { path: '/' } as never);
    const files = new Set(matched.flatMap(({ meta }) => meta.files as string[]));
    const reads =
      isSignedIn && matched.length > 0
        ? readsOf(
            String(name),
            params as Record<string, string>,
            Object.fromEntries(new URLSearchParams(query)) as PageQuery,
          )
        : [];
    return [...[...files].map(fileHint), ...reads.map(readHint)].join('');
  };
}

function routeOf({ name, path, files, children }: BuiltPage): RouteRecordRaw {
  return { name, path, component: {}, meta: { files }, children: children.map(routeOf) } as RouteRecordRaw;
}

const fileHint = (file: string): string =>
  file.endsWith('.css')
    ? `<link rel="stylesheet" href="${file}">`
    : `<link rel="modulepreload" as="script" crossorigin href="${file}">`;

const readHint = (address: string): string =>
  `<link rel="preload" as="fetch" crossorigin="anonymous" href="${address.replaceAll('&', '&amp;').replaceAll('"', '%22')}">`;
