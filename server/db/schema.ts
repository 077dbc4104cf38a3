import type { Clause } from '../../core/template/clause';
import type { HouseStyle } from '../../core/template/house-style';
import type { TemplateFile } from '../../core/template/template-file';
import type { DocumentState } from '../../core/contract/documents';
import { sql } from 'drizzle-orm';
import {
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
import type { RecordSnapshot } from '../../core/record/snapshot';
import type { UsedValues } from '../../core/record/used';
import type { Pins, Template } from '../../core/template/template';
import type { Workings } from '../../core/sheet/workings';
import type { Composition } from '../../core/production/composition';

export * from './people-schema';

/** A composition as it is kept: its pictures are in the PDF, and its workings are made for good. */
export type KeptComposition = Omit<Composition, 'assets'> & { workings: Record<string, Workings> };

/** Records that a template version was found to stop on when it was published. */
export interface AcceptedStops {
  reason: string;
  records: StoppedRecord[];
}

/** A record that a template cannot print, with what stops it in sentences. */
export interface StoppedRecord {
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
  bytes: bytea('bytes').notNull(),
});

export const templates = pgTable('templates', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  kind: text('kind').notNull(),
  recordType: text('record_type').notNull(),
  /** The version that documents are produced from. */
  currentVersion: uuid('current_version').notNull(),
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
    /** Records that this version stops on, and why it was published all the same. */
    stops: jsonb('stops').$type<AcceptedStops>(),
  },
  (table) => [uniqueIndex('template_versions_number').on(table.templateId, table.version)],
);

export const series = pgTable('series', {
  id: text('id').primaryKey(),
  label: text('label').notNull(),
  /** Formula of the number: `"Q-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)`. */
  formula: text('formula').notNull(),
});

/** The next serial of a series in a period (a year). */
export const seriesCounters = pgTable(
  'series_counters',
  {
    seriesId: text('series_id').notNull(),
    period: text('period').notNull(),
    next: integer('next').notNull(),
  },
  (table) => [primaryKey({ columns: [table.seriesId, table.period] })],
);

/** The register: every document ever produced, with the data it was made from. */
export const documents = pgTable(
  'documents',
  {
    /** UUIDv7; also the repeatability id of its filing. */
    id: uuid('id').primaryKey(),
    kind: text('kind').notNull(),
    state: text('state').$type<DocumentState>().notNull(),
    number: text('number').notNull(),
    seriesId: text('series_id').notNull(),
    period: text('period').notNull(),
    serial: integer('serial').notNull(),
    recordType: text('record_type').notNull(),
    recordId: text('record_id').notNull(),
    recordName: text('record_name').notNull(),
    accountName: text('account_name').notNull(),
    title: text('title').notNull(),
    fileName: text('file_name').notNull(),
    templateId: text('template_id').notNull(),
    templateVersionId: uuid('template_version_id').notNull(),
    edition: text('edition').notNull(),
    plan: text('plan').notNull(),
    /** Gross total by the figure with that role. */
    amount: numeric('amount'),
    currency: text('currency'),
    issueDate: date('issue_date', { mode: 'string' }).notNull(),
    snapshot: jsonb('snapshot').$type<RecordSnapshot>().notNull(),
    used: jsonb('used').$type<UsedValues>().notNull(),
    usedDigest: text('used_digest').notNull(),
    /** Findings that were skipped, with the reasons given. */
    skipped: jsonb('skipped').$type<Record<string, string>>().notNull(),
    /** As composed with its number: written once, when rendered. */
    composition: jsonb('composition').$type<KeptComposition>(),
    attachmentId: text('attachment_id'),
    /** Why it failed, or what it waits for. */
    reason: text('reason'),
    createdAt: at('created_at').notNull().defaultNow(),
    filedAt: at('filed_at'),
  },
  (table) => [
    uniqueIndex('documents_number').on(table.seriesId, table.period, table.serial),
    index('documents_record').on(table.recordId, table.kind, table.createdAt),
    index('documents_created').on(table.createdAt),
    index('documents_unfinished')
      .on(table.state)
      .where(sql`${table.state} in ('preparing', 'rendered', 'attached')`),
  ],
);

/** The filed bytes. They never change; the hash is checked on every read. */
export const documentFiles = pgTable('document_files', {
  documentId: uuid('document_id')
    .primaryKey()
    .references(() => documents.id),
  mediaType: text('media_type').notNull(),
  sha256: text('sha256').notNull(),
  bytes: bytea('bytes').notNull(),
});

/** What happened to a document, in order; only ever added to. */
export const events = pgTable(
  'events',
  {
    id: uuid('id').primaryKey(),
    documentId: uuid('document_id').notNull(),
    kind: text('kind').notNull(),
    sentence: text('sentence').notNull(),
    /** The name of who did it; absent for what Lumbix did itself. */
    by: text('by'),
    at: at('at').notNull().defaultNow(),
  },
  (table) => [index('events_document').on(table.documentId, table.at)],
);
