import { DOCUMENT_KINDS } from '../../core/template/document-kinds';
import { own } from '../../core/record/own';
import { rulesFor, whyNotRoles, type Role } from '../../core/contract/permissions';
import type { Connection } from '../db/database';
import { accessRules } from '../db/schema';
import { Problem } from '../problem';
import type { Caller } from './caller';

/** Who sees and who acts, by roles of which one is enough; empty lets in whoever may otherwise. */
interface AccessRule {
  see: readonly Role[];
  act: readonly Role[];
}

/** The rules for kinds of documents and types of records. */
export interface AccessRules {
  kinds: Readonly<Record<string, AccessRule>>;
  records: Readonly<Record<string, AccessRule>>;
}

/** What asks for money, and what takes it back. */
const OF_FINANCE: readonly string[] = ['invoice', 'credit note', 'receipt'];

/** What holds where nobody said otherwise. */
export const usualRules: AccessRules = {
  kinds: Object.fromEntries(
    DOCUMENT_KINDS.map((kind) => [kind, { see: [], act: [OF_FINANCE.includes(kind) ? 'finance' : 'producer'] }]),
  ),
  records: {},
};

/** The rules as they are now. */
export async function readRules(connection: Connection): Promise<AccessRules> {
  const rows = await connection.select().from(accessRules);
  const of = (prefix: string) =>
    Object.fromEntries(
      rows.flatMap(({ subject, see, act }) =>
        subject.startsWith(prefix) ? [[subject.slice(prefix.length), { see, act }]] : [],
      ),
    );
  return { kinds: { ...usualRules.kinds, ...of('kind:') }, records: { ...usualRules.records, ...of('record:') } };
}

/** Writes rules down; what is not named keeps the rule it has. */
export async function writeRules(connection: Connection, { kinds, records }: AccessRules): Promise<void> {
  const rows = [
    ...Object.entries(kinds).map(([name, rule]) => ({ subject: `kind:${name}`, ...mutable(rule) })),
    ...Object.entries(records).map(([name, rule]) => ({ subject: `record:${name}`, ...mutable(rule) })),
  ];
  for (const row of rows)
    await connection.insert(accessRules).values(row).onConflictDoUpdate({ target: accessRules.subject, set: row });
}

const mutable = ({ see, act }: AccessRule) => ({ see: [...see], act: [...act] });

/** Whether a caller is let in by a list of roles; an empty list lets everybody in. */
const letsIn = (wanted: readonly Role[], roles: readonly Role[]) =>
  wanted.length === 0 || wanted.some((role) => roles.includes(role));

const kindRule = ({ rules: { kinds } }: Caller, kind: string): AccessRule => own(kinds, kind) ?? { see: [], act: [] };
const recordRules = ({ rules: { records } }: Caller, type: string): readonly AccessRule[] => rulesFor(records, type);

/** Whether a caller sees documents of a kind. */
export const seesKind = (caller: Caller, kind: string): boolean => letsIn(kindRule(caller, kind).see, caller.roles);

/** The kinds whose documents a caller may not see. */
export const hiddenKinds = (caller: Caller): string[] =>
  Object.keys(caller.rules.kinds).filter((kind) => !seesKind(caller, kind));

/** Whether a caller sees records of a type. */
export const seesType = (caller: Caller, type: string): boolean =>
  recordRules(caller, type).every(({ see }) => letsIn(see, caller.roles));

/** The types whose records a caller sees, where they do not see all of them. */
export function onlyTypes(caller: Caller): string[] | undefined {
  const named = Object.keys(caller.rules.records);
  const seen = named.filter((type) => seesType(caller, type));
  return seen.length === named.length ? undefined : seen;
}

/** Refuses a kind of documents that the caller may not see. @throws Problem */
export function refuseUnseenKind(caller: Caller, kind: string): void {
  refuse(kindRule(caller, kind).see, `look at documents of the kind “${kind}”`, caller);
}

/** Refuses a kind of documents that the caller may not file. @throws Problem */
export function refuseUnfiledKind(caller: Caller, kind: string): void {
  const { see, act } = kindRule(caller, kind);
  refuse(see, `look at documents of the kind “${kind}”`, caller);
  refuse(act, `file documents of the kind “${kind}”`, caller);
}

/** Refuses a type of records that the caller may not see. @throws Problem */
export function refuseUnseenRecord(caller: Caller, type: string): void {
  for (const { see } of recordRules(caller, type)) refuse(see, `look at records of the type “${type}”`, caller);
}

/** Refuses a type of records that the caller may not change. @throws Problem */
export function refuseUnchangedRecord(caller: Caller, type: string): void {
  refuseUnseenRecord(caller, type);
  for (const { act } of recordRules(caller, type)) refuse(act, `change records of the type “${type}”`, caller);
}

function refuse(wanted: readonly Role[], to: string, { roles }: Caller): void {
  const reason = wanted.length === 0 ? undefined : whyNotRoles(wanted, to, roles);
  if (reason) throw forbidden(reason);
}

/** What someone may not do, with the reason. */
export const forbidden = (reason: string): Problem =>
  new Problem(403, 'Your roles do not allow this', `${reason} Nothing was changed.`, { reason: 'roles' });
