import { link, mkdir, readFile, realpath, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join, relative, resolve, sep } from 'node:path';
import { sha256 } from '../assets';
import { PlaceError, type Place } from './place';

/** A folder under the root that whoever runs Lumbix chose for copies. */
export class Folder implements Place {
  readonly #root: string;
  readonly #folder: string;

  constructor(root: string, folder: string) {
    this.#root = resolve(root);
    this.#folder = resolve(this.#root, folder);
    this.#refuseOutside(this.#folder);
  }

  /** Written beside its place and linked to it whole, so that there is never half a file, and never one in place of another. */
  async put(path: string, bytes: Uint8Array): Promise<'written' | 'taken'> {
    const target = await this.#placeOf(path);
    // The same bytes have the same draft: what a broken attempt left behind is written over and taken away.
    const draft = join(dirname(target), `.${sha256(bytes)}.part`);
    try {
      await writeFile(draft, bytes, { mode: 0o640 });
      await link(draft, target);
      return 'written';
    } catch (problem) {
      if (codeOf(problem) === 'EEXIST') return 'taken';
      throw failed(problem);
    } finally {
      await rm(draft, { force: true });
    }
  }

  async read(path: string): Promise<Uint8Array | undefined> {
    try {
      return await readFile(await this.#placeOf(path));
    } catch (problem) {
      if (codeOf(problem) === 'ENOENT') return undefined;
      throw problem instanceof PlaceError ? problem : failed(problem);
    }
  }

  async test(): Promise<void> {
    const path = '.test';
    await this.put(path, new Uint8Array());
    await rm(await this.#placeOf(path), { force: true });
  }

  /** Where a path leads, with its folders made. A link that leads out of the root is not followed. */
  async #placeOf(path: string): Promise<string> {
    const target = resolve(this.#folder, path);
    this.#refuseOutside(target);
    try {
      await mkdir(dirname(target), { recursive: true });
      const [root, folder] = await Promise.all([realpath(this.#root), realpath(dirname(target))]);
      if (!isWithin(root, folder)) throw outside();
      if ((await stat(target).catch(() => undefined))?.isDirectory())
        throw new PlaceError('refused', `“${path}” is a folder there. Choose another path.`);
      return target;
    } catch (problem) {
      throw problem instanceof PlaceError ? problem : failed(problem);
    }
  }

  #refuseOutside(path: string): void {
    if (!isWithin(this.#root, path)) throw outside();
  }
}

const isWithin = (root: string, path: string): boolean => {
  const way = relative(root, path);
  return way !== '..' && !way.startsWith(`..${sep}`);
};
const outside = () => new PlaceError('refused', 'The path leads out of the folder for copies.');
const codeOf = (problem: unknown): string | undefined => (problem as NodeJS.ErrnoException).code;

/** Full disks and the like pass; what may not be written does not. */
function failed(problem: unknown): PlaceError {
  const code = codeOf(problem) ?? 'unknown';
  const passes = ['ENOSPC', 'EDQUOT', 'EIO', 'EMFILE', 'ENFILE', 'EBUSY', 'ETIMEDOUT', 'ESTALE'].includes(code);
  return new PlaceError(passes ? 'away' : 'refused', `The folder for copies cannot be written to (${code}).`);
}
