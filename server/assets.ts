import type { TemplateFile } from '../core/template/template-file';
import { createHash } from 'node:crypto';
import { getTableColumns, inArray, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Asset, Assets } from '../core/template/composed';
import {
  isRecord,
  isRecordList,
  type FieldValue,
  type PictureField,
  type RecordSnapshot,
} from '../core/record/snapshot';
import type { Choices } from '../core/production/production';
import type { Template } from '../core/template/template';
import type { Connection } from './db/database';
import { assets } from './db/schema';
import type { Press } from './press/press';

/** Where files are kept, and who looks them over. */
export interface Keeping {
  database: Connection;
  press: Press;
}

/** SHA-256 in hexadecimal. */
export function sha256(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/**
 * Looks a picture or PDF over and keeps it, once however often it comes.
 * @throws RefusedFile with the reason in a sentence.
 */
export async function keepAsset({ database, press }: Keeping, bytes: Uint8Array): Promise<TemplateFile> {
  const file = await press.lookOver(bytes);
  const kept = { sha256: sha256(bytes), ...file };
  const { standard = null } = kept;
  await database
    .insert(assets)
    .values({ ...kept, bytes: Buffer.from(bytes) })
    // What was kept before may not say its standard yet; nothing else is written twice.
    .onConflictDoUpdate({
      target: assets.sha256,
      set: { standard },
      setWhere: sql`${assets.standard} is distinct from excluded.standard`,
    });
  return kept;
}

/** What kept files are, by their hashes; without those that are not here. */
export async function keptFiles(
  connection: Connection,
  hashes: readonly string[],
): Promise<Record<string, TemplateFile>> {
  if (hashes.length === 0) return {};
  const { bytes: _, ...columns } = getTableColumns(assets);
  const rows = await connection.select(columns).from(assets).where(inArray(assets.sha256, hashes));
  return Object.fromEntries(
    rows.map((row) => {
      const said = Object.entries(row).filter(([, value]) => value !== null);
      return [row.sha256, Object.fromEntries(said) as unknown as TemplateFile];
    }),
  );
}

/** A kept file by its hash; undefined where there is none. */
export async function findAsset(connection: Connection, hash: string): Promise<Asset | undefined> {
  return (await read(connection, [hash]))[hash];
}

/** A template whose files' bytes are kept among the assets, as they are in the database. @throws RefusedFile */
export async function withFilesKept(keeping: Keeping, template: Template): Promise<Template> {
  if (!template.files) return template;
  const files: Record<string, TemplateFile> = {};
  for (const [name, file] of Object.entries(template.files)) {
    files[name] = file.content === undefined ? file : await keepAsset(keeping, Buffer.from(file.content, 'base64'));
  }
  return { ...template, files };
}

/** A template with its files inside, as it is taken out. */
export async function withFilesInside(connection: Connection, template: Template): Promise<Template> {
  if (!template.files) return template;
  const known = await read(
    connection,
    Object.values(template.files).map((file) => file.sha256),
  );
  const files = Object.entries(template.files).map(([name, file]): [string, TemplateFile] => {
    const asset = known[file.sha256];
    return [name, asset ? { ...file, content: Buffer.from(asset.bytes).toString('base64') } : file];
  });
  return { ...template, files: Object.fromEntries(files) };
}

/** The bytes of everything that a document of this template over this record may print, with the files that were put in for it. */
export function availableAssets(
  connection: Connection,
  { files: own = {} }: Template,
  snapshot: RecordSnapshot,
  added: Choices['files'] = {},
): Promise<Assets> {
  const named = [...Object.values(own), ...Object.values(added)].map((file) => file.sha256);
  const pictures = picturesIn(snapshot).flatMap((picture) => picture.sha256 ?? []);
  return read(connection, [...new Set([...named, ...pictures])]);
}

/** Files that were read lately: what has a hash never changes. */
const atHand = new LRUCache<string, Asset>({ maxSize: 32_000_000, sizeCalculation: ({ bytes }) => bytes.length + 1 });

async function read(connection: Connection, hashes: readonly string[]): Promise<Assets> {
  const found = new Map(hashes.map((hash) => [hash, atHand.get(hash)]));
  const missing = hashes.filter((hash) => !found.get(hash));
  const rows =
    missing.length === 0 ? [] : await connection.select().from(assets).where(inArray(assets.sha256, missing));
  for (const { sha256: hash, mediaType, bytes } of rows) {
    const asset = { mediaType, bytes: new Uint8Array(bytes) };
    found.set(hash, asset);
    atHand.set(hash, asset);
  }
  return Object.fromEntries([...found].flatMap(([hash, asset]) => (asset ? [[hash, asset]] : [])));
}

/** Every picture of a record and of what is related to it. */
export function picturesIn(snapshot: RecordSnapshot): PictureField[] {
  return Object.values(snapshot.fields).flatMap((value: FieldValue): PictureField[] => {
    if (value === null || typeof value !== 'object') return [];
    if (isRecordList(value)) return value.flatMap(picturesIn);
    if (isRecord(value)) return picturesIn(value);
    return 'image' in value ? [value.image] : [];
  });
}

/** The pictures under one path of a record, of each item where it leads through a list. */
export function picturesAt(snapshot: RecordSnapshot, [name = '', ...rest]: readonly string[]): PictureField[] {
  const value = snapshot.fields[name] ?? null;
  if (value === null || typeof value !== 'object') return [];
  if (isRecordList(value)) return value.flatMap((each) => picturesAt(each, rest));
  if (isRecord(value)) return picturesAt(value, rest);
  return 'image' in value && rest.length === 0 ? [value.image] : [];
}
