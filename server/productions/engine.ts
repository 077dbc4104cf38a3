import { and, asc, eq, inArray, isNull, ne } from 'drizzle-orm';
import type { StepState } from '../../core/contract/documents';
import type { ComposedStep } from '../../core/production/plan-steps';
import { now } from '../clock';
import { SourceError } from '../records/source';
import type { Connection } from '../db/database';
import { documents, numbers, productions, steps } from '../db/schema';
import type { Queue } from '../jobs/queue';
import { log, withoutData } from '../log';
import { PastBounds } from '../press/bounds';
import { isOutsize } from '../press/outsize';
import { noteQuoted } from '../records/record-index';
import { addEvent, tellChanged } from './events';
import { voidNumber } from './numbers';
import { PlaceError } from '../copies/place';
import { attach, fileOnRecord, keptFile } from './steps/attach';
import { pauseAfter, QUIET } from './steps/pause';
import { activity, address, copy, setFields } from './steps/plan-steps';
import { render } from './steps/render';
import { recordOf, Unfileable, type Filing, type Finished, type StepKind, type StepServices } from './steps/step';

/** The steps that come after a document has its number. */
const KINDS = { render, attach, setFields, activity, copy, address } as const satisfies Readonly<
  Record<string, StepKind>
>;

type EngineServices = StepServices & { queue: Queue };

/**
 * Writes down what will happen to a document that is written in the same transaction: it is filed, then its plan's steps are done. Its
 * number it has already.
 */
export async function openSteps(
  transaction: Connection,
  documentId: string,
  number: string,
  planned: readonly ComposedStep[],
): Promise<void> {
  const at = now();
  const taken = { state: 'done' as const, attempts: 1, answer: { number }, triedAt: at, doneAt: at };
  await transaction.insert(steps).values([
    { documentId, position: 0, kind: 'number', ...taken },
    { documentId, position: 1, kind: 'render', state: 'open' },
    { documentId, position: 2, kind: 'attach', state: 'open' },
    ...planned.map((step, at) => ({
      documentId,
      position: 3 + at,
      kind: step.type,
      planStep: step.id,
      state: 'skipped' in step ? ('skipped' as const) : ('open' as const),
    })),
  ]);
}

/**
 * Takes a document through its steps, from the first that is not done, until all are, or it has failed, waits or is held. It starts from what
 * the database says, so it may be called again after a kill at any line, and twice at once: a step that is under way is left to the
 * call that began it. `isRetry`: the call stands in for one that never ended, and takes up the step that was under way.
 */
export async function advance(services: EngineServices, documentId: string, isRetry = false): Promise<void> {
  for (;;) {
    const filing = await beginStep(services, documentId, isRetry);
    if (!filing) return;
    try {
      if (filing.document.voiding && !isFiled(filing)) return await voidUnlessOnRecord(services, filing);
      const finished = await kindOf(filing).run(filing, services);
      if (!(await finish(services, filing, finished))) return;
    } catch (problem) {
      return setBack(services, filing, problem);
    }
  }
}

/** Whether it is filed already: then nothing takes that back, and what fails is held for a person. */
const isFiled = ({ document }: Filing): boolean => document.state === 'filed';

const kindOf = ({ step }: Filing): StepKind => KINDS[step.kind as keyof typeof KINDS];

/** Marks the first open step as begun; undefined where there is none, or where it waits until later or is under way elsewhere. */
async function beginStep(
  { database }: EngineServices,
  documentId: string,
  isRetry: boolean,
): Promise<Filing | undefined> {
  const [first] = await database
    .select({ step: steps, document: documents, production: productions, number: numbers })
    .from(steps)
    .innerJoin(documents, eq(documents.id, steps.documentId))
    .innerJoin(productions, eq(productions.id, documents.productionId))
    .innerJoin(numbers, eq(numbers.id, documents.numberId))
    .where(and(eq(steps.documentId, documentId), inArray(steps.state, NOT_DONE), ne(documents.state, 'failed')))
    .orderBy(asc(steps.position))
    .limit(1);
  if (!first || first.step.state === 'held') return undefined;
  if (first.step.dueAt && first.step.dueAt.getTime() > Date.now() + EARLY) return undefined;
  const isUnderWay = first.step.attempts > 0 && first.step.dueAt === null;
  if (isUnderWay && !isRetry) return undefined;
  const begun = await changeStep(database, first, {
    attempts: first.step.attempts + 1,
    triedAt: now(),
    dueAt: null,
    // What was under way broke off with its process.
    ...(isUnderWay && kindOf(first).reachesOut && { unclearAt: first.step.triedAt }),
  });
  return begun && { ...first, step: begun };
}

/** Later steps wait for one that is held, too. */
const NOT_DONE = ['open', 'held'] as const satisfies readonly StepState[];

/** Clocks of machines and of the database differ by so many milliseconds. */
const EARLY = 1_000;

/** Changes a step that is as it was read; undefined where somebody else was faster. */
async function changeStep(
  connection: Connection,
  { step: { documentId, position, attempts, dueAt } }: Filing,
  change: Partial<Filing['step']>,
): Promise<Filing['step'] | undefined> {
  const asRead = and(
    eq(steps.documentId, documentId),
    eq(steps.position, position),
    eq(steps.state, 'open'),
    eq(steps.attempts, attempts),
    dueAt === null ? isNull(steps.dueAt) : eq(steps.dueAt, dueAt),
  );
  const [changed] = await connection.update(steps).set(change).where(asRead).returning();
  return changed;
}

/** Writes down what a step came to; false where somebody else did so before. */
async function finish({ database }: EngineServices, filing: Filing, finished: Finished): Promise<boolean> {
  const { id } = filing.document;
  return database.transaction(async (transaction) => {
    const done = { state: 'done' as const, reason: null, answer: finished.answer, doneAt: now() };
    if (!(await changeStep(transaction, filing, done))) return false;
    await finished.write?.(transaction);
    if (finished.changes) await transaction.update(documents).set(finished.changes).where(eq(documents.id, id));
    for (const { kind, sentence } of finished.told) await addEvent(transaction, id, kind, sentence);
    await tellChanged(transaction, id);
    return true;
  });
}

/** Ends a document that can never be filed, holds a filed one whose step was refused; lets every other wait. */
async function setBack(services: EngineServices, filing: Filing, problem: unknown): Promise<void> {
  const known = [SourceError, PlaceError, Unfileable, PastBounds].some((kind) => problem instanceof kind);
  if (!known) log.error({ document: filing.document.id, ...withoutData(problem) }, 'A step did not go well.');
  const reason = known ? (problem as Error).message : 'Something that passes is in the way; the log says more.';
  const isRefused =
    problem instanceof Unfileable ||
    // What takes so much memory once takes it again; what takes long may have had a slow machine.
    (problem instanceof PastBounds && problem.what === 'memory') ||
    (problem instanceof PlaceError && problem.failure === 'refused') ||
    (problem instanceof SourceError && (problem.failure === 'refused' || problem.failure === 'missing'));
  if (isRefused && isFiled(filing)) return hold(services, filing, reason);
  // Nothing ends while an earlier attempt may still put the file on the record.
  const quiet = quietFrom(filing);
  if (isRefused && quiet <= Date.now()) return end(services, filing, reason);
  const pause = pauseAfter(filing.step.attempts, problem instanceof SourceError ? problem.again : undefined);
  const until = isRefused ? quiet : Date.now() + pause;
  const wasSent = !isRefused && !filing.document.voiding && kindOf(filing).reachesOut;
  const unclearAt = wasSent ? filing.step.triedAt : filing.step.unclearAt;
  await wait(services, filing, { reason, unclearAt, dueAt: new Date(until) });
}

/** From when on nothing that was sent before can still arrive. */
const quietFrom = ({ step: { unclearAt } }: Filing): number => (unclearAt ? unclearAt.getTime() + QUIET : 0);

/** The document stays where it is, says why and when it is tried next. */
async function wait(
  { database, queue }: EngineServices,
  filing: Filing,
  change: { reason: string | null; unclearAt: Date | null; dueAt: Date },
): Promise<void> {
  await database.transaction(async (transaction) => {
    if (!(await changeStep(transaction, filing, change))) return;
    await queue.enqueue(transaction, filing.document.id, {
      notBefore: change.dueAt,
      isLong: isOutsize(filing.production.snapshot),
    });
    await tellChanged(transaction, filing.document.id);
  });
}

/** A step after filing was refused: it is tried again, or let go, when a person says so. */
async function hold({ database }: EngineServices, filing: Filing, reason: string): Promise<void> {
  const { id } = filing.document;
  await database.transaction(async (transaction) => {
    if (!(await changeStep(transaction, filing, { state: 'held', reason, dueAt: null }))) return;
    await addEvent(transaction, id, 'held', `A step after filing is held: ${reason}`);
    await tellChanged(transaction, id);
  });
}

/** The document is void, with its number. */
async function end({ database }: EngineServices, filing: Filing, reason: string, by?: string): Promise<void> {
  const { id } = filing.document;
  await database.transaction(async (transaction) => {
    if (!(await changeStep(transaction, filing, { state: 'ended', reason, doneAt: now() }))) return;
    await transaction.update(documents).set({ state: 'failed' }).where(eq(documents.id, id));
    await transaction
      .update(steps)
      .set({ state: 'ended' })
      .where(and(eq(steps.documentId, id), eq(steps.state, 'open')));
    // A later revision that was never filed leaves the number to those before it.
    if (filing.document.revision === 0) await voidNumber(transaction, filing.number.id);
    await noteQuoted(transaction, recordOf(filing.document));
    await addEvent(transaction, id, 'failed', `${filing.document.number} is void: ${reason}`, by);
    await tellChanged(transaction, id);
  });
}

/** Does what a person asked for: voids the document, unless its file is on the record. Then it is filed. */
async function voidUnlessOnRecord(services: EngineServices, filing: Filing): Promise<void> {
  const { document } = filing;
  const quiet = quietFrom(filing);
  if (quiet > Date.now()) {
    const { reason, unclearAt } = filing.step;
    return wait(services, filing, { reason, unclearAt, dueAt: new Date(quiet) });
  }
  const file = await keptFile(services.database, document.id);
  if (file && (await fileOnRecord(filing, file.sha256))) {
    await services.database.update(documents).set({ voiding: null }).where(eq(documents.id, document.id));
    await finish(services, filing, await kindOf(filing).run(filing, services));
    return;
  }
  const { reason, by } = document.voiding!;
  await end(services, filing, reason, by);
}
