import { and, eq } from 'drizzle-orm';
import type pg from 'pg';
import type { Composition } from '../../core/production/composition';
import { freeFileName } from '../../core/production/file-name';
import { sha256 } from '../assets';
import { attach, listAttachments } from '../crm/attachments';
import { CrmError } from '../crm/client';
import type { Database } from '../db/database';
import type { DocumentState } from '../../core/contract/documents';
import { documentFiles, documents, type KeptComposition } from '../db/schema';
import type { Press } from '../press/press';
import { addEvent, tellChanged } from './events';
import { compositionInput, templateVersion } from './template';

type StoredDocument = typeof documents.$inferSelect;

export interface FilingServices {
  pool: pg.Pool;
  database: Database;
  press: Press;
}

/** A filing that cannot go on: the document fails and its number stays in the register as void. */
class Unfileable extends Error {}

/**
 * Takes a document as far along `preparing → rendered → attached → filed` as it goes. Every step can be repeated, and
 * starts from what the database says, so it may be called again after a kill at any line. One call at a time per
 * document, over all processes: a lock that goes with the connection.
 * @throws CrmError while the CRM is away: the document stays where it is, to be tried again.
 */
export async function advance(services: FilingServices, documentId: string): Promise<void> {
  const lock = await services.pool.connect();
  try {
    const { rows } = await lock.query('select pg_try_advisory_lock(hashtextextended($1, 0)) as held', [documentId]);
    if (!(rows[0] as { held: boolean }).held) return;
    try {
      await walk(services, documentId);
    } finally {
      await lock.query('select pg_advisory_unlock(hashtextextended($1, 0))', [documentId]);
    }
  } finally {
    lock.release();
  }
}

async function walk(services: FilingServices, documentId: string): Promise<void> {
  for (;;) {
    const [document] = await services.database.select().from(documents).where(eq(documents.id, documentId));
    if (!document) return;
    try {
      switch (document.state) {
        case 'preparing':
          await render(services, document);
          break;
        case 'rendered':
          await attachToRecord(services, document);
          break;
        case 'attached':
          await finish(services, document);
          break;
        case 'filed':
        case 'failed':
          return;
      }
    } catch (problem) {
      // From "attached" on a document only goes forward.
      if (document.state === 'attached' || !isFinal(problem)) {
        await wait(services, document, problem);
        throw problem;
      }
      await fail(services, document, problem);
      return;
    }
  }
}

/** preparing → rendered: the bytes and their hash are stored. */
async function render({ database, press }: FilingServices, document: StoredDocument): Promise<void> {
  const published = await templateVersion(database, document.templateVersionId);
  const { issueDate, edition, plan, number, serial } = document;
  const circumstances = { issueDate, edition, plan, number: { serial, text: number } };
  // As it stood when the filing began: what is filed meanwhile does not count.
  const input = await compositionInput(database, published, document.snapshot, circumstances, document.createdAt);
  const { composition, workings, pdf } = await press.print(input).catch((problem: unknown) => {
    log(document, problem);
    throw new Unfileable('The page could not be set; the log says more.');
  });
  if (!pdf || !workings)
    throw new Unfileable(composition.findings.find(({ severity }) => severity === 'stops')!.sentence);
  const taken = (await listAttachments(document.recordId)).map(({ name }) => name);
  const kept = keptComposition(composition);
  await database.transaction(async (transaction) => {
    const bytes = Buffer.from(pdf);
    await transaction
      .insert(documentFiles)
      .values({ documentId: document.id, mediaType: 'application/pdf', sha256: sha256(bytes), bytes })
      .onConflictDoNothing();
    const fileName = freeFileName(composition.fileName, taken);
    await move(transaction, document, 'rendered', {
      composition: { ...kept, workings },
      title: composition.title,
      fileName,
    });
    await addEvent(transaction, document.id, 'rendered', `The PDF was set on ${pages(bytes)}.`);
  });
}

/** A composition as it is kept: without pictures, which are in the PDF, and without the password that opens it. */
function keptComposition({ assets: _assets, output, ...kept }: Composition): Omit<KeptComposition, 'workings'> {
  const { password: _password, ...protection } = output.protection ?? {};
  return {
    ...kept,
    output: output.protection ? { ...output, protection: protection as typeof output.protection } : output,
  };
}

/** rendered → attached: the CRM has confirmed that it holds the file. */
async function attachToRecord({ database }: FilingServices, document: StoredDocument): Promise<void> {
  const [file] = await database.select().from(documentFiles).where(eq(documentFiles.documentId, document.id));
  if (!file || sha256(file.bytes) !== file.sha256) throw new Unfileable('The stored PDF is not what was rendered.');
  const { recordId, id, fileName, createdAt } = document;
  const present = (await listAttachments(recordId)).find(
    (each) => each.name === fileName && each.sha256 === file.sha256,
  );
  const attachment = present ?? (await attach(recordId, id, fileName, file.bytes, createdAt));
  // Nothing is void while a file of it is on the record.
  if (attachment.sha256 !== file.sha256)
    throw new CrmError('away', 'The CRM holds another file under this document’s name. Look at the record in the CRM.');
  await database.transaction(async (transaction) => {
    await move(transaction, document, 'attached', { attachmentId: attachment.id });
    await addEvent(transaction, document.id, 'attached', `“${attachment.name}” is on the deal in the CRM.`);
  });
}

/** attached → filed: the register entry is final. */
async function finish({ database }: FilingServices, document: StoredDocument): Promise<void> {
  await database.transaction(async (transaction) => {
    await move(transaction, document, 'filed', { filedAt: new Date() });
    await addEvent(transaction, document.id, 'filed', 'Filed.');
  });
}

/** Whether a filing ends by this: it cannot be composed, or the CRM refuses this very request. Everything else passes. */
const isFinal = (problem: unknown): problem is Unfileable | CrmError =>
  problem instanceof Unfileable ||
  (problem instanceof CrmError && (problem.failure === 'refused' || problem.failure === 'missing'));

/** The document stays where it is, says why, and is tried again. */
async function wait({ database }: FilingServices, document: StoredDocument, problem: unknown): Promise<void> {
  const isKnown = problem instanceof CrmError;
  if (!isKnown) log(document, problem);
  const reason = isKnown ? problem.message : 'Something that passes is in the way; the log says more.';
  await database.update(documents).set({ reason }).where(eq(documents.id, document.id));
  await tellChanged(database, document.id);
}

function log(document: StoredDocument, problem: unknown): void {
  process.stderr.write(`Filing ${document.number}: ${problem instanceof Error ? problem.stack : String(problem)}\n`);
}

async function fail({ database }: FilingServices, document: StoredDocument, problem: Error): Promise<void> {
  const reason = problem.message;
  await database.transaction(async (transaction) => {
    await move(transaction, document, 'failed', { reason });
    await addEvent(transaction, document.id, 'failed', `Number ${document.number} is void: ${reason}`);
  });
}

/** Moves a document on from the state it was read in. */
async function move(
  connection: Pick<Database, 'update'>,
  document: StoredDocument,
  state: DocumentState,
  changes: Partial<StoredDocument>,
): Promise<void> {
  const moved = await connection
    .update(documents)
    .set({ reason: null, ...changes, state })
    .where(and(eq(documents.id, document.id), eq(documents.state, document.state)))
    .returning({ id: documents.id });
  if (moved.length !== 1) throw new Error(`The document ${document.number} was moved by somebody else.`);
}

function pages(pdf: Buffer): string {
  const count = pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)?.length ?? 0;
  return count === 1 ? 'one page' : `${count} pages`;
}
