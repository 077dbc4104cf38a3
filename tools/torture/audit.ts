import { createHash } from 'node:crypto';
import type { Accepted } from './caller';
import type { Lumbix } from './lumbix';

interface DocumentRow {
  id: string;
  key: string;
  state: string;
  number: string;
  record_id: string;
  file_name: string;
  sha256: string | null;
  bytes: Buffer | null;
  reason: string | null;
}

interface AttachmentRow {
  record_id: string;
  name: string;
  sha256: string;
}

interface StepRow {
  id: string;
  kind: string;
  state: string;
  reason: string | null;
  done_at: Date | null;
}

/** Each step after filing was done once, in order: the CRM's fields and activities and the storage's files agree with the register. */
async function wrongSteps(lumbix: Lumbix, documents: readonly DocumentRow[]): Promise<string[]> {
  const wrong: string[] = [];
  const steps = await lumbix.ask<StepRow>(
    'lumbix',
    'select document_id id, kind, state, reason, done_at from steps where plan_step is not null order by document_id, position',
  );
  const activities = await lumbix.ask<{ deal: string; subject: string }>(
    'crm',
    "select body ->> 'deal_id' deal, body ->> 'subject' subject from records where set = 'Activities'",
  );
  for (const { id, number, record_id, sha256 } of documents) {
    const own = steps.filter((each) => each.id === id);
    for (const { kind, state, reason } of own)
      if (state !== 'done') wrong.push(`The step ${kind} of ${number} is ${state}: ${reason ?? 'without a reason'}`);
    const times = own.map(({ done_at }) => done_at?.getTime() ?? 0);
    if (times.some((time, at) => at > 0 && time < times[at - 1]!))
      wrong.push(`The steps of ${number} are out of order.`);
    const written = activities.filter(({ deal, subject }) => deal === record_id && subject === number).length;
    if (written !== 1) wrong.push(`The activity of ${number} was written ${written} times.`);
    const copy = lumbix.copyOf(`Quotes/${number}.pdf`);
    if (!copy) wrong.push(`There is no copy of ${number}.`);
    else if (createHash('sha256').update(copy).digest('hex') !== sha256)
      wrong.push(`The copy of ${number} is another.`);
  }
  if (activities.length !== documents.length)
    wrong.push(`There are ${activities.length} activities for ${documents.length} documents.`);
  const copies = lumbix.copiesIn('Quotes').length;
  if (copies !== documents.length) wrong.push(`There are ${copies} copies of ${documents.length} documents.`);
  // Each change of a deal makes its next version, so what was set twice would be seen.
  const deals = await lumbix.ask<{ id: string; version: number; link: string | null }>(
    'crm',
    "select id, version, body ->> 'document_link' link from records where set = 'Deals'",
  );
  for (const { id, version, link } of deals) {
    const own = documents.filter(({ record_id }) => record_id === id);
    if (version !== own.length + 1) wrong.push(`${id} was changed ${version - 1} times for ${own.length} documents.`);
    if (own.length > 0 && !own.some(({ number }) => number === link)) wrong.push(`${id} names “${link}”.`);
  }
  return wrong;
}

/** Everything that must hold after all that was accepted has come to its end; each sentence is something that does not. */
export async function audit(lumbix: Lumbix, accepted: readonly Accepted[]): Promise<string[]> {
  const wrong: string[] = [];
  const documents = await lumbix.ask<DocumentRow>(
    'lumbix',
    `select d.id, d.key, d.state, d.number, d.record_id, d.file_name, f.sha256, f.bytes,
       (select reason from steps where document_id = d.id and state <> 'done' and reason is not null limit 1) reason
     from documents d left join files f on f.document_id = d.id`,
  );
  const attachments = await lumbix.ask<AttachmentRow>(
    'crm',
    `select record_id, name, sha256 from attachments
     union all select a.record_id, r.name, r.sha256 from attachment_revisions r join attachments a on a.id = r.attachment_id`,
  );
  const byKey = new Map(documents.map((each) => [each.key, each]));

  if (documents.length !== byKey.size) wrong.push('One key stands for two documents.');
  for (const { key, id, deal } of accepted) {
    const document = byKey.get(key);
    if (!document) wrong.push(`The filing ${key} was accepted and is not in the register.`);
    else if (document.id !== id || document.record_id !== deal) wrong.push(`The filing ${key} is another document.`);
  }
  const known = new Set(accepted.map(({ key }) => key));
  for (const { key, number } of documents)
    if (!known.has(key)) wrong.push(`${number} is in the register, and nobody was told that it was accepted.`);

  for (const { number, state, reason, record_id, file_name, sha256, bytes } of documents) {
    if (state !== 'filed') wrong.push(`${number} is ${state}: ${reason ?? 'without a reason'}`);
    const there = attachments.filter((each) => each.record_id === record_id && each.name === file_name);
    if (there.length !== 1) wrong.push(`${number} is ${there.length} times on its deal.`);
    if (there.some((each) => each.sha256 !== sha256)) wrong.push(`${number} is on its deal with another hash.`);
    if (bytes && createHash('sha256').update(bytes).digest('hex') !== sha256)
      wrong.push(`The kept file of ${number} does not have its hash.`);
  }
  if (attachments.length !== documents.length)
    wrong.push(`There are ${attachments.length} files on deals for ${documents.length} documents.`);

  const serials = await lumbix.ask<{ serial: number; state: string }>(
    'lumbix',
    'select serial, state from numbers order by series_id, period, serial',
  );
  serials.forEach(({ serial, state }, at) => {
    if (serial !== at + 1) wrong.push(`The serial ${at + 1} is missing or there twice.`);
    if (state !== 'taken') wrong.push(`The serial ${serial} is ${state}.`);
  });
  wrong.push(...(await wrongSteps(lumbix, documents)));
  for (const part of ['web', 'worker'] as const)
    if (lumbix.log(part).includes('timeout exceeded when trying to connect'))
      wrong.push(`The connections of the ${part} process ran out.`);
  return wrong;
}
