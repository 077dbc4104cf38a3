import { freeFileName } from '../../core/production/file-name';
import { sha256 } from '../assets';
import { PlaceError, type Place } from './place';

const MOST_NAMES = 100;

/**
 * Keeps a file at a place, exactly once: where a file with the same bytes is there already, it is the one that an earlier attempt put
 * there; another file of the name stays, and this one's name gets a number. Gives the path that it is under.
 * @throws PlaceError
 */
export async function keepCopy(place: Place, path: string, bytes: Uint8Array): Promise<string> {
  const slash = path.lastIndexOf('/') + 1;
  const [folder, name] = [path.slice(0, slash), path.slice(slash)];
  const hash = sha256(bytes);
  const taken: string[] = [];
  while (taken.length < MOST_NAMES) {
    const free = freeFileName(name, taken);
    if ((await place.put(folder + free, bytes)) === 'written') return folder + free;
    const there = await place.read(folder + free);
    if (there && sha256(there) === hash) return folder + free;
    // What went away meanwhile leaves its name free.
    if (there) taken.push(free);
  }
  throw new PlaceError('refused', `There are ${MOST_NAMES} files called “${name}” already. Choose another path.`);
}
