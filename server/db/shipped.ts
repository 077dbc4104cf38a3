import { eq, max } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { HouseStyle, Template } from '../../core/template/template';
import type { Connection } from './database';
import { houseStyles, series, templates, templateVersions } from './schema';

const SERIES = [
  ['quote', 'Quotes', 'Q'],
  ['proposal', 'Proposals', 'P'],
  ['invoice', 'Invoices', 'I'],
].map(([id, label, letter]) => ({
  id: id!,
  label: label!,
  formula: `"${letter}-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)`,
}));

/**
 * Puts the shipped house styles, templates and series into the database. A template that is there already gets a new
 * version only where the shipped file differs from the last one shipped, so nothing that documents were made from
 * changes; and one that was changed here stays the one that documents are produced from.
 */
export async function loadShipped(connection: Connection, styles: HouseStyle[], shipped: Template[]): Promise<void> {
  await connection.insert(series).values(SERIES).onConflictDoNothing();
  for (const style of styles) {
    const values = { id: style.id, name: style.name, body: style };
    await connection.insert(houseStyles).values(values).onConflictDoUpdate({ target: houseStyles.id, set: values });
  }
  for (const template of shipped) {
    const style = styles.find(({ id }) => id === template.houseStyle);
    if (!style)
      throw new Error(
        `The template ${template.id} asks for the house style ${template.houseStyle}, which is not there.`,
      );
    await publish(connection, template, style);
  }
}

async function publish(connection: Connection, template: Template, houseStyle: HouseStyle): Promise<void> {
  const versions = await connection.select().from(templateVersions).where(eq(templateVersions.templateId, template.id));
  const newest = versions.sort((a, b) => b.version - a.version);
  const lastShipped = newest.find(({ origin }) => origin === 'shipped');
  const same =
    lastShipped &&
    canonicalJson(lastShipped.body) === canonicalJson(template) &&
    canonicalJson(lastShipped.houseStyle) === canonicalJson(houseStyle);
  if (same) return;
  const id = await addVersion(connection, template, houseStyle, 'shipped');
  if (newest[0]?.origin !== 'made') await makeCurrent(connection, template, id);
}

/** Writes a template as its next version; gives the version's id. */
export async function addVersion(
  connection: Connection,
  template: Template,
  houseStyle: HouseStyle,
  origin: 'shipped' | 'made',
): Promise<string> {
  const id = uuidv7();
  const [newest] = await connection
    .select({ version: max(templateVersions.version) })
    .from(templateVersions)
    .where(eq(templateVersions.templateId, template.id));
  const version = (newest?.version ?? 0) + 1;
  await connection.insert(templateVersions).values({ id, templateId: template.id, version, body: template, houseStyle, origin }); // prettier-ignore
  return id;
}

/** Documents are produced from this version from now on. */
export async function makeCurrent(connection: Connection, template: Template, versionId: string): Promise<void> {
  const { id, name, kind, record } = template;
  const values = { id, name, kind, recordType: record.type, currentVersion: versionId };
  await connection.insert(templates).values(values).onConflictDoUpdate({ target: templates.id, set: values });
}

/** JSON with sorted keys: the database keeps objects without their order. */
function canonicalJson(value: unknown): string {
  return JSON.stringify(value, (_key, each: unknown) =>
    each !== null && typeof each === 'object' && !Array.isArray(each)
      ? Object.fromEntries(Object.entries(each).sort(([a], [b]) => (a < b ? -1 : 1)))
      : each,
  );
}
