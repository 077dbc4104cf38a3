import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Contract } from '../../core/contract/contract';
import type { AnswerOf, BodyOf } from '../../core/contract/endpoint';
import { documentNumber, numberingFault } from '../../core/production/number';
import { today } from '../config';
import type { Connection, Database } from '../db/database';
import { numbers, series, seriesCounters, templates, templateVersions } from '../db/schema';
import type { Caller } from '../people/caller';
import { Problem } from '../problem';
import { addToTrail } from '../trail';

type Series = AnswerOf<Contract['GET /series']>[number];

/** The series there are, each with the number that it gives next. */
export async function listSeries(connection: Connection): Promise<Series[]> {
  const day = today();
  const rows = await connection
    .select({ series, counter: seriesCounters })
    .from(series)
    .leftJoin(seriesCounters, and(eq(seriesCounters.seriesId, series.id), eq(seriesCounters.period, day.slice(0, 4))))
    .orderBy(asc(series.label));
  return rows.map(({ series: { id, label, formula, backdatedDays }, counter }) => ({
    id,
    label,
    formula,
    backdatedDays,
    next: numberOf(formula, day, counter?.next ?? 1),
    taken: (counter?.next ?? 1) - 1,
    lastIssued: counter?.lastIssued ?? null,
  }));
}

/** The first numbers that a formula would give today, or why it cannot number documents. */
export function firstNumbers(formula: string): AnswerOf<Contract['GET /series/numbers']> {
  const fault = numberingFault(formula, Number(today().slice(0, 4)));
  const given = [1, 2, 3].flatMap((serial) => numberOf(formula, today(), serial) ?? []);
  return { numbers: given, fault: fault ?? null };
}

/** The number of a serial; null where the formula gives none. */
function numberOf(formula: string, day: string, serial: number): string | null {
  try {
    return documentNumber(formula, day, serial);
  } catch {
    return null;
  }
}

/** Sets up a series, or changes one: numbers that were taken stay as they are. @throws Problem */
export async function setUpSeries(
  database: Database,
  id: string,
  { label, formula, backdatedDays }: BodyOf<Contract['PUT /series/{id}']>,
  caller: Caller,
): Promise<void> {
  const fault = numberingFault(formula, Number(today().slice(0, 4)));
  if (fault !== undefined)
    throw new Problem(422, 'This formula cannot number documents', `${fault} Nothing was changed.`);
  const all = await listSeries(database);
  const before = all.find((each) => each.id === id);
  const serial = (before?.taken ?? 0) + 1;
  const wanted = documentNumber(formula, today(), serial);
  const others = all.filter((each) => each.id !== id);
  await refuseTaken(database, others, { serial, text: wanted });
  const values = { id, label, formula, backdatedDays };
  await database.transaction(async (transaction) => {
    await transaction.insert(series).values(values).onConflictDoUpdate({ target: series.id, set: values });
    const act = before ? 'series changed' : 'series added';
    const sentence = `${before ? 'Changed' : 'Set up'} the number series ${label}: the next number is ${wanted}, and documents may be issued up to ${backdatedDays} days back.`;
    await addToTrail(transaction, caller, act, { kind: 'series', id, name: label }, sentence, { before, now: values });
  });
}

/** Two series never give the same numbers: where they differ at one serial, they differ at all. @throws Problem */
async function refuseTaken(
  connection: Connection,
  others: readonly Series[],
  { serial, text }: { serial: number; text: string },
): Promise<void> {
  const alike = others.find(({ formula }) => numberOf(formula, today(), serial) === text);
  const ids = others.map(({ id }) => id);
  const [taken] = await connection
    .select({ of: numbers.seriesId })
    .from(numbers)
    .where(and(eq(numbers.text, text), inArray(numbers.seriesId, ids)))
    .limit(1);
  const whose = alike ?? others.find(({ id }) => id === taken?.of);
  if (!whose) return;
  throw new Problem(
    409,
    'Another series gives these numbers',
    `“${whose.label}” has ${text} too. Begin the numbers otherwise. Nothing was changed.`,
    { reason: 'taken' },
  );
}

/** Takes a series away that nothing was numbered by, and that no template names. @throws Problem */
export async function removeSeries(database: Database, id: string, caller: Caller): Promise<void> {
  const [row] = await database.select().from(series).where(eq(series.id, id));
  if (!row) throw new Problem(404, 'No such series', 'This number series is not here any more.');
  const [used] = await database.select({ text: numbers.text }).from(numbers).where(eq(numbers.seriesId, id)).limit(1);
  if (used)
    throw new Problem(
      409,
      'Numbers were taken from it',
      `${used.text} is one of them, and what numbered it has to stay. Nothing was changed.`,
      { reason: 'used' },
    );
  const names = await templatesNumberedBy(database, id);
  if (names.length > 0)
    throw new Problem(
      409,
      'Templates take their numbers from it',
      `Choose another series in ${names.map((name) => `“${name}”`).join(', ')} first. Nothing was changed.`,
      { reason: 'used' },
    );
  await database.transaction(async (transaction) => {
    await transaction.delete(seriesCounters).where(eq(seriesCounters.seriesId, id));
    await transaction.delete(series).where(eq(series.id, id));
    const subject = { kind: 'series' as const, id, name: row.label };
    await addToTrail(transaction, caller, 'series removed', subject, `Took the number series ${row.label} away.`);
  });
}

async function templatesNumberedBy(connection: Connection, id: string): Promise<string[]> {
  const current = connection.select({ id: templates.currentVersion }).from(templates);
  const rows = await connection
    .select({ name: templates.name, body: templateVersions.body })
    .from(templateVersions)
    .innerJoin(templates, eq(templates.id, templateVersions.templateId))
    .where(inArray(templateVersions.id, current));
  return rows.filter(({ body }) => body.plans.some((plan) => plan.series === id)).map(({ name }) => name);
}
