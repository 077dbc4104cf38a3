import type { Clause } from '../../core/template/clause';
import type { HouseStyle } from '../../core/template/house-style';
import { eq, max } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { canonicalJson } from '../../core/shape/canonical';
import { clausesOf, houseStylesOf } from '../../core/template/assemble';
import type { Pins, Template } from '../../core/template/template';
import { withFilesKept, type Keeping } from '../assets';
import type { Connection } from './database';
import type { AcceptedStops } from './schema';
import { clauses, houseStyles, places, series, templates, templateVersions } from './schema';

/** Id, label, letter, and how many days before today a document may be issued on. */
const SERIES = [
  ['quote', 'Quotes', 'Q', 14],
  ['proposal', 'Proposals', 'P', 14],
  ['order', 'Order confirmations', 'O', 14],
  ['agreement', 'Agreements', 'A', 14],
  ['delivery', 'Delivery notes', 'D', 7],
  ['invoice', 'Invoices', 'I', 7],
  ['credit', 'Credit notes', 'C', 7],
  ['letter', 'Letters', 'L', 14],
  ['receipt', 'Receipts', 'R', 7],
] as const;
const SERIES_ROWS = SERIES.map(([id, label, letter, backdatedDays]) => ({
  id,
  label,
  backdatedDays,
  formula: `"${letter}-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)`,
}));

/** Where copies are kept until somebody sets up another place. */
const ARCHIVE = { id: 'archive', label: 'Archive', settings: { type: 'folder' as const, folder: '' } };

/** What comes with Lumbix. */
export interface Shipped {
  houseStyles: readonly HouseStyle[];
  clauses: readonly Clause[];
  templates: readonly Template[];
}

/**
 * Puts the shipped house styles, clauses, templates and series into the database. A template that is there already
 * gets a new version only where what was shipped differs from the last time, so nothing that documents were made from
 * changes; and one that was changed here stays the one that documents are produced from.
 */
export async function loadShipped({ database: connection, press }: Keeping, shipped: Shipped): Promise<void> {
  await connection.insert(series).values(SERIES_ROWS).onConflictDoNothing();
  await connection.insert(places).values(ARCHIVE).onConflictDoNothing();
  for (const body of shipped.houseStyles) {
    const values = { id: body.id, name: body.name, body };
    await connection.insert(houseStyles).values(values).onConflictDoUpdate({ target: houseStyles.id, set: values });
  }
  for (const body of shipped.clauses) {
    const values = { id: body.id, name: body.name, body };
    await connection.insert(clauses).values(values).onConflictDoUpdate({ target: clauses.id, set: values });
  }
  for (const template of shipped.templates) {
    const taken = await withFilesKept({ database: connection, press }, template);
    await publish(connection, taken, pinsOf(taken, shipped));
  }
}

/** The house styles and clauses that a template refers to. @throws Error naming one that is not there. */
function pinsOf(template: Template, { houseStyles: styles, clauses: all }: Omit<Shipped, 'templates'>): Pins {
  const pinned = <Kept extends { id: string }>(ids: readonly string[], kept: readonly Kept[], what: string) =>
    ids.map((id) => {
      const found = kept.find((each) => each.id === id);
      if (!found) throw new Error(`The template ${template.name} asks for the ${what} “${id}”, which is not there.`);
      return found;
    });
  return {
    houseStyles: pinned(houseStylesOf(template), styles, 'house style'),
    clauses: pinned(clausesOf(template, all), all, 'clause'),
  };
}

async function publish(connection: Connection, template: Template, pins: Pins): Promise<void> {
  const versions = await connection.select().from(templateVersions).where(eq(templateVersions.templateId, template.id));
  const newest = versions.sort((a, b) => b.version - a.version);
  const lastShipped = newest.find(({ origin }) => origin === 'shipped');
  const same = lastShipped && canonicalJson([lastShipped.body, lastShipped.pins]) === canonicalJson([template, pins]);
  if (same) return;
  const { id } = await addVersion(connection, template, pins, { origin: 'shipped' });
  if (newest[0]?.origin !== 'made') await makeCurrent(connection, template, id);
}

/** Writes a template as its next version; gives the version's id and number. */
export async function addVersion(
  connection: Connection,
  template: Template,
  pins: Pins,
  { origin, by, note, stops }: { origin: 'shipped' | 'made'; by?: string; note?: string; stops?: AcceptedStops },
): Promise<{ id: string; version: number }> {
  const id = uuidv7();
  const [newest] = await connection
    .select({ version: max(templateVersions.version) })
    .from(templateVersions)
    .where(eq(templateVersions.templateId, template.id));
  const version = (newest?.version ?? 0) + 1;
  await connection
    .insert(templateVersions)
    .values({ id, templateId: template.id, version, body: template, pins, origin, note, stops, publishedBy: by });
  return { id, version };
}

/** Documents are produced from this version from now on. */
export async function makeCurrent(connection: Connection, template: Template, versionId: string): Promise<void> {
  const { id, name, kind, record } = template;
  const values = { id, name, kind, recordType: record.type, currentVersion: versionId };
  await connection.insert(templates).values(values).onConflictDoUpdate({ target: templates.id, set: values });
}
