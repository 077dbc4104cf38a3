import { and, desc, eq, gt, lt } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Act, Deed } from '../../demo/history';
import { doneAt, now } from '../clock';
import { config } from '../config';
import type { Database } from '../db/database';
import { documents, people, productions, templateVersions } from '../db/schema';
import type { Queue } from '../jobs/queue';
import { readRules } from '../people/access';
import type { Caller } from '../people/caller';
import type { Press } from '../press/press';
import { beginFiling } from '../productions/begin';
import { advance } from '../productions/engine';
import { beginProduction, inputOf, keepProduction } from '../productions/production';
import { voidDocument } from '../productions/ways-on';
import type { WantedChoices } from '../productions/choices';
import { HISTORY, timesOf } from './times';

/** What a history is written with. */
export interface Written {
  database: Database;
  queue: Queue;
  press: Press;
}

/** For a finding that warns, where an act says nothing of its own. */
const USUAL_REASON = 'Looked at, and right as it is.';

/**
 * Has people of the demo do what their history says, by the same ways as at their screens and with the clock put back to when each act
 * was. What concerns one record is done in its order; filings begin in the order of all, so that numbers follow the days. It can be
 * ended and called again: what was done stays, and it goes on from there.
 * @throws Problem where an act cannot be done
 */
export async function writeHistory(written: Written, acts: readonly Act[], today: Date): Promise<void> {
  const callers = await callersOf(written.database);
  const filed = await written.database.select({ key: documents.key }).from(documents);
  const known = new Set(filed.map(({ key }) => key));
  let before = Promise.resolve();
  const all = timesOf(acts, today).map((timed) => {
    const turn = before;
    let isDone = (): void => undefined;
    before = new Promise((resolve) => (isDone = resolve));
    return { ...timed, turn, isDone };
  });
  if (all[0]) await publishBefore(written.database, all[0].at);
  const records = [...new Set(acts.map(({ record }) => record))];
  const follow = async (trail: typeof all): Promise<void> => {
    const last = trail.findLastIndex(({ key }) => known.has(key));
    for (const [index, { act, at, key, turn, isDone }] of trail.entries()) {
      if (index < last) {
        await turn;
        isDone();
        continue;
      }
      const caller = callers.find(({ name }) => name.startsWith(act.by));
      if (!caller) throw new Error(`Nobody of the demo is called ${act.by}.`);
      await doneAt(at, () => new Acting(written, act.record, key, caller).do(act.does, turn, isDone));
    }
  };
  await Promise.all(records.map((record) => follow(all.filter(({ act }) => act.record === record))));
}

/** What comes with Lumbix was published a day before anything was made from it. */
async function publishBefore(database: Database, first: Date): Promise<void> {
  const its = and(eq(templateVersions.origin, 'shipped'), gt(templateVersions.publishedAt, first));
  await database
    .update(templateVersions)
    .set({ publishedAt: new Date(first.getTime() - 86_400_000) })
    .where(its);
}

/** Whether nothing was filed yet, or a history was begun that has not come to its end. */
export async function isToBeWritten(database: Database, acts: readonly Act[]): Promise<boolean> {
  const [first] = await database.select({ key: documents.key }).from(documents).orderBy(documents.createdAt).limit(1);
  if (!first) return true;
  const last = timesOf(acts, new Date()).findLast(({ act }) => act.does.type === 'file')!.key;
  const [ended] = await database.select({ id: documents.id }).from(documents).where(eq(documents.key, last)).limit(1);
  return first.key?.startsWith(HISTORY) === true && !ended;
}

/** The people of the demo, who are at their screens. */
async function callersOf(database: Database): Promise<Caller[]> {
  const [rows, rules] = await Promise.all([
    database.select().from(people).where(eq(people.isDemo, true)),
    readRules(database),
  ]);
  return rows.map(({ id, name, email, roles }) => ({ id, name, email, roles, rules, via: 'page' }));
}

/** Sends what somebody typed on the page of a record in the CRM. */
async function changeInCrm({ area, id, field, to }: Extract<Deed, { type: 'change' }>): Promise<void> {
  const body = new URLSearchParams({ property: field, value: to });
  const { status } = await fetch(`${config.crm.url}/${area}/${id}/change`, {
    method: 'POST',
    body,
    redirect: 'manual',
  });
  if (status !== 303) throw new Error(`The CRM did not set ${field} of ${id}: ${status}`);
}

/** One act of a person on one record. Its key is that of the filing, so that it is done once. */
class Acting {
  constructor(
    private readonly written: Written,
    private readonly record: string,
    private readonly key: string,
    private readonly caller: Caller,
  ) {}

  /** Does it. What takes a number waits for its turn, and says when it has it. */
  async do(deed: Deed, turn: Promise<void>, isDone: () => void): Promise<void> {
    const filing = deed.type === 'file' || deed.type === 'giveUp' ? await this.#prepare(deed) : undefined;
    await turn;
    const id = await filing?.();
    isDone();
    if (deed.type === 'change') await changeInCrm(deed);
    if (deed.type === 'begin') await this.#begin(deed);
    if (deed.type === 'void') await this.#voidLast(deed.reason);
    if (deed.type === 'giveUp') await this.#giveUp(id!, deed.reason);
    if (id) await advance(this.written, id, true);
  }

  /** Makes the proof of what is filed, unless that was done before. Gives what begins to file it, and then its document. */
  async #prepare(deed: Extract<Deed, { type: 'file' | 'giveUp' }>): Promise<() => Promise<string>> {
    const its = and(eq(documents.byId, this.caller.id), eq(documents.key, this.key));
    const [before] = await this.written.database.select({ id: documents.id }).from(documents).where(its);
    if (before) return () => Promise.resolve(before.id);
    const { why = USUAL_REASON } = deed.type === 'file' ? deed : {};
    const { id, findings } = await this.#produce(deed.template, { choices: {} });
    const warnings = findings.filter(({ severity }) => severity === 'warns');
    const skips = Object.fromEntries(warnings.map((finding) => [finding.id, why]));
    return async () => (await beginFiling(this.written, { production: id, skips }, this.key, this.caller)).id;
  }

  async #begin({ template, changes }: Extract<Deed, { type: 'begin' }>): Promise<void> {
    const its = and(eq(productions.recordId, this.record), eq(productions.inHand, true));
    const [before] = await this.written.database.select({ id: productions.id }).from(productions).where(its);
    if (before) return;
    const made = changes.map((each) => ({ id: randomUUID(), ...each }));
    await this.#produce(template, { choices: {}, changes: made });
  }

  /** Begins a production, as a proof does that nobody looks at. */
  async #produce(templateId: string, chosen: WantedChoices) {
    const { database, press } = this.written;
    const begun = await beginProduction(this.written, { recordId: this.record, templateId, ...chosen }, this.caller);
    const composed = await press.compose(await inputOf(database, begun));
    await keepProduction(database, begun, composed, this.caller);
    return { id: begun.id, findings: composed.findings };
  }

  async #voidLast(reason: string): Promise<void> {
    const before = and(eq(documents.recordId, this.record), lt(documents.createdAt, now()));
    const [last] = await this.written.database
      .select()
      .from(documents)
      .where(before)
      .orderBy(desc(documents.createdAt))
      .limit(1);
    if (last?.validity === 'current') await voidDocument(this.written, last.id, reason, this.caller);
  }

  /** Has a document be void that nothing was done of yet. */
  async #giveUp(id: string, reason: string): Promise<void> {
    const [row] = await this.written.database.select().from(documents).where(eq(documents.id, id));
    if (row?.state === 'preparing' && !row.voiding) await voidDocument(this.written, id, reason, this.caller);
  }
}
