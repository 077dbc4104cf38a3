import { eq, inArray } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { reportOf, type Fault, type FaultReport } from '../core/shape/faults';
import { clausesOf, houseStylesOf } from '../core/template/assemble';
import { placesOfPlans } from '../core/template/plan-faults';
import type { Pins, Template } from '../core/template/template';
import { placeLabels } from './copies/places';
import { recordSchema } from './records/record-schema';
import type { Connection } from './db/database';
import { clauses, houseStyles, series, templates } from './db/schema';
import { addVersion, makeCurrent } from './db/shipped';
import { sha256 } from './assets';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { proveOnRecords } from './prove';
import type { Services } from './services';
import { addToTrail } from './trail';

/** A version as it was published. */
export interface Published {
  versionId: string;
  version: number;
}

/** How a version comes about. */
export interface Publishing {
  /** The version that the change was made to; absent for a new template. */
  base?: string;
  /** What is different in it. */
  note?: string;
  /** Why it is published although it stops on some records. */
  reason?: string;
  /** What is done in the same transaction. */
  with?: (transaction: Connection) => Promise<void>;
  /** What a person has to decide first. It is thrown once nothing is wrong with the template. */
  undecided?: Problem;
  caller: Caller;
}

/**
 * Publishes a template as its next version, through the one gate: nothing is published while anything is wrong with it. Then it
 * is composed over proof records: what stops on one of them needs a reason, which is kept.
 * @throws Problem with every fault and its place; with the records that it stops on; or where somebody published another version
 *   meanwhile. SourceError
 */
export async function publish(
  services: Services,
  template: Template,
  pins: Pins,
  { base, note, reason, undecided, caller, with: also }: Publishing,
): Promise<Published> {
  const { database, press } = services;
  const schema = await recordSchema();
  const missing = await missingNamed(database, template);
  const { count, faults } = await press.faultsOf(template, pins, schema);
  if (count + missing.length > 0)
    throw faultyTemplate('The template has mistakes', reportOf([...missing, ...faults], count + missing.length));
  const { faults: shown, records } = await proveOnRecords(services, template, pins);
  if (shown.length > 0) throw faultyTemplate('The template has mistakes', reportOf(shown));
  if (undecided) throw undecided;
  const accepted = reason?.trim();
  if (records.length > 0 && !accepted)
    throw new Problem(
      422,
      'Some records could not be filed',
      `On ${records.length === 1 ? 'one record' : `${records.length} records`} nothing could be filed with this template. Look at what stops, or say why it is published all the same.`,
      { reason: 'stops', records },
    );
  return database.transaction(async (transaction) => {
    // Two who publish at once come one after the other here, and the second is told.
    const [row] = await transaction.select().from(templates).where(eq(templates.id, template.id)).for('update');
    if ((row?.currentVersion ?? undefined) !== base)
      throw new Problem(
        409,
        'A newer version was published',
        'Someone published another version meanwhile. Open it again and make the change there.',
        { reason: 'template', version: row && { versionId: row.currentVersion } },
      );
    await also?.(transaction);
    const { id, version } = await addVersion(transaction, template, pins, {
      origin: 'made',
      by: caller.name,
      note,
      stops: records.length > 0 ? { reason: accepted!, records } : undefined,
    });
    await makeCurrent(transaction, template, id);
    const stopping =
      records.length > 0
        ? ` It stops on ${records.length === 1 ? 'one record' : `${records.length} records`}: ${accepted}`
        : '';
    await addToTrail(
      transaction,
      caller,
      'published',
      { kind: 'template', id: template.id, name: template.name },
      `Published “${template.name}” as version ${version}.${stopping}`,
      { versionId: id },
    );
    return { versionId: id, version };
  });
}

/** The house styles and clauses that a template asks for, as they are here. What is not here is told by the gate. */
export async function pinsFor(
  connection: Connection,
  template: Template,
  refusal = 'The template was not imported',
): Promise<Pins> {
  const [styles, kept] = await Promise.all([
    connection
      .select()
      .from(houseStyles)
      .where(inArray(houseStyles.id, houseStylesOf(template))),
    connection.select().from(clauses),
  ]);
  if (styles.length === 0)
    throw faultyTemplate(
      refusal,
      only(
        'houseStyle',
        `The template asks for the house style “${template.houseStyle}”, which is not here. Make it first, or name another one.`,
      ),
    );
  const all = kept.map(({ body }) => body);
  const wanted = clausesOf(template, all);
  return held({ houseStyles: styles.map(({ body }) => body), clauses: all.filter(({ id }) => wanted.includes(id)) });
}

/** Pins that were found lately, by what they hold: the same ones are the same object, which goes to a process of the press once. */
const known = new LRUCache<string, Pins>({ max: 100 });
function held(pins: Pins): Pins {
  const holds = sha256(Buffer.from(JSON.stringify(pins)));
  const same = known.get(holds) ?? pins;
  known.set(holds, same);
  return same;
}

/** Number series and places for copies that the plans name and that are not here. */
async function missingNamed(connection: Connection, { plans }: Template): Promise<Fault[]> {
  const wanted = {
    series: [...new Set(plans.map((plan) => plan.series))],
    places: placesOfPlans(plans),
  };
  const known = await connection.select({ id: series.id }).from(series).where(inArray(series.id, wanted.series));
  const labels = await placeLabels(connection, wanted.places);
  const missing = (what: string, ids: readonly string[]): Fault[] =>
    ids.map((id) => ({
      path: 'plans',
      sentence: `The template asks for the ${what} “${id}”, which is not here. Make it first, or name another one.`,
    }));
  return [
    ...missing(
      'number series',
      wanted.series.filter((id) => !known.some((each) => each.id === id)),
    ),
    ...missing(
      'place for copies',
      wanted.places.filter((id) => !(id in labels)),
    ),
  ];
}

/** One fault by itself. */
export const only = (path: string, sentence: string): FaultReport => reportOf([{ path, sentence }]);

/** A template that is refused, with its faults. */
export function faultyTemplate(title: string, { count, faults }: FaultReport): Problem {
  const more = count > 1 ? ` There are ${count} mistakes in all.` : '';
  return new Problem(422, title, `${faults[0]!.sentence}${more}`, { reason: 'file', faults, count });
}
