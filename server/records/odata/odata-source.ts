import type { FieldValue, RecordSnapshot } from '../../../core/record/snapshot';
import { own } from '../../../core/record/own';
import { activitiesOf } from '../../../core/record/activities';
import { recordTypeOf } from '../../../core/record/schema';
import type { PathTree } from '../../../core/record/paths';
import {
  SourceError,
  type Changes,
  type NewActivity,
  type NewFile,
  type RecordFile,
  type RecordId,
  type RecordSource,
  type Repeat,
} from '../source';
import { ODataClient, type ODataRequest } from './client';
import type { CrmConnection } from './connection';
import { keyNamed, readCsdl, type ODataSchema } from './csdl';
import { idOf, isEntity, snapshot, stored, type Entity } from './entity';
import { selection } from './selection';

/** Entities of a list, and where the next ones are. */
interface Page {
  value: Entity[];
  '@odata.nextLink'?: string;
  '@odata.deltaLink'?: string;
}

/** For so long what the service says of itself is used. */
const FRESH_FOR = 60_000;
/** How many changes are asked for at once. */
const CHANGES = 1_000;
/** How many ids stand in one request. */
const IDS = 200;

/** Records of an OData 4.01 service. */
export class ODataSource implements RecordSource {
  readonly #client: ODataClient;
  #known: { schema: ODataSchema; until: number } | undefined;

  /** @param connection How the service is called now. */
  constructor(connection: () => Promise<CrmConnection>) {
    this.#client = new ODataClient(connection);
  }

  async schema() {
    return (await this.#freshSchema()).records;
  }

  async read({ type, id }: RecordId, paths: PathTree): Promise<RecordSnapshot> {
    const schema = await this.#schema();
    const path = `${entityPath(schema, type, id)}?${selection(schema, type, paths)}`;
    const entity = await this.#client.json<Entity>({ path, repeatable: true });
    if (!isEntity(entity)) throw unreadable();
    await this.#followNested(entity);
    return snapshot(schema, type, entity, paths);
  }

  /** The ids travel in bodies, since addresses have an end (OData 4.01 URL conventions, 4.17). */
  async readMany(type: string, ids: readonly string[], paths: PathTree): Promise<RecordSnapshot[]> {
    const schema = await this.#schema();
    const found = new Map<string, RecordSnapshot>();
    for (let at = 0; at < ids.length; at += IDS) {
      const some = ids.slice(at, at + IDS).map((id) => keyLiteral(schema, type, id));
      const filter = `${keyNamed(schema, type).name} in (${some.join(',')})`;
      const first = await this.#page({
        method: 'POST',
        path: `${setOf(schema, type)}/$query`,
        headers: { 'content-type': 'text/plain' },
        body: `${selection(schema, type, paths)}&$filter=${encodeURIComponent(filter)}`,
        repeatable: true,
      });
      for (const entity of await this.#followNext(first.value, first['@odata.nextLink'])) {
        await this.#followNested(entity);
        found.set(idOf(schema, type, entity), snapshot(schema, type, entity, paths));
      }
    }
    return ids.flatMap((id) => found.get(id) ?? []);
  }

  async list(type: string, paths: PathTree, { top, last = false }: { top: number; last?: boolean }) {
    const schema = await this.#schema();
    const { name } = keyNamed(schema, type);
    const options = [selection(schema, type, paths), `$top=${top}`, `$orderby=${name}${last ? '%20desc' : ''}`];
    const first = await this.#page({ path: `${setOf(schema, type)}?${options.join('&')}`, repeatable: true });
    const entities = await this.#followNext(first.value, first['@odata.nextLink']);
    return entities.slice(0, top).map((entity) => snapshot(schema, type, entity, paths));
  }

  /** OData 4.01 protocol, 11.3. */
  async changes(type: string, paths: PathTree, link: string | null): Promise<Changes> {
    const schema = await this.#schema();
    const path = link ?? `${setOf(schema, type)}?${selection(schema, type, paths)}`;
    const headers = { prefer: `odata.track-changes,odata.maxpagesize=${CHANGES}` };
    const page = await this.#page({ path, headers, repeatable: true });
    const isRemoved = (entity: Entity) => '@removed' in entity;
    const next = page['@odata.nextLink'];
    return {
      changed: page.value.filter((entity) => !isRemoved(entity)).map((each) => snapshot(schema, type, each, paths)),
      removed: page.value.filter(isRemoved).map((entity) => idOf(schema, type, entity)),
      link: next ?? page['@odata.deltaLink'] ?? null,
      isMore: next !== undefined,
    };
  }

  async change(
    { type, id }: RecordId,
    version: string,
    fields: Readonly<Record<string, FieldValue>>,
    repeat?: Repeat,
  ): Promise<void> {
    const schema = await this.#schema();
    const body = Object.entries(fields).map(([name, value]) => [name, stored(schema, type, name, value)]);
    await this.#client.text({
      method: 'PATCH',
      path: entityPath(schema, type, id),
      headers: { 'if-match': version, 'content-type': 'application/json', ...(repeat && repeatHeaders(repeat)) },
      body: JSON.stringify(Object.fromEntries(body)),
      repeatable: false,
    });
  }

  async addActivity({ type, id }: RecordId, { kind, subject, text }: NewActivity, repeat: Repeat): Promise<string> {
    const schema = await this.#schema();
    const fields = activitiesOf(schema.records, type);
    // No refusal of this activity: the service may say otherwise again.
    if (!fields) throw new SourceError('away', `The CRM takes no activities on records of the type ${type}.`);
    const body = {
      [fields.kind.name]: kind,
      [fields.subject.name]: subject,
      ...(text !== undefined && fields.text && { [fields.text.name]: text }),
    };
    const added = await this.#client.json<Entity>({
      method: 'POST',
      path: `${entityPath(schema, type, id)}/${fields.relation}`,
      headers: { 'content-type': 'application/json', ...repeatHeaders(repeat) },
      body: JSON.stringify(body),
      repeatable: true,
      attempts: 1,
    });
    if (!isEntity(added)) throw unreadable();
    return idOf(schema, fields.type, added);
  }

  async files(record: RecordId): Promise<RecordFile[]> {
    const { value } = await this.#page({ path: await this.#filesPath(record), repeatable: true, attempts: 1 });
    return value as unknown as RecordFile[];
  }

  /**
   * Every attempt carries the same repeatability id (OASIS OData Repeatable Requests 1.0), so a service that has stored the file
   * already answers as it did the first time.
   */
  async attach(record: RecordId, file: NewFile): Promise<RecordFile> {
    const revised = await this.#revise(record, file);
    if (revised) return revised;
    return this.#sendFile(file, {
      method: 'POST',
      path: await this.#filesPath(record),
      headers: { slug: encodeURIComponent(file.name) },
    });
  }

  /** Puts a file in the place of the one that it revises; undefined where revisions are not kept, or that one is not there any more. */
  async #revise(record: RecordId, file: NewFile): Promise<RecordFile | undefined> {
    const { records } = await this.#schema();
    if (file.revises === undefined || !recordTypeOf(records, record.type)?.revisesFiles) return undefined;
    const disposition = `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`;
    try {
      return await this.#sendFile(file, {
        method: 'PUT',
        path: `${await this.#filesPath(record)}('${encodeURIComponent(file.revises)}')/$value`,
        headers: { 'content-disposition': disposition, prefer: 'return=representation' },
      });
    } catch (problem) {
      if (problem instanceof SourceError && problem.failure === 'missing') return undefined;
      throw problem;
    }
  }

  async #sendFile(
    { bytes, mediaType, repeat }: NewFile,
    { headers, ...request }: Pick<ODataRequest, 'method' | 'path' | 'headers'>,
  ): Promise<RecordFile> {
    const file = await this.#client.json<RecordFile>({
      ...request,
      headers: { 'content-type': mediaType, ...headers, ...repeatHeaders(repeat) },
      body: bytes,
      repeatable: true,
      attempts: 1,
    });
    if (typeof file?.id !== 'string' || typeof file.sha256 !== 'string') throw unreadable();
    return file;
  }

  picture(link: string): Promise<Uint8Array> {
    return this.#client.bytes({ path: link, repeatable: true });
  }

  async #filesPath({ type, id }: RecordId): Promise<string> {
    const schema = await this.#schema();
    const files = recordTypeOf(schema.records, type)?.files;
    // No refusal of this file: the service may say otherwise again.
    if (files === undefined) throw new SourceError('away', `The CRM takes no files on records of the type ${type}.`);
    return `${entityPath(schema, type, id)}/${files}`;
  }

  async #schema(): Promise<ODataSchema> {
    return this.#known && this.#known.until > Date.now() ? this.#known.schema : this.#freshSchema();
  }

  async #freshSchema(): Promise<ODataSchema> {
    const xml = await this.#client.text({
      path: '$metadata',
      headers: { accept: 'application/xml' },
      repeatable: true,
    });
    const schema = readCsdl(xml);
    if (!schema) throw unreadable();
    this.#known = { schema, until: Date.now() + FRESH_FOR };
    return schema;
  }

  async #page(request: ODataRequest): Promise<Page> {
    const page = await this.#client.json<Page>(request);
    if (!Array.isArray(page?.value)) throw unreadable();
    return page;
  }

  async #followNext(entities: Entity[], next: string | undefined): Promise<Entity[]> {
    const all = [...entities];
    for (let link = next; link;) {
      const page = await this.#page({ path: link, repeatable: true });
      all.push(...page.value);
      link = page['@odata.nextLink'];
    }
    return all;
  }

  /** Follows the links to the rest of long relations inside an entity, at every depth. */
  async #followNested(entity: Entity): Promise<void> {
    for (const [name, value] of Object.entries(entity)) {
      if (Array.isArray(value)) {
        const next = entity[`${name}@odata.nextLink`] as string | undefined;
        if (next) entity[name] = await this.#followNext(value as Entity[], next);
        for (const item of entity[name] as unknown[]) if (isEntity(item)) await this.#followNested(item);
      } else if (isEntity(value)) await this.#followNested(value);
    }
  }
}

/** OASIS OData Repeatable Requests 1.0. */
const repeatHeaders = ({ id, firstSent }: Repeat) => ({
  'repeatability-request-id': id,
  'repeatability-first-sent': firstSent.toUTCString(),
});

const unreadable = () => new SourceError('away', 'The CRM’s answer cannot be read.');

/** An id as it stands in addresses and filters: apostrophes in a text are doubled (OData ABNF, SQUOTE-in-string). */
const keyLiteral = (schema: ODataSchema, type: string, id: string) =>
  keyNamed(schema, type).isText ? `'${id.replaceAll("'", "''")}'` : id;

const entityPath = (schema: ODataSchema, type: string, id: string) =>
  `${setOf(schema, type)}(${encodeURIComponent(keyLiteral(schema, type, id))})`;

function setOf(schema: ODataSchema, type: string): string {
  const set = own(schema.sets, type);
  if (!set) throw new SourceError('missing', `The CRM has no record type ${type}.`);
  return set;
}
