import { relative } from 'node:path';
import { useNuxt } from 'nuxt/kit';
import type { NuxtPage } from 'nuxt/schema';
import type { BuiltPage } from '../server/edge/page-hints';

/** A file of the built app, as its manifest lists it. */
interface Resource {
  file: string;
  css?: string[];
  imports?: string[];
  isEntry?: boolean;
}
type Manifest = Readonly<Record<string, Resource>>;

let built: BuiltPage[] = [];

/** Learns while the app is built which files each page is made of. */
export function pageFiles(): void {
  const nuxt = useNuxt();
  let pages: NuxtPage[] = [];
  nuxt.hook('pages:resolved', (resolved) => void (pages = resolved));
  nuxt.hook(
    'build:manifest',
    (manifest) => void (built = builtPages(pages, manifest as Manifest, nuxt.options.srcDir)),
  );
}

/** For the server, which tells browsers with the page itself: the module `#built-pages`. */
export const builtPagesModule = (): string => `export default ${JSON.stringify(built)}`;

function builtPages(pages: readonly NuxtPage[], manifest: Manifest, folder: string): BuiltPage[] {
  const entries = Object.keys(manifest).filter((key) => manifest[key]!.isEntry);
  const everywhere = new Set(entries.flatMap((key) => filesOf(key, manifest)));
  return pages.map(({ name, path, file, children = [] }) => ({
    name,
    path,
    files: file ? filesOf(relative(folder, file), manifest).filter((each) => !everywhere.has(each)) : [],
    children: builtPages(children, manifest, folder),
  }));
}

/** A file of the app with all that it imports at once, and their styles, as addresses. */
function filesOf(key: string, manifest: Manifest, seen = new Set<string>()): string[] {
  const resource = manifest[key];
  if (!resource || seen.has(key)) return [];
  seen.add(key);
  const own = [...(resource.css ?? []), resource.file].map((file) => `/_nuxt/${file}`);
  return [...own, ...(resource.imports ?? []).flatMap((each) => filesOf(each, manifest, seen))];
}
