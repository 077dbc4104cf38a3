import { Decimal } from '../../core/money/decimal';
import { own } from '../../core/record/own';
import { fieldOf, recordTypeOf, type FieldSchema } from '../../core/record/schema';
import type { FieldValue, RecordSnapshot } from '../../core/record/snapshot';
import type { PathTree } from '../../core/record/paths';
import { asJson, CrmError, requestCrm } from './client';
import type { CrmSchema, StoredAs } from './csdl';
import { crmSchema } from './schema';

type Entity = Record<string, unknown>;

/** Entities of a list, and where the next ones are. */
interface Page {
  value: Entity[];
  '@odata.nextLink'?: string;
}

/** One page of a list of records. */
export interface RecordPage {
  records: RecordSnapshot[];
  total: number;
}

export interface ListQuery {
  filter?: string;
  orderBy?: string;
  skip: number;
  top: number;
}

/**
 * Reads one record with exactly the fields of a path tree, in one request (more only where the CRM pages a long
 * relation).
 * @throws CrmError
 */
export async function readRecord(type: string, id: string, paths: PathTree): Promise<RecordSnapshot> {
  const schema = await crmSchema();
  const query = selection(schema, type, paths);
  const path = `${setOf(schema, type)}('${encodeKey(id)}')?${query}`;
  const entity = await requestCrm({ path, repeatable: true }, asJson<Entity>);
  await followNested(entity);
  return snapshot(schema, type, entity, paths);
}

/** Reads a page of a list of records. @throws CrmError */
export async function listRecords(type: string, paths: PathTree, query: ListQuery): Promise<RecordPage> {
  const schema = await crmSchema();
  const options = [selection(schema, type, paths), '$count=true', `$top=${query.top}`, `$skip=${query.skip}`];
  if (query.filter) options.push(`$filter=${encodeURIComponent(query.filter)}`);
  if (query.orderBy) options.push(`$orderby=${encodeURIComponent(query.orderBy)}`);
  const path = `${setOf(schema, type)}?${options.join('&')}`;
  const page = await requestCrm({ path, repeatable: true }, asJson<Page & { '@odata.count': number }>);
  const entities = await followNext(page.value, page['@odata.nextLink']);
  return { records: entities.map((entity) => snapshot(schema, type, entity, paths)), total: page['@odata.count'] };
}

/** What changed in a type of records. */
export interface Changes {
  changed: RecordSnapshot[];
  /** Ids of records that are not there any more. */
  removed: string[];
  /** Where the next changes are: at once, or when there are some. */
  link: string | null;
  isMore: boolean;
}

/** How many changes are asked for at once. */
const AT_ONCE = 1_000;

/**
 * The changes of a type of records since a link that this gave before, or all of its records without one (OData 4.01 protocol, 11.3).
 * @throws CrmError, with status 410 for a link that is too old
 */
export async function changesOf(type: string, paths: PathTree, link: string | null): Promise<Changes> {
  const schema = await crmSchema();
  const path = link ?? `${setOf(schema, type)}?${selection(schema, type, paths)}`;
  const headers = { Prefer: `odata.track-changes,odata.maxpagesize=${AT_ONCE}` };
  const page = await requestCrm({ path, headers, repeatable: true }, asJson<Page & { '@odata.deltaLink'?: string }>);
  const isRemoved = (entity: Entity) => '@removed' in entity;
  const next = page['@odata.nextLink'];
  return {
    changed: page.value.filter((entity) => !isRemoved(entity)).map((entity) => snapshot(schema, type, entity, paths)),
    removed: page.value.filter(isRemoved).map(({ id }) => String(id)),
    link: next ?? page['@odata.deltaLink'] ?? null,
    isMore: next !== undefined,
  };
}

/** How many ids stand in one request. */
const IDS = 200;

/**
 * Reads many records by their ids, in their order; those that are not there are left out. The ids travel in bodies, since addresses
 * have an end (OData 4.01 URL conventions, 4.17).
 * @throws CrmError
 */
export async function readMany(type: string, ids: readonly string[], paths: PathTree): Promise<RecordSnapshot[]> {
  const schema = await crmSchema();
  const found = new Map<string, RecordSnapshot>();
  for (let at = 0; at < ids.length; at += IDS) {
    const some = ids.slice(at, at + IDS);
    const filter = `id in (${some.map(quoted).join(',')})`;
    const page = await requestCrm(
      {
        method: 'POST',
        path: `${setOf(schema, type)}/$query`,
        headers: { 'Content-Type': 'text/plain' },
        body: `${selection(schema, type, paths)}&$filter=${encodeURIComponent(filter)}`,
        repeatable: true,
      },
      asJson<Page>,
    );
    for (const entity of await followNext(page.value, page['@odata.nextLink'])) {
      await followNested(entity);
      found.set(String(entity.id), snapshot(schema, type, entity, paths));
    }
  }
  return ids.flatMap((id) => found.get(id) ?? []);
}

/** An OData text: apostrophes doubled (OData ABNF, SQUOTE-in-string). */
const quoted = (text: string) => `'${text.replaceAll("'", "''")}'`;

/**
 * Changes fields of a record, if it is still the version that was seen.
 * @throws CrmError `conflict` when somebody else was faster, `refused` with the CRM's reason.
 */
export async function changeRecord(
  type: string,
  id: string,
  version: string,
  fields: Record<string, FieldValue>,
): Promise<void> {
  const schema = await crmSchema();
  const body = Object.fromEntries(
    Object.entries(fields).map(([name, value]) => [name, stored(schema, type, name, value)]),
  );
  const change = {
    method: 'PATCH' as const,
    path: `${setOf(schema, type)}('${encodeKey(id)}')`,
    headers: { 'If-Match': version, 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
    repeatable: false,
  };
  await requestCrm(change, async () => undefined);
}

/** Every field of a record type, with the same of some of its relations: for showing a whole record. */
export async function wholeRecord(type: string, relations: readonly string[]): Promise<PathTree> {
  const { records } = await crmSchema();
  const plain = (name: string) =>
    new Set(
      Object.values(recordTypeOf(records, name)?.fields ?? {})
        .filter((field) => !field.target)
        .map((field) => field.name),
    );
  const related = relations.flatMap((name): [string, PathTree][] => {
    const target = fieldOf(records, type, name)?.target;
    return target ? [[name, { fields: plain(target), related: new Map() }]] : [];
  });
  return { fields: plain(type), related: new Map(related) };
}

function selection(schema: CrmSchema, type: string, paths: PathTree): string {
  const { select, expand } = options(schema, type, paths);
  return [`$select=${select}`, ...(expand ? [`$expand=${expand}`] : [])].join('&');
}

function options(schema: CrmSchema, type: string, paths: PathTree): { select: string; expand: string } {
  const field = (name: string) => fieldOf(schema.records, type, name);
  const select = new Set(['id', ...[...paths.fields].filter((name) => field(name) && !field(name)!.target)]);
  for (const name of paths.fields) {
    const currency = storedAs(schema, type, name).currencyPath;
    if (currency) select.add(currency);
  }
  const expand = [...paths.related].map(([name, nested]) => {
    const inner = options(schema, field(name)!.target!, nested);
    const order =
      field(name)!.type === 'records' && fieldOf(schema.records, field(name)!.target, 'position')
        ? ';$orderby=position'
        : '';
    return `${name}($select=${inner.select}${inner.expand ? `;$expand=${inner.expand}` : ''}${order})`;
  });
  return { select: [...select].join(','), expand: expand.join(',') };
}

/** Follows the links to the rest of long relations inside an entity, at every depth. */
async function followNested(entity: Entity): Promise<void> {
  for (const [name, value] of Object.entries(entity)) {
    if (Array.isArray(value)) {
      const next = entity[`${name}@odata.nextLink`] as string | undefined;
      if (next) entity[name] = await followNext(value as Entity[], next);
      for (const item of entity[name] as unknown[]) if (isEntity(item)) await followNested(item);
    } else if (isEntity(value)) await followNested(value);
  }
}

async function followNext(entities: Entity[], next: string | undefined): Promise<Entity[]> {
  const all = [...entities];
  for (let link = next; link;) {
    const page: Page = await requestCrm({ path: link, repeatable: true }, asJson<Page>);
    all.push(...page.value);
    link = page['@odata.nextLink'];
  }
  return all;
}

const isEntity = (value: unknown): value is Entity =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function snapshot(schema: CrmSchema, type: string, entity: Entity, paths: PathTree): RecordSnapshot {
  const fields: Record<string, FieldValue> = {};
  for (const name of paths.fields) {
    const field = fieldOf(schema.records, type, name);
    if (field?.type === 'image') fields[name] = pictureField(entity, name);
    else if (field && Object.hasOwn(entity, name)) fields[name] = fieldValue(schema, type, field, entity);
  }
  for (const [name, nested] of paths.related) {
    const target = fieldOf(schema.records, type, name)?.target;
    const value = own(entity, name);
    if (!target) continue;
    if (Array.isArray(value)) fields[name] = value.map((item) => snapshot(schema, target, item as Entity, nested));
    else fields[name] = isEntity(value) ? snapshot(schema, target, value, nested) : null;
  }
  return { type, id: String(entity.id), version: entity['@odata.etag'] as string | undefined, fields };
}

/** Where a picture is read, by OData's links for streams; null where the record has none. */
function pictureField(entity: Entity, name: string): FieldValue {
  const said = (term: string) => entity[`${name}@odata.${term}`] ?? entity[`${name}@${term}`];
  const link = said('mediaReadLink');
  if (typeof link !== 'string') return null;
  const version = said('mediaEtag');
  return { image: { link, ...(typeof version === 'string' && { version }) } };
}

function fieldValue(schema: CrmSchema, type: string, field: FieldSchema, entity: Entity): FieldValue {
  const raw = entity[field.name];
  if (raw === null || raw === undefined) return null;
  const { currencyPath, percentPoints } = storedAs(schema, type, field.name);
  switch (field.type) {
    case 'money':
      return {
        amount: decimalText(raw),
        currency: (currencyPath ? (entity[currencyPath] as string | null) : null) ?? null,
      };
    case 'percent':
      return {
        percent: Decimal.of(decimalText(raw))
          .shifted(percentPoints ? -2 : 0)
          .toFixed(),
      };
    case 'number':
      return { number: decimalText(raw) };
    case 'date':
      return { date: String(raw) };
    case 'datetime':
      return { datetime: String(raw) };
    case 'choices':
      return { choices: (raw as unknown[]).map(String) };
    case 'rich':
      return { rich: String(raw) };
    case 'boolean':
      return raw === true;
    default:
      return String(raw);
  }
}

/** Decimals travel as text; a service that sends JSON numbers is read by its shortest decimal form. */
function decimalText(raw: unknown): string {
  const text = String(raw);
  if (!/^-?\d+(\.\d+)?(e[+-]?\d+)?$/i.test(text))
    throw new CrmError('refused', `The CRM sent “${text}” where a number was expected.`);
  const value = Decimal.read(text);
  if (!value) throw new CrmError('refused', 'The CRM sent a number with more digits than Lumbix computes with.');
  return value.toFixed();
}

function stored(schema: CrmSchema, type: string, name: string, value: FieldValue): unknown {
  if (value === null || typeof value !== 'object') return value;
  if ('amount' in value) return value.amount;
  if ('percent' in value)
    return Decimal.of(value.percent)
      .shifted(storedAs(schema, type, name).percentPoints ? 2 : 0)
      .toFixed();
  // Whole numbers as JSON has them, as long as it holds them exactly; all others as text.
  if ('number' in value) return Number.isSafeInteger(Number(value.number)) ? Number(value.number) : value.number;
  if ('date' in value) return value.date;
  if ('datetime' in value) return value.datetime;
  if ('choices' in value) return value.choices;
  if ('rich' in value) return value.rich;
  throw new CrmError('refused', `“${name}” is a relation and cannot be set here.`);
}

function setOf(schema: CrmSchema, type: string): string {
  const set = own(schema.sets, type);
  if (!set) throw new CrmError('missing', `The CRM has no record type ${type}.`);
  return set;
}

/** How the CRM keeps a field. */
const storedAs = (schema: CrmSchema, type: string, name: string): StoredAs =>
  own(own(schema.storedAs, type) ?? {}, name) ?? {};

const encodeKey = (id: string) => encodeURIComponent(id.replaceAll("'", "''"));
