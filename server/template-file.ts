import { eq } from 'drizzle-orm';
import { RefusedFile } from '../core/files/refused-file';
import { reportOf, type FaultReport } from '../core/shape/faults';
import type { Template } from '../core/template/template';
import { withFilesInside, withFilesKept } from './assets';
import type { Connection } from './db/database';
import { templates } from './db/schema';
import { seenTemplate } from './productions/template';
import { refuseUnseenKind } from './people/access';
import type { Caller } from './people/caller';
import type { Problem } from './problem';
import { faultyTemplate, only, pinsFor, publish, type Published } from './publish';
import type { Services } from './services';

const faulty = (faults: FaultReport): Problem => faultyTemplate('The template was not put in', faults);

/** A template as a file: with its pictures inside, and the address of its JSON Schema. @throws Problem */
export async function takeOutTemplate(
  connection: Connection,
  templateId: string,
  caller: Caller,
): Promise<{ name: string; body: string }> {
  const { template } = await seenTemplate(connection, templateId, caller);
  const whole = await withFilesInside(connection, template);
  const name = `${template.name.replaceAll(/[^\p{L}\p{N} -]/gu, '')}.lumbix.json`;
  return { name, body: JSON.stringify({ $schema: '/template.schema.json', ...whole }, null, 2) };
}

/**
 * Puts a template in from its file: as a new one, or as the next version of the one with its id. Nothing is kept of a
 * file that has anything wrong. The bytes are handed over to the press.
 * @throws Problem with every fault and its place.
 */
export async function putInTemplate(
  services: Services,
  bytes: Uint8Array,
  caller: Caller,
  reason?: string,
): Promise<Published & { id: string; name: string; isNew: boolean }> {
  const { database, press } = services;
  const read = await press.readTemplate(bytes);
  if ('faults' in read) throw faulty(reportOf(read.faults));
  refuseUnseenKind(caller, read.template.kind);
  const pins = await pinsFor(database, read.template);
  // Its files are kept by their hash; one that no version refers to does no harm.
  const template = await withFiles({ database, press }, read.template);
  const [before] = await database.select().from(templates).where(eq(templates.id, template.id));
  const published = await publish(services, template, pins, {
    base: before?.currentVersion ?? undefined,
    reason,
    caller,
  });
  return { ...published, id: template.id, name: template.name, isNew: before === undefined };
}

async function withFiles(keeping: Parameters<typeof withFilesKept>[0], template: Template): Promise<Template> {
  const without = Object.entries(template.files ?? {}).find(([, file]) => file.content === undefined);
  if (without)
    throw faulty(
      only(
        `files.${without[0]}`,
        `The file “${without[0]}” has no content. Take the template out again, with its pictures inside.`,
      ),
    );
  try {
    return await withFilesKept(keeping, template);
  } catch (problem) {
    if (problem instanceof RefusedFile)
      throw faulty(only('files', `One of the template’s files is refused. ${problem.message}`));
    throw problem;
  }
}
