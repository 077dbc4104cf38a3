import type { Clause } from '../../core/template/clause';
import type { HouseStyle } from '../../core/template/house-style';
import type { TemplateFile } from '../../core/template/template-file';
import type { DocumentState } from '../../core/contract/documents';
import type { Choices, Revising } from '../../core/production/production';
import type { StepKindName } from '../productions/steps/step';
import type { StepState, Validity } from '../../core/contract/documents';
import { now } from '../clock';
import { sql } from 'drizzle-orm';
import {
  boolean,
  customType,
  date,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { RecordLayout } from '../../core/record/layout';
import type { RecordSchema } from '../../core/record/schema';
import type { FieldValue, RecordSnapshot } from '../../core/record/snapshot';
import type { UsedValues } from '../../core/record/used';
import type { Pins, Template } from '../../core/template/template';
import type { Workings } from '../../core/sheet/workings';
import type { Composition } from '../../core/production/composition';

export * from './people-schema';
import type { PlaceSettings } from '../../core/contract/places';

/** A composition as it is kept: its pictures are in the PDF, and its workings are made for good. */
export type KeptComposition = Omit<Composition, 'assets'> & { workings: Record<string, Workings> };

/** Why a waiting document shall be void, and who says so. */
export interface Voiding {
  reason: string;
  byId: string;
  by: string;
}

/** That a step after filing was let go, by whom and why. */
export interface LetGo {
  reason: string;
  by: string;
  at: string;
}

/** Records that a template version was found to stop on when it was published. */
export interface AcceptedStops {
  reason: string;
  records: StoppedRecord[];
}

/** A record that a template cannot print, with what stops it in sentences. */
export interface StoppedRecord {
  type: string;
  id: string;
  name: string;
  sentences: string[];
}

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });
const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' });

export const houseStyles = pgTable('house_styles', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  body: jsonb('body').$type<HouseStyle>().notNull(),
});

export const clauses = pgTable('clauses', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  body: jsonb('body').$type<Clause>().notNull(),
});

/** Pictures and PDF files that were looked over, each once, by the SHA-256 of their bytes. */
export const assets = pgTable('assets', {
  sha256: text('sha256').primaryKey(),
  mediaType: text('media_type').$type<TemplateFile['mediaType']>().notNull(),
  /** Of a picture, in pixels. */
  width: integer('width'),
  height: integer('height'),
  /** Of a PDF. */
  pages: integer('pages'),
  standard: text('standard').$type<TemplateFile['standard']>(),
  bytes: bytea('bytes').notNull(),
});

export const templates = pgTable('templates', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  kind: text('kind').notNull(),
  recordType: text('record_type').notNull(),
  /** The version that documents are produced from. */
  currentVersion: uuid('current_version').notNull(),
  /** Since when nothing is produced from it; what was filed stays. */
  archivedAt: at('archived_at'),
});

/** Immutable once written: a document keeps the version it was made from. */
export const templateVersions = pgTable(
  'template_versions',
  {
    id: uuid('id').primaryKey(),
    templateId: text('template_id').notNull(),
    version: integer('version').notNull(),
    body: jsonb('body').$type<Template>().notNull(),
    /** House styles and clauses as they were when the version was published. */
    pins: jsonb('pins').$type<Pins>().notNull(),
    publishedAt: at('published_at').notNull().defaultNow(),
    /** The name of who published it; absent for what came with Lumbix. */
    publishedBy: text('published_by'),
    /** Whether it came with Lumbix, or was made here. */
    origin: text('origin').$type<'shipped' | 'made'>().notNull().default('shipped'),
    /** What is different in it, in the words of who published it. */
    note: text('note'),
    /** Records that this version stops on, and why it was published all the same. */
    stops: jsonb('stops').$type<AcceptedStops>(),
  },
  (table) => [uniqueIndex('template_versions_number').on(table.templateId, table.version)],
);

/** What is worked on, at most one for each template. A template that was never published is nothing else. */
export const templateDrafts = pgTable('template_drafts', {
  templateId: text('template_id').primaryKey(),
  body: jsonb('body').$type<Template>().notNull(),
  /** How often it was saved. */
  revision: integer('revision').notNull(),
  /** The version it began with. */
  base: uuid('base'),
  editedById: uuid('edited_by_id').notNull(),
  editedBy: text('edited_by').notNull(),
  editedAt: at('edited_at').notNull().defaultNow(),
});

/** Windows in which templates are worked on. They say so every few seconds; one that does not any more is closed. */
export const templateEditors = pgTable(
  'template_editors',
  {
    templateId: text('template_id').notNull(),
    window: uuid('window').notNull(),
    personId: uuid('person_id').notNull(),
    name: text('name').notNull(),
    since: at('since').notNull().defaultNow(),
    seenAt: at('seen_at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.templateId, table.window] })],
);

export const series = pgTable('series', {
  id: text('id').primaryKey(),
  label: text('label').notNull(),
  /** Formula of the number: `"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)`. */
  formula: text('formula').notNull(),
  /** How many days before today a document may be issued on. */
  backdatedDays: integer('backdated_days').notNull().default(0),
});

/** The next serial of a series in a period (a year). */
export const seriesCounters = pgTable(
  'series_counters',
  {
    seriesId: text('series_id').notNull(),
    period: text('period').notNull(),
    next: integer('next').notNull(),
    /** The latest day that something was issued on: numbers follow the days. */
    lastIssued: date('last_issued', { mode: 'string' }),
  },
  (table) => [primaryKey({ columns: [table.seriesId, table.period] })],
);

/**
 * What lists, views and searches of records need of each, so that they join it with documents and answer while the source is away. A
 * record itself is read live when it is opened or produced.
 */
export const recordIndex = pgTable(
  'record_index',
  {
    source: text('source').notNull(),
    type: text('type').notNull(),
    id: text('id').notNull(),
    name: text('name').notNull(),
    number: text('number').notNull(),
    account: text('account').notNull(),
    stage: text('stage').notNull(),
    owner: text('owner').notNull(),
    amount: numeric('amount'),
    currency: text('currency'),
    /** When it closes. */
    day: date('day', { mode: 'string' }),
    /** The values of the further columns of the list, by their fields. */
    columns: jsonb('columns').$type<Readonly<Record<string, FieldValue>>>().notNull().default({}),
    /** Whether a quote was produced for it that is not void. */
    isQuoted: boolean('is_quoted').notNull().default(false),
    /** What it is found by, as it is searched in. */
    words: text('words').notNull().default(''),
    /** How likely it is to show what a template did not think of. */
    awkward: integer('awkward').notNull().default(0),
    /** Of the reading that saw it last: what a whole reading did not see is gone. */
    reading: integer('reading').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.source, table.type, table.id] }),
    index('record_index_name').on(table.type, table.name, table.id),
    index('record_index_account').on(table.type, table.account, table.id),
    index('record_index_stage').on(table.type, table.stage, table.id),
    index('record_index_amount').on(table.type, table.amount.desc().nullsLast(), table.id.desc()),
    index('record_index_day').on(table.type, table.day.desc().nullsLast(), table.id.desc()),
    index('record_index_awkward').on(table.type, table.awkward.desc().nullsFirst(), table.id.desc().nullsFirst()),
    index('record_index_owner').on(table.type, table.owner),
    // Its counts are read from this index alone.
    index('record_index_counts').on(table.source, table.type, table.isQuoted, table.stage, table.owner),
    index('record_index_words').using('gin', sql`${table.words} gin_trgm_ops`),
  ],
);

/** What a source said last that it holds: it stands while the source is away. */
export const recordSchemas = pgTable('record_schemas', {
  source: text('source').primaryKey(),
  schema: jsonb('schema').$type<RecordSchema>().notNull(),
  readAt: at('read_at').notNull(),
});

/** How records of a type are shown, where somebody chose it. */
export const recordLayouts = pgTable(
  'record_layouts',
  {
    source: text('source').notNull(),
    type: text('type').notNull(),
    layout: jsonb('layout').$type<RecordLayout>().notNull(),
    /** Whether the start command or a person said it last. */
    origin: text('origin').$type<'start' | 'person'>().notNull(),
    changedAt: at('changed_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.source, table.type] })],
);

/** How far a source's changes were read. */
export const recordReadings = pgTable(
  'record_readings',
  {
    source: text('source').notNull(),
    type: text('type').notNull(),
    reading: integer('reading').notNull(),
    /** Where the source tells what comes next. */
    link: text('link'),
    /** Up to when changes are known. */
    knownAt: at('known_at'),
  },
  (table) => [primaryKey({ columns: [table.source, table.type] })],
);

/**
 * What a document is before, while and after it is made: a template version, a record, and what was chosen. A proof is one that is
 * looked at; a filed document holds on to one for good; others go after a while.
 */
export const productions = pgTable(
  'productions',
  {
    id: uuid('id').primaryKey(),
    templateVersionId: uuid('template_version_id').notNull(),
    /** Where the record comes from, its type and its id there. */
    recordSource: text('record_source').notNull(),
    recordType: text('record_type').notNull(),
    recordId: text('record_id').notNull(),
    choices: jsonb('choices').$type<Choices>().notNull(),
    issueDate: date('issue_date', { mode: 'string' }).notNull(),
    /** The record as it was read, and what of it is printed. */
    snapshot: jsonb('snapshot').$type<RecordSnapshot>().notNull(),
    /** As it was when somebody looked at the document first, where it was otherwise than it is now. */
    earlier: jsonb('earlier').$type<RecordSnapshot>(),
    used: jsonb('used').$type<UsedValues>().notNull(),
    usedDigest: text('used_digest').notNull(),
    /** The document whose next revision it would be, and the number that it would have. */
    revises: jsonb('revises').$type<Revising>(),
    byId: uuid('by_id'),
    /** How often it was looked at anew: what is filed is what was looked at last. */
    revision: integer('revision').notNull().default(0),
    /** Whether something was changed in it, and nothing is filed from it yet: it is kept until then, for colleagues too. */
    inHand: boolean('in_hand').notNull().default(false),
    /** When the record was read: what was filed for it later does not count. */
    at: at('at').notNull().defaultNow().$defaultFn(now),
  },
  (table) => [
    index('productions_at').on(table.at),
    index('productions_in_hand')
      .on(table.recordType, table.recordId)
      .where(sql`${table.inHand}`),
  ],
);

/** Every number that was ever taken from a series: there are no gaps. */
export const numbers = pgTable(
  'numbers',
  {
    id: uuid('id').primaryKey(),
    seriesId: text('series_id').notNull(),
    period: text('period').notNull(),
    serial: integer('serial').notNull(),
    text: text('text').notNull(),
    /** Void where the document that it was taken for was never filed. */
    state: text('state').$type<'taken' | 'void'>().notNull(),
    takenAt: at('taken_at').notNull().defaultNow().$defaultFn(now),
    /** The name of who it was taken for. */
    by: text('by'),
  },
  (table) => [uniqueIndex('numbers_serial').on(table.seriesId, table.period, table.serial)],
);

/** The register: every document ever produced. */
export const documents = pgTable(
  'documents',
  {
    /** UUIDv7; also the repeatability id of its filing. */
    id: uuid('id').primaryKey(),
    productionId: uuid('production_id')
      .notNull()
      .references(() => productions.id),
    numberId: uuid('number_id').references(() => numbers.id),
    kind: text('kind').notNull(),
    state: text('state').$type<DocumentState>().notNull(),
    /** As it is printed. */
    number: text('number').notNull(),
    recordType: text('record_type').notNull(),
    recordId: text('record_id').notNull(),
    recordName: text('record_name').notNull(),
    accountName: text('account_name').notNull(),
    title: text('title').notNull(),
    fileName: text('file_name').notNull(),
    templateId: text('template_id').notNull(),
    /** Gross total by the figure with that meaning. */
    amount: numeric('amount'),
    currency: text('currency'),
    issueDate: date('issue_date', { mode: 'string' }).notNull(),
    /** As composed with its number: written once, when rendered. */
    composition: jsonb('composition').$type<KeptComposition>(),
    /** Who filed it, and the key that they named the filing by: the same key is the same document. */
    byId: uuid('by_id'),
    by: text('by'),
    key: text('key'),
    /** What it is found by, as it is searched in. */
    words: text('words').notNull().default(''),
    /** The document whose next revision it is, how many came before it under its number, and the one that came after it. */
    revises: uuid('revises'),
    revision: integer('revision').notNull().default(0),
    supersededBy: uuid('superseded_by'),
    /** Whether what is filed still counts. */
    validity: text('validity').$type<Validity>().notNull().default('current'),
    /** Why what was filed is void, and who says so. */
    voided: jsonb('voided').$type<Voiding & { at: string }>(),
    /** That it shall be void, if its file is not on the record: who asked for it, and why. */
    voiding: jsonb('voiding').$type<Voiding>(),
    createdAt: at('created_at').notNull().defaultNow(),
    filedAt: at('filed_at'),
  },
  (table) => [
    uniqueIndex('documents_production').on(table.productionId),
    uniqueIndex('documents_key').on(table.byId, table.key),
    uniqueIndex('documents_number').on(table.numberId, table.revision),
    index('documents_record').on(table.recordId, table.kind, table.createdAt),
    index('documents_created').on(table.createdAt, table.id),
    index('documents_by_number').on(table.number, table.id),
    index('documents_by_record').on(table.recordName, table.id),
    index('documents_by_account').on(table.accountName, table.id),
    index('documents_by_amount').on(table.amount.desc().nullsLast(), table.id.desc()),
    index('documents_state').on(table.state, table.createdAt),
    index('documents_template').on(table.templateId, table.state, table.filedAt),
    index('documents_sums').on(table.state, table.validity, table.kind, table.currency, table.amount),
    index('documents_words').using('gin', sql`${table.words} gin_trgm_ops`),
  ],
);

/** Places where copies of filed documents are kept. */
export const places = pgTable('places', {
  id: text('id').primaryKey(),
  label: text('label').notNull(),
  settings: jsonb('settings').$type<PlaceSettings>().notNull(),
  sealedSecret: text('sealed_secret'),
  changedAt: at('changed_at').notNull().defaultNow(),
});

/** What happens to a document, in order. Steps make what happens safe to repeat. */
export const steps = pgTable(
  'steps',
  {
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id),
    position: integer('position').notNull(),
    kind: text('kind').$type<StepKindName>().notNull(),
    /** The step of the plan that it is, by its id; absent for those of filing itself. */
    planStep: text('plan_step'),
    state: text('state').$type<StepState>().notNull(),
    /** How often it was begun. */
    attempts: integer('attempts').notNull().default(0),
    triedAt: at('tried_at'),
    /** Why it waits or is held, or why it ended the document. */
    reason: text('reason'),
    /** Who let it go undone, and why. */
    letGo: jsonb('let_go').$type<LetGo>(),
    /** When it is tried next, where it waits. */
    dueAt: at('due_at'),
    /** When the last attempt was begun of which nobody knows what it did. */
    unclearAt: at('unclear_at'),
    /** What it came to: the number, the pages, the id of the file on the record. */
    answer: jsonb('answer').$type<Readonly<Record<string, string | number>>>(),
    doneAt: at('done_at'),
  },
  (table) => [
    primaryKey({ columns: [table.documentId, table.position] }),
    index('steps_open')
      .on(table.documentId)
      .where(sql`${table.state} in ('open', 'held')`),
  ],
);

/** The filed bytes, by format. They never change; the hash is checked on every read. */
export const files = pgTable(
  'files',
  {
    documentId: uuid('document_id')
      .notNull()
      .references(() => documents.id),
    format: text('format').$type<'pdf'>().notNull(),
    mediaType: text('media_type').notNull(),
    sha256: text('sha256').notNull(),
    bytes: bytea('bytes').notNull(),
    /** The id that the record source gave the file on its record. */
    attachmentId: text('attachment_id'),
  },
  (table) => [primaryKey({ columns: [table.documentId, table.format] })],
);

/** What happened, in order; only ever added to. Mostly to documents. */
export const events = pgTable(
  'events',
  {
    id: uuid('id').primaryKey(),
    subjectKind: text('subject_kind').notNull(),
    subjectId: text('subject_id').notNull(),
    kind: text('kind').notNull(),
    sentence: text('sentence').notNull(),
    /** The name of who did it; absent for what Lumbix did itself. */
    by: text('by'),
    at: at('at').notNull().defaultNow().$defaultFn(now),
  },
  (table) => [index('events_subject').on(table.subjectKind, table.subjectId, table.at)],
);
