import type { RecordSchema } from '#core/record/schema';
import type { RecordSnapshot } from '#core/record/snapshot';
import type { Finding } from '#core/production/findings/finding';
import type { Workings } from '#core/sheet/workings';
import type { BridgeStep } from '#core/production/bridge';
import type { PrintedFigure, PrintedValue } from '#core/production/composition';
import type { FigureSheet } from '#core/sheet/figure';
import type { RegisteredDocument } from '#core/formula/functions/register';
import type { Pins, Template } from '#core/template/template';

/** Problem details (RFC 9457) as the server tells them. */
export interface ApiProblem {
  status: number;
  title: string;
  detail: string;
  reason?: string;
  changes?: { what: string; before: string | null; after: string | null }[];
  findings?: Finding[];
  /** What is wrong in a file, each with its place. */
  faults?: { path: string; sentence: string }[];
  /** Records that a template would stop on. */
  records?: { id: string; name: string; sentences: string[] }[];
}

export type DocumentState = 'preparing' | 'rendered' | 'attached' | 'filed' | 'failed';

export interface PaperTrailEntry {
  id: string;
  kind: string;
  state: DocumentState;
  number: string;
}
export interface DealRow {
  deal: RecordSnapshot;
  paperTrail: PaperTrailEntry[];
}
export interface DealsSummary {
  counts: Record<'all' | 'needs-quote' | 'quoted', number>;
  stages: string[];
  owners: string[];
}

/** A document as a row of the register. */
export interface DocumentRow {
  id: string;
  kind: string;
  state: DocumentState;
  number: string;
  title: string;
  fileName: string;
  recordId: string;
  recordName: string;
  accountName: string;
  templateId: string;
  amount: string | null;
  currency: string | null;
  issueDate: string;
  reason: string | null;
  createdAt: string;
  filedAt: string | null;
}

/** A template with what its figure sheet is worked on with. */
export interface OpenTemplate {
  template: Template;
  version: number;
  versionId: string;
  schema: RecordSchema;
  pins: Pins;
  issueDate: string;
}

export interface Proof {
  template: { id: string; name: string; kind: string; versionId: string; version: number };
  record: { id: string; name: string };
  issueDate: string;
  sections: Record<string, string>;
  findings: Finding[];
  /** Names the proof, to ask how its values came about. */
  key: string;
  figures: PrintedFigure[];
  bridge: BridgeStep[] | null;
  values: Record<string, PrintedValue>;
  fileName: string;
  title: string;
  used: Record<string, string>;
  leftOut: { block: string; note: string }[];
  proved: { sums: number };
  currency: string | null;
  /** The edition it is in, and those it could be in. */
  edition: string;
  editions: { id: string; label: string }[];
  annexes: { label: string }[];
  pages: {
    glyphs: string;
    pages: string[];
    pageSize: { width: number; height: number };
  };
}

export interface DocumentDetail {
  document: DocumentRow & { skipped: Record<string, string>; attachmentId: string | null };
  explained: {
    figures: PrintedFigure[];
    bridge: BridgeStep[] | null;
    workings: Record<string, Workings>;
    findings: Finding[];
  } | null;
  history: { id: string; kind: string; sentence: string; at: string }[];
}

export interface TemplateRow {
  id: string;
  name: string;
  kind: string;
  recordType: string;
  version: number;
  versionId: string;
  editions: number;
  documents: number;
  lastUsed: string | null;
}
type Query = Record<string, string | number | boolean | undefined>;

/** Every call to the server, in one place. */
export const api = {
  deals: (query: Query) => $fetch<{ deals: DealRow[]; total: number }>('/api/deals', { query }),
  dealsSummary: () => $fetch<DealsSummary>('/api/deals/summary'),
  deal: (id: string) => $fetch<{ deal: RecordSnapshot; schema: RecordSchema }>(`/api/deals/${encodeURIComponent(id)}`),
  /** A deal with the values of some paths. */
  dealValues: (id: string, paths: readonly string[]) =>
    $fetch<RecordSnapshot>(`/api/deals/${encodeURIComponent(id)}/values`, { query: { paths: paths.join() } }),
  registered: (id: string) => $fetch<RegisteredDocument[]>(`/api/deals/${encodeURIComponent(id)}/registered`),
  changeField: (body: { type: string; id: string; version: string; field: string; value: string }) =>
    $fetch('/api/fields', { method: 'PATCH', body }),
  templates: () => $fetch<TemplateRow[]>('/api/templates'),
  /** A template's first page as a picture, and the template as a file. */
  thumbnailUrl: (id: string, version: string) =>
    `/api/templates/${encodeURIComponent(id)}/thumbnail?version=${version}`,
  templateFileUrl: (id: string) => `/api/templates/${encodeURIComponent(id)}/file`,
  putInTemplate: (file: Blob, reason?: string) =>
    $fetch<{ id: string; name: string; version: number; isNew: boolean }>('/api/templates', {
      method: 'POST',
      query: { reason },
      body: file,
      headers: { 'Content-Type': 'application/octet-stream' },
    }),
  template: (id: string) => $fetch<OpenTemplate>(`/api/templates/${encodeURIComponent(id)}`),
  publishSheet: (
    id: string,
    body: { base: string; renames: { key: string; name: string }[]; sheet: FigureSheet; reason?: string },
  ) => $fetch<{ versionId: string }>(`/api/templates/${encodeURIComponent(id)}/sheet`, { method: 'PUT', body }),
  workings: (key: string, id: string) => $fetch<Workings>('/api/proof/workings', { query: { key, id } }),
  proof: (deal: string, template: string, edition?: string) =>
    $fetch<Proof>('/api/proof', { query: { deal, template, edition } }),
  /** Where the trial PDF of a proof is read. */
  trialUrl: (deal: string, template: string, edition?: string) =>
    `/api/proof/trial?${new URLSearchParams({ deal, template, ...(edition && { edition }) })}`,
  file: (body: object) => $fetch<{ id: string; number: string }>('/api/documents', { method: 'POST', body }),
  documents: (query: Query) =>
    $fetch<{ documents: DocumentRow[]; total: number; totals: { currency: string | null; amount: string | null }[] }>(
      '/api/documents',
      { query },
    ),
  document: (id: string) => $fetch<DocumentDetail>(`/api/documents/${id}`),
  find: (q: string) =>
    $fetch<{
      deals: { id: string; name: string; account: string }[];
      documents: { id: string; number: string; title: string; accountName: string }[];
      crmAway: boolean;
    }>('/api/find', { query: { q } }),
};

/** The problem behind a failed call; a server that does not answer at all is one too. */
export function asProblem(thrown: unknown): ApiProblem {
  const problem = (thrown as { data?: ApiProblem })?.data;
  if (problem?.title) return problem;
  return {
    status: 0,
    title: 'Lumbix does not answer',
    detail: 'Look whether it is still running, then try again. Nothing was changed.',
  };
}
