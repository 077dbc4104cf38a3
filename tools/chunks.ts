/** What the bundler tells of the modules that it has read. */
interface Modules {
  getModuleIds(): Iterable<string>;
  getModuleInfo(id: string): { importedIds: readonly string[]; isEntry: boolean } | null;
}

/** The parts of the app that are a file each, with all that they rest on; what is in an earlier one is not in a later one. */
const PARTS: readonly [chunk: string, begins: (id: string, isEntry: boolean) => boolean][] = [
  [
    'frame',
    // The focus trap is what dialogs have in common with tables; they would load the lists for it.
    (id, isEntry) => isEntry || /\/app\/(layouts|components\/(frame|general))\/|\/primevue\/focustrap\//.test(id),
  ],
  ['lists', (id) => /\/app\/components\/lists\//.test(id)],
];

let chunks: Map<string, string> | undefined;

/**
 * The file that a module of the app comes in: what every page stands in is one, what every list has is another. So a page is made of
 * few files, and none of both waits for the other. Undefined leaves a module to the bundler.
 */
export function chunkOf(module: string, modules: Modules): string | undefined {
  chunks ??= chunksOf(modules);
  return chunks.get(module);
}

function chunksOf(modules: Modules): Map<string, string> {
  const found = new Map<string, string>();
  for (const [chunk, begins] of PARTS) {
    const waiting = [...modules.getModuleIds()].filter((id) => begins(id, modules.getModuleInfo(id)!.isEntry));
    for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
      if (found.has(id)) continue;
      found.set(id, chunk);
      waiting.push(...(modules.getModuleInfo(id)?.importedIds ?? []));
    }
  }
  return found;
}
