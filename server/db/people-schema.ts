import { now } from '../clock';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Role } from '../../core/contract/permissions';

const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });
const roles = () => text('roles').array().$type<Role[]>().notNull();

/** Everybody who may sign in, or could once. Nobody is deleted: what they did keeps its name. */
export const people = pgTable(
  'people',
  {
    id: uuid('id').primaryKey(),
    name: text('name').notNull(),
    /** What they sign in with, in lower case. */
    email: text('email').notNull(),
    roles: roles(),
    /** argon2id in the PHC string format; absent for those of the demo, and until an invitation is accepted. */
    passwordHash: text('password_hash'),
    /** The secret of one-time codes (RFC 6238), sealed; it counts once it was confirmed by a code. */
    codeSecret: text('code_secret'),
    codesSince: at('codes_since'),
    /** The time step of the code that was used last: no code works twice. */
    lastCodeStep: integer('last_code_step'),
    /** SHA-256 of recovery codes that were not used yet. */
    recoveryCodes: text('recovery_codes').array().notNull().default([]),
    /** Of the demo: signs in with a click. */
    isDemo: boolean('is_demo').notNull().default(false),
    createdAt: at('created_at').notNull().defaultNow(),
    withdrawnAt: at('withdrawn_at'),
  },
  (table) => [uniqueIndex('people_email').on(table.email)],
);

/** Browsers that are signed in. The cookie holds a random token, of which the hash is here. */
export const sessions = pgTable(
  'sessions',
  {
    id: uuid('id').primaryKey(),
    tokenHash: text('token_hash').notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    /** The browser and address it began at, as they said themselves. */
    agent: text('agent').notNull(),
    address: text('address').notNull(),
    createdAt: at('created_at').notNull().defaultNow(),
    seenAt: at('seen_at').notNull().defaultNow(),
    endedAt: at('ended_at'),
  },
  (table) => [
    uniqueIndex('sessions_token').on(table.tokenHash),
    index('sessions_person')
      .on(table.personId)
      .where(sql`${table.endedAt} is null`),
  ],
);

/** One-time links: to join, or to choose a new password. */
export const invitations = pgTable(
  'invitations',
  {
    id: uuid('id').primaryKey(),
    tokenHash: text('token_hash').notNull(),
    /** Whom it is for: a person who is there already chooses a new password with it. */
    personId: uuid('person_id').references(() => people.id),
    name: text('name').notNull(),
    email: text('email').notNull(),
    roles: roles(),
    invitedBy: text('invited_by').notNull(),
    createdAt: at('created_at').notNull().defaultNow(),
    expiresAt: at('expires_at').notNull(),
    usedAt: at('used_at'),
    withdrawnAt: at('withdrawn_at'),
  },
  (table) => [uniqueIndex('invitations_token').on(table.tokenHash)],
);

/** What programs bring instead of a session. The token itself is shown once and kept nowhere. */
export const apiTokens = pgTable(
  'api_tokens',
  {
    id: uuid('id').primaryKey(),
    tokenHash: text('token_hash').notNull(),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    name: text('name').notNull(),
    /** It may do what these roles may, as far as its person still has them. */
    roles: roles(),
    createdAt: at('created_at').notNull().defaultNow(),
    expiresAt: at('expires_at').notNull(),
    lastUsedAt: at('last_used_at'),
    withdrawnAt: at('withdrawn_at'),
  },
  (table) => [uniqueIndex('api_tokens_token').on(table.tokenHash), index('api_tokens_person').on(table.personId)],
);

/** Counts of guesses by name and address, as the rate limiter keeps them. */
export const guesses = pgTable('guesses', {
  key: text('key').primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

/** Kinds of documents and types of records that only some roles see or act on; what is not here has the usual rule. */
export const accessRules = pgTable('access_rules', {
  /** `kind:invoice`, or `record:` and a type of records */
  subject: text('subject').primaryKey(),
  see: text('see').array().$type<Role[]>().notNull(),
  act: text('act').array().$type<Role[]>().notNull(),
});

/** Outside services with what they are called by. Secrets are sealed. */
export const connections = pgTable('connections', {
  id: text('id').primaryKey(),
  url: text('url').notNull(),
  clientId: text('client_id').notNull(),
  sealedSecret: text('sealed_secret').notNull(),
  /** Set by the start command, or by a person in Setup, whose word stands. */
  origin: text('origin').$type<'start' | 'person'>().notNull(),
  changedAt: at('changed_at').notNull().defaultNow(),
});

/** The audit trail: who did what, when, to which. The database itself refuses to change or delete what is in it. */
export const trail = pgTable(
  'trail',
  {
    id: uuid('id').primaryKey(),
    at: at('at').notNull().defaultNow().$defaultFn(now),
    /** Absent for what Lumbix itself did, and for people who are not known. */
    personId: uuid('person_id'),
    personName: text('person_name').notNull(),
    via: text('via').$type<'page' | 'token' | 'system'>().notNull(),
    act: text('act').notNull(),
    subjectKind: text('subject_kind').notNull(),
    subjectId: text('subject_id').notNull(),
    subjectName: text('subject_name').notNull(),
    sentence: text('sentence').notNull(),
    details: jsonb('details').$type<Readonly<Record<string, unknown>>>(),
  },
  (table) => [
    index('trail_at').on(table.at),
    index('trail_subject').on(table.subjectKind, table.subjectId, table.at),
    index('trail_person').on(table.personId, table.at),
  ],
);
