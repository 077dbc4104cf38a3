import { asc, eq, inArray } from 'drizzle-orm';
import type { PlaceSettings } from '../../core/contract/places';
import { placesOfPlans } from '../../core/template/plan-faults';
import { config } from '../config';
import type { Connection, Database } from '../db/database';
import { places, templates, templateVersions } from '../db/schema';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { seal, unseal } from '../secrets/seal';
import { addToTrail } from '../trail';
import { Folder } from './folder';
import { PlaceError, type Place } from './place';
import { S3 } from './s3';
import { WebDav } from './web-dav';

/** A place as it is set up. */
export interface WantedPlace {
  label: string;
  settings: PlaceSettings;
  secret?: string;
}

/** The places there are, without their secrets. */
export async function listPlaces(connection: Connection) {
  const { id, label, settings, changedAt } = places;
  return {
    places: await connection.select({ id, label, settings, changedAt }).from(places).orderBy(asc(places.label)),
  };
}

/** What some places are called, by their ids; those that are not there are left out. */
export async function placeLabels(connection: Connection, ids: readonly string[]): Promise<Record<string, string>> {
  if (ids.length === 0) return {};
  const rows = await connection
    .select({ id: places.id, label: places.label })
    .from(places)
    .where(inArray(places.id, [...ids]));
  return Object.fromEntries(rows.map(({ id, label }) => [id, label]));
}

/** A place by its id. @throws PlaceError */
export async function openPlace(connection: Connection, id: string): Promise<Place> {
  const [row] = await connection.select().from(places).where(eq(places.id, id));
  if (!row)
    throw new PlaceError('refused', `There is no place “${id}” for copies any more. Set it up in Setup, Copies.`);
  const secret = row.sealedSecret === null ? '' : unseal(row.sealedSecret, 'place');
  if (secret === undefined)
    throw new PlaceError('away', `The secret of ${row.label} cannot be read. Set it anew in Setup, Copies.`);
  return placeFor(row.settings, row.label, secret);
}

function placeFor(settings: PlaceSettings, label: string, secret: string): Place {
  switch (settings.type) {
    case 'folder':
      return new Folder(config.copiesFolder, settings.folder);
    case 'webDav':
      return new WebDav({ ...settings, secret }, label);
    case 's3':
      return new S3({ ...settings, secret }, label);
  }
}

/** Sets up a place, once it let Lumbix in. Without a secret the kept one stays, as long as it goes to the same address. @throws Problem */
export async function setUpPlace(
  database: Database,
  id: string,
  { label, settings, secret }: WantedPlace,
  caller: Caller,
): Promise<void> {
  const [before] = await database.select().from(places).where(eq(places.id, id));
  const wanted = secret || keptSecret(before, settings);
  await tried(() => placeFor(settings, label, wanted));
  const sealedSecret = settings.type === 'folder' ? null : seal(wanted, 'place');
  const values = { id, label, settings, sealedSecret, changedAt: new Date() };
  await database.transaction(async (transaction) => {
    await transaction.insert(places).values(values).onConflictDoUpdate({ target: places.id, set: values });
    const act = before ? 'place changed' : 'place added';
    const sentence = `${before ? 'Changed' : 'Set up'} ${label}, where copies are kept.`;
    await addToTrail(transaction, caller, act, { kind: 'place', id, name: label }, sentence);
  });
}

/** The secret that is kept for a place that goes to the same address as before. @throws Problem */
function keptSecret(before: typeof places.$inferSelect | undefined, settings: PlaceSettings): string {
  if (settings.type === 'folder') return '';
  const kept = before?.sealedSecret && unseal(before.sealedSecret, 'place');
  const same = before && before.settings.type !== 'folder' && sameOrigin(before.settings.url, settings.url);
  if (kept && same) return kept;
  throw new Problem(
    422,
    'The secret is needed',
    'A kept secret goes to no other address. Type the one for this address. Nothing was changed.',
  );
}

const sameOrigin = (one: string, other: string): boolean => new URL(one).origin === new URL(other).origin;

/** @throws Problem where the place does not answer, or does not let Lumbix in */
async function tried(place: () => Place | Promise<Place>): Promise<void> {
  try {
    await (await place()).test();
  } catch (problem) {
    if (!(problem instanceof PlaceError)) throw problem;
    throw new Problem(422, 'The place cannot be used', `${problem.message} Nothing was changed.`);
  }
}

/** Tries whether a place answers now. @throws Problem */
export async function testPlace(connection: Connection, id: string): Promise<void> {
  await knownPlace(connection, id);
  await tried(() => openPlace(connection, id));
}

async function knownPlace(connection: Connection, id: string) {
  const [row] = await connection.select().from(places).where(eq(places.id, id));
  if (!row) throw new Problem(404, 'No such place', 'This place for copies is not set up any more.');
  return row;
}

/** Takes a place away that no template keeps copies at. @throws Problem */
export async function removePlace(database: Database, id: string, caller: Caller): Promise<void> {
  const { label } = await knownPlace(database, id);
  const used = await templatesKeepingAt(database, id);
  if (used.length > 0)
    throw new Problem(
      409,
      'Templates keep copies there',
      `Take the step out of ${used.map((name) => `“${name}”`).join(', ')} first. Nothing was changed.`,
      { reason: 'used' },
    );
  await database.transaction(async (transaction) => {
    await transaction.delete(places).where(eq(places.id, id));
    const subject = { kind: 'place' as const, id, name: label };
    await addToTrail(transaction, caller, 'place removed', subject, `Took ${label} away. What is kept there stays.`);
  });
}

async function templatesKeepingAt(connection: Connection, place: string): Promise<string[]> {
  const rows = await connection
    .select({ name: templates.name, body: templateVersions.body })
    .from(templates)
    .innerJoin(templateVersions, eq(templateVersions.id, templates.currentVersion));
  return rows.filter(({ body }) => placesOfPlans(body.plans).includes(place)).map(({ name }) => name);
}
