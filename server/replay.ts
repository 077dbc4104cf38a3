import { and, desc, eq } from 'drizzle-orm';
import type { Contract } from '../core/contract/contract';
import type { BodyOf } from '../core/contract/endpoint';
import { outcomeChanges } from '../core/production/replay';
import type { OutcomeChange } from '../core/production/replay-groups';
import { unreadPaths } from '../core/record/unread';
import { readsOf } from '../core/template/reads';
import type { Pins, Template } from '../core/template/template';
import type { Connection, Database } from './db/database';
import { documents, numbers, productions, templateVersions } from './db/schema';
import { openDraft, refuseUnseenTemplate } from './drafts';
import { refuseUnseenRecord } from './people/access';
import type { Caller } from './people/caller';
import type { CompositionInput } from './press/press';
import { Problem } from './problem';
import { productionInput, type Production } from './productions/production';
import { compositionInput } from './productions/template';
import { pinsFor } from './publish';
import { recordSchema } from './records/record-schema';
import type { Services } from './services';

/** How many documents a draft is replayed over. */
const MOST = 50;

/** A production that a document was filed from, with the document's number. */
type Filed = Production & { number: { serial: number; text: string } };

/** The last documents that were filed from a template. @throws Problem, SourceError */
export async function documentsToReplay(services: Services, templateId: string, caller: Caller) {
  await openDraft(services, templateId, caller);
  return services.database
    .select({
      id: documents.id,
      number: documents.number,
      recordName: documents.recordName,
      versionId: templateVersions.id,
      version: templateVersions.version,
    })
    .from(documents)
    .innerJoin(productions, eq(productions.id, documents.productionId))
    .innerJoin(templateVersions, eq(templateVersions.id, productions.templateVersionId))
    .where(and(eq(documents.templateId, templateId), eq(documents.state, 'filed')))
    .orderBy(desc(documents.filedAt))
    .limit(MOST);
}

/** What would have come out otherwise of a filed document, had a draft been in use. @throws Problem, SourceError */
export async function replayDocument(
  { database, press }: Services,
  templateId: string,
  { template, document }: BodyOf<Contract['POST /templates/{id}/draft/replay']>,
  caller: Caller,
): Promise<{ changes: OutcomeChange[]; unread: string[] }> {
  await refuseUnseenTemplate(database, templateId, template, caller);
  const filed = await filedFrom(database, templateId, document, caller);
  const pins = await pinsFor(database, template, 'The draft was not replayed');
  const unread = unreadPaths(readsOf(template, pins, await recordSchema()), filed.snapshot);
  const [before, after] = await Promise.all([
    press.outcome(await productionInput(database, filed, filed.number)),
    press.outcome(await replayInput(database, { template, pins }, filed)),
  ]);
  return { changes: outcomeChanges(before, after), unread };
}

/** What a draft would be composed from over the data that was kept with a document. */
export function replayInput(
  connection: Connection,
  draft: { template: Template; pins: Pins },
  { snapshot, choices, issueDate, number, at }: Filed,
  chosen: { edition?: string; houseStyle?: string } = {},
): Promise<CompositionInput> {
  const has = (all: readonly { id: string }[], id: string | undefined) => all.some((each) => each.id === id);
  const { plan, edition, houseStyle } = choices;
  // What the draft does not have any more is left to it.
  const kept = {
    ...(has(draft.template.plans, plan) && { plan }),
    ...(has(draft.template.editions, edition) && { edition }),
    ...(has(draft.pins.houseStyles, houseStyle) && { houseStyle }),
  };
  return compositionInput(connection, draft, snapshot, { ...kept, ...chosen, issueDate, number }, at);
}

/** What a document was filed from. @throws Problem for one that is not of the template */
export async function filedFrom(
  database: Database,
  templateId: string,
  documentId: string,
  caller: Caller,
): Promise<Filed> {
  const [row] = await database
    .select({ production: productions, text: documents.number, serial: numbers.serial })
    .from(documents)
    .innerJoin(productions, eq(productions.id, documents.productionId))
    .leftJoin(numbers, eq(numbers.id, documents.numberId))
    .where(and(eq(documents.id, documentId), eq(documents.templateId, templateId), eq(documents.state, 'filed')));
  if (!row) throw new Problem(404, 'No such document', 'The template has no filed document of that name.');
  refuseUnseenRecord(caller, row.production.recordType);
  return { ...row.production, number: { serial: row.serial ?? 0, text: row.text } };
}
