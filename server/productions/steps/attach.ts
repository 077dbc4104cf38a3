import { and, eq } from 'drizzle-orm';
import { calledByType } from '../../../core/record/schema';
import { now } from '../../clock';
import { sha256 } from '../../assets';
import { recordSchema } from '../../records/record-schema';
import { SourceError, type RecordFile } from '../../records/source';
import { crm } from '../../records/sources';
import type { Connection } from '../../db/database';
import { files } from '../../db/schema';
import { supersede } from '../revisions';
import { recordOf, Unfileable, type Filing, type StepKind } from './step';

/** Puts the PDF on the record exactly once, which files the document. */
export const attach: StepKind = {
  reachesOut: true,
  async run(filing, { database }) {
    const { document } = filing;
    const file = await keptFile(database, document.id);
    if (!file || sha256(file.bytes) !== file.sha256) throw new Unfileable('The stored PDF is not what was rendered.');
    const present = await fileOnRecord(filing, file.sha256);
    const { id, fileName: name, createdAt: firstSent } = document;
    const revises = document.revises ? await attachmentOf(database, document.revises) : undefined;
    const repeat = { id, firstSent };
    const sent = { name, bytes: file.bytes, mediaType: 'application/pdf', repeat, revises };
    const attachment = present ?? (await crm.attach(recordOf(document), sent));
    // Nothing is void while a file of it is on the record.
    if (attachment.sha256 !== file.sha256)
      throw new SourceError(
        'away',
        'The CRM holds another file under this document’s name. Look at the record in the CRM.',
      );
    const called = calledByType(await recordSchema(), document.recordType);
    return {
      changes: { state: 'filed', filedAt: now() },
      answer: { attachment: attachment.id },
      told: [
        {
          kind: 'attached',
          sentence: `“${attachment.name}” is on the ${called} in the CRM${attachment.id === revises ? ', as the next revision of the file before it' : ''}.`,
        },
        { kind: 'filed', sentence: 'Filed.' },
      ],
      async write(transaction) {
        const its = and(eq(files.documentId, id), eq(files.format, 'pdf'));
        await transaction.update(files).set({ attachmentId: attachment.id }).where(its);
        await supersede(transaction, document);
      },
    };
  },
};

/** The PDF that was set for a document; undefined before it was. */
export async function keptFile(connection: Connection, documentId: string) {
  const [file] = await connection
    .select({ sha256: files.sha256, bytes: files.bytes })
    .from(files)
    .where(and(eq(files.documentId, documentId), eq(files.format, 'pdf')));
  return file;
}

/** The id of a document's file on its record; undefined before it is there. */
async function attachmentOf(connection: Connection, documentId: string): Promise<string | undefined> {
  const its = and(eq(files.documentId, documentId), eq(files.format, 'pdf'));
  const [file] = await connection.select({ id: files.attachmentId }).from(files).where(its);
  return file?.id ?? undefined;
}

/** The document's file on its record, if it is there already. @throws SourceError */
export async function fileOnRecord({ document }: Filing, hash: string): Promise<RecordFile | undefined> {
  const present = await crm.files(recordOf(document));
  return present.find(({ name, sha256: of }) => name === document.fileName && of === hash);
}
