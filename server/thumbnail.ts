import { LRUCache } from 'lru-cache';
import { mayFile } from '../core/production/findings/finding';
import { seenTemplate, compositionInput, readForTemplate, type PublishedTemplate } from './productions/template';
import type { Caller } from './people/caller';
import { Problem } from './problem';
import { crm } from './records/sources';
import type { Services } from './services';

const WIDTH = 420;
/** How many records are tried for one that the template can be filed for. */
const TRIED = 12;
const made = new LRUCache<string, Buffer>({ max: 200 });

/**
 * The first page of a template as a PNG, filled from a record that it can be filed for, or from any where there is none.
 * Made once for each version.
 * @throws Problem, SourceError
 */
export async function templateThumbnail(
  services: Services,
  templateId: string,
  caller: Caller,
): Promise<{ png: Buffer; version: string }> {
  const published = await seenTemplate(services.database, templateId, caller);
  const { versionId } = published;
  let png = made.get(versionId);
  if (!png) {
    const input = await likelyInput(services, published);
    png = Buffer.from(await services.press.thumbnail(input, WIDTH));
    made.set(versionId, png);
  }
  return { png, version: versionId };
}

async function likelyInput(services: Services, published: PublishedTemplate) {
  const { type } = published.template.record;
  const records = await crm.list(type, { fields: new Set(), related: new Map() }, { top: TRIED });
  let fallback: Awaited<ReturnType<typeof compositionInput>> | undefined;
  for (const { id } of records) {
    const input = await compositionInput(services.database, published, await readForTemplate(services, published, id), {
      edition: published.template.editions[0]!.id,
    });
    fallback ??= input;
    if (mayFile((await services.press.compose(input)).findings)) return input;
  }
  if (!fallback)
    throw new Problem(404, 'Nothing to show', 'The CRM has no record that this template could be filled from.');
  return fallback;
}
