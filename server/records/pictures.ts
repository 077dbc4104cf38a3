import { LRUCache } from 'lru-cache';
import {
  isRecord,
  isRecordList,
  type FieldValue,
  type PictureField,
  type RecordSnapshot,
} from '../../core/record/snapshot';
import { RefusedFile } from '../../core/files/refused-file';
import { keepAsset, picturesAt, picturesIn, type Keeping } from '../assets';
import { SourceError } from './source';
import { crm } from './sources';

/** What became of pictures that were fetched, by link and version. */
const fetched = new LRUCache<string, PictureField>({ max: 5_000, ttl: 10 * 60_000 });
const AT_ONCE = 4;

/**
 * The record with each of its pictures and PDFs fetched, looked over and kept. One that cannot be printed says why; the
 * document can still be made without it. `paths`: dotted, where only those there are wanted.
 * @throws SourceError while the CRM is away.
 */
export async function withPictures(
  keeping: Keeping,
  snapshot: RecordSnapshot,
  paths?: readonly string[],
): Promise<RecordSnapshot> {
  const all = paths ? paths.flatMap((path) => picturesAt(snapshot, path.split('.'))) : picturesIn(snapshot);
  const wanted = new Map(all.map((picture) => [keyOf(picture), picture]));
  const waiting = [...wanted.values()].filter((picture) => !fetched.has(keyOf(picture)));
  const next = async (): Promise<void> => {
    for (let picture = waiting.pop(); picture; picture = waiting.pop()) {
      fetched.set(keyOf(picture), await fetchPicture(keeping, picture));
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, next));
  return withFetched(snapshot);
}

const keyOf = ({ link, version = '' }: PictureField): string => `${link} ${version}`;

async function fetchPicture(keeping: Keeping, { link, version }: PictureField): Promise<PictureField> {
  try {
    const bytes = await crm.picture(link);
    const { sha256, width, height, mediaType, pages, standard } = await keepAsset(keeping, bytes);
    if (mediaType === 'application/pdf')
      return { link, version, sha256, mediaType, pages, ...(standard === 'pdf/a-2b' && { standard }) };
    return { link, version, sha256, width, height };
  } catch (problem) {
    if (problem instanceof RefusedFile) return { link, version, refused: problem.message };
    if (problem instanceof SourceError && problem.failure === 'missing')
      return { link, version, refused: 'The CRM has no picture here any more.' };
    throw problem;
  }
}

function withFetched(snapshot: RecordSnapshot): RecordSnapshot {
  const fields = Object.entries(snapshot.fields).map(([name, value]): [string, FieldValue] => [name, known(value)]);
  return { ...snapshot, fields: Object.fromEntries(fields) };
}

function known(value: FieldValue): FieldValue {
  if (value === null || typeof value !== 'object') return value;
  if (isRecordList(value)) return value.map(withFetched);
  if (isRecord(value)) return withFetched(value);
  return 'image' in value ? { image: fetched.get(keyOf(value.image)) ?? value.image } : value;
}
