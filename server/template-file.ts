import { RefusedFile } from '../core/files/refused-file';
import { reportOf, type FaultReport } from '../core/shape/faults';
import type { Contract } from '../core/contract/contract';
import type { AnswerOf, QueryOf } from '../core/contract/endpoint';
import { templateChanges, type TemplateChange } from '../core/template/compare';
import type { Template } from '../core/template/template';
import { underFreeName } from './drafts';
import { withFilesInside, withFilesKept } from './assets';
import type { Connection } from './db/database';
import { findTemplate, seenTemplate, type PublishedTemplate } from './productions/template';
import { refuseUnseenKind } from './people/access';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { faultyTemplate, only, pinsFor, publish } from './publish';
import type { Services } from './services';

const faulty = (faults: FaultReport): Problem => faultyTemplate('The template was not imported', faults);

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
 * Puts a template in from its file: as a new one, or as the next version of the one with its id, where the caller says so. Nothing is kept
 * of a file that has anything wrong, and a file that is the same as what is here changes nothing. The bytes are handed over to the press.
 * @throws Problem with every fault and its place, or with what would be replaced.
 */
export async function putInTemplate(
  services: Services,
  bytes: Uint8Array,
  caller: Caller,
  { reason, as }: QueryOf<Contract['POST /templates']> = {},
): Promise<AnswerOf<Contract['POST /templates']>> {
  const { database, press } = services;
  const read = await press.readTemplate(bytes);
  if ('faults' in read) throw faulty(reportOf(read.faults));
  refuseUnseenKind(caller, read.template.kind);
  const pins = await pinsFor(database, read.template);
  // Its files are kept by their hash; one that no version refers to does no harm.
  const { $schema: _, ...template } = await withFiles({ database, press }, read.template);
  const here = await findTemplate(database, template.id);
  if (here && as !== 'new') {
    refuseUnseenKind(caller, here.template.kind);
    const { id, name } = template;
    const changes = templateChanges(here.template, template);
    if (changes.length === 0)
      return { id, name, outcome: 'unchanged', versionId: here.versionId, version: here.version };
    const published = await publish(services, template, pins, {
      base: here.versionId,
      undecided: as === 'replacement' ? undefined : wouldReplace(here, changes),
      reason,
      caller,
    });
    return { ...published, id, name, outcome: 'replaced' };
  }
  const own = here ? await underFreeName(database, template) : template;
  return { ...(await publish(services, own, pins, { reason, caller })), id: own.id, name: own.name, outcome: 'added' };
}

const wouldReplace = ({ template: { name }, version }: PublishedTemplate, changes: TemplateChange[]) =>
  new Problem(
    409,
    `This would replace “${name}”`,
    `The file differs from “${name}”, which is at version ${version} here. Replace it, or import the file as a new template.`,
    { reason: 'replaces', template: { name, version }, templateChanges: changes },
  );

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
