import { eq, inArray } from 'drizzle-orm';
import { RefusedFile } from '../core/files/refused-file';
import { LARGEST_TEMPLATE, unpackedText } from '../core/files/unpack';
import { clausesOf, houseStylesOf } from '../core/template/assemble';
import { assembledForChecks, checkContext, checkTemplate } from '../core/template/check';
import { readTemplateFile, type FileFault } from '../core/template/read-file';
import type { Pins, Template } from '../core/template/template';
import { withFilesInside, withFilesKept } from './assets';
import { crmSchema } from './crm/schema';
import { addVersion, makeCurrent } from './db/shipped';
import type { Connection } from './db/database';
import { clauses, houseStyles, series, templates } from './db/schema';
import { currentTemplate } from './filing/template';
import { Problem } from './problem';
import type { Services } from './services';

export { LARGEST_TEMPLATE };

/** A template as a file: with its pictures inside, and the address of its JSON Schema. @throws Problem */
export async function takeOutTemplate(connection: Connection, templateId: string): Promise<{ name: string; body: string }> {
  const { template } = await currentTemplate(connection, templateId);
  const whole = await withFilesInside(connection, template);
  const name = `${template.name.replaceAll(/[^\p{L}\p{N} -]/gu, '')}.lumbix.json`;
  return { name, body: JSON.stringify({ $schema: '/template.schema.json', ...whole }, null, 2) };
} // prettier-ignore

/**
 * Puts a template in from its file: as a new one, or as the next version of the one with its id. Nothing is kept of a
 * file that has anything wrong.
 * @throws Problem with every fault and its place.
 */
export async function putInTemplate({ database, press }: Services, bytes: Uint8Array): Promise<{ id: string; name: string; version: number; isNew: boolean }> {
  const template = await readable(bytes);
  const { records: schema } = await crmSchema();
  return database.transaction(async (transaction) => {
    const pins = await pinsFor(transaction, template);
    const whole = assembledForChecks(template, pins);
    const wrong = whole.flatMap((each) => checkTemplate(each, checkContext(each, schema, pins.houseStyles)));
    if (wrong.length > 0) throw faulty(wrong.map(({ place, message }) => ({ path: place.block ?? '', sentence: `In ${place.words}: ${message}` })));
    const kept = await withFiles({ database: transaction, press }, template);
    const [before] = await transaction.select().from(templates).where(eq(templates.id, kept.id)).for('update');
    const versionId = await addVersion(transaction, kept, pins, 'made');
    await makeCurrent(transaction, kept, versionId);
    const { version } = await currentTemplate(transaction, kept.id);
    return { id: kept.id, name: kept.name, version, isNew: before === undefined };
  });
} // prettier-ignore

async function readable(bytes: Uint8Array): Promise<Template> {
  const read = readTemplateFile(textOf(bytes));
  if ('faults' in read) throw faulty(read.faults);
  return read.template;
}

function textOf(bytes: Uint8Array): string {
  try {
    return unpackedText(bytes);
  } catch (problem) {
    if (problem instanceof RefusedFile) throw faulty([{ path: '', sentence: problem.message }]);
    throw problem;
  }
}

async function withFiles(keeping: Parameters<typeof withFilesKept>[0], template: Template): Promise<Template> {
  const without = Object.entries(template.files ?? {}).find(([, file]) => file.content === undefined);
  if (without) throw faulty([{ path: `files.${without[0]}`, sentence: `The file “${without[0]}” has no content. Take the template out again, with its pictures inside.` }]); // prettier-ignore
  try {
    return await withFilesKept(keeping, template);
  } catch (problem) {
    if (problem instanceof RefusedFile) throw faulty([{ path: 'files', sentence: `One of the template’s files is refused. ${problem.message}` }]); // prettier-ignore
    throw problem;
  }
}

/** The house styles, clauses and series that a template asks for, as they are here. */
async function pinsFor(connection: Connection, template: Template): Promise<Pins> {
  const styleIds = houseStylesOf(template);
  const clauseIds = clausesOf(template);
  const seriesIds = template.plans.map((plan) => plan.series);
  const found = {
    styles: await connection.select().from(houseStyles).where(inArray(houseStyles.id, styleIds)),
    clauses: clauseIds.length > 0 ? await connection.select().from(clauses).where(inArray(clauses.id, clauseIds)) : [],
    series: await connection.select().from(series).where(inArray(series.id, seriesIds)),
  };
  const absent = (ids: readonly string[], rows: readonly { id: string }[], what: string): FileFault[] =>
    ids.filter((id) => !rows.some((row) => row.id === id)).map((id) => ({ path: id, sentence: `The template asks for the ${what} “${id}”, which is not here. Make it first, or name another one.` })); // prettier-ignore
  const faults = [
    ...absent(styleIds, found.styles, 'house style'),
    ...absent(clauseIds, found.clauses, 'clause'),
    ...absent(seriesIds, found.series, 'number series'),
  ];
  if (faults.length > 0) throw faulty(faults);
  return { houseStyles: found.styles.map(({ body }) => body), clauses: found.clauses.map(({ body }) => body) };
}

function faulty(faults: readonly FileFault[]): Problem {
  return new Problem(422, 'The template was not put in', faults[0]!.sentence, { reason: 'file', faults });
}
