import { compare, compileFilter, QueryError, type Body } from './filter';
import { typeNamed, typeOfSet, type EntityType, type Navigation } from './model';
import type { Store, StoredRecord } from './store';

/** Most records on a page of a collection, and of an expanded collection inside a record. */
const PAGE = 50;
const NESTED_PAGE = 100;

/** The system query options of a request, nested ones included. */
export interface Options {
  select?: string[];
  expand: Map<string, Options>;
  filter?: string;
  orderby?: string;
  top?: number;
  skip: number;
  count: boolean;
}

/** Reads query options from `$name=value` pairs. */
export function readOptions(pairs: Iterable<[string, string]>): Options {
  const options: Options = { expand: new Map(), skip: 0, count: false };
  for (const [name, value] of pairs) {
    switch (name) {
      case '$select':
        options.select = value.split(',').map((each) => each.trim());
        break;
      case '$expand':
        options.expand = readExpand(value);
        break;
      case '$filter':
        options.filter = value;
        break;
      case '$orderby':
        options.orderby = value;
        break;
      case '$top':
        options.top = wholeNumber(name, value);
        break;
      case '$skip':
        options.skip = wholeNumber(name, value);
        break;
      case '$count':
        options.count = value === 'true';
        break;
      default:
        if (name.startsWith('$')) throw new QueryError(`${name} is not supported.`);
    }
  }
  return options;
}

function wholeNumber(name: string, value: string): number {
  if (!/^\d{1,9}$/.test(value)) throw new QueryError(`${name} is a whole number.`);
  return Number(value);
}

function readExpand(source: string): Map<string, Options> {
  const expanded = new Map<string, Options>();
  for (const item of splitOutside(source, ',')) {
    const match = /^\s*(\w+)\s*(?:\((.*)\))?\s*$/s.exec(item);
    if (!match) throw new QueryError('$expand cannot be read.');
    const pairs = splitOutside(match[2] ?? '', ';')
      .filter(Boolean)
      .map((pair): [string, string] => {
        const equals = pair.indexOf('=');
        return [pair.slice(0, equals).trim(), pair.slice(equals + 1)];
      });
    expanded.set(match[1]!, readOptions(pairs));
  }
  return expanded;
}

/** Splits at a separator that stands outside brackets and quotes. */
function splitOutside(source: string, separator: string): string[] {
  const parts = [''];
  let depth = 0;
  let quoted = false;
  for (const character of source) {
    if (character === "'") quoted = !quoted;
    if (!quoted && character === '(') depth++;
    if (!quoted && character === ')') depth--;
    if (character === separator && depth === 0 && !quoted) parts.push('');
    else parts[parts.length - 1] += character;
  }
  return parts;
}

/** One request's reading of the store: each set is loaded once. */
export class Reading {
  readonly #sets = new Map<string, Promise<Map<string, StoredRecord>>>();

  constructor(readonly store: Store) {}

  records(set: string): Promise<Map<string, StoredRecord>> {
    let records = this.#sets.get(set);
    if (!records) {
      records = this.store.all(set).then((all) => new Map(all.map((record) => [record.id, record])));
      this.#sets.set(set, records);
    }
    return records;
  }

  /** A page of a collection, filtered, sorted and expanded. */
  async page(
    type: EntityType,
    options: Options,
    base: string,
    within?: (record: StoredRecord) => boolean,
    size = PAGE,
  ) {
    refuseUnknown(type, options);
    const related = await this.#neededFor(type, options);
    const read = (record: StoredRecord) => (path: string) => readPath(type, record, path, related);
    let records = [...(await this.records(type.set)).values()].filter((record) => within?.(record) ?? true);
    if (options.filter) {
      const passes = compileFilter(options.filter);
      records = records.filter((record) => passes(read(record)));
    }
    if (options.orderby) records = sorted(records, options.orderby, read);
    const total = records.length;
    const wanted = records.slice(options.skip, options.top === undefined ? undefined : options.skip + options.top);
    const page = wanted.slice(0, size);
    return {
      ...(options.count ? { count: total } : {}),
      ...(wanted.length > size ? { next: nextLink(base, options, size) } : {}),
      value: await Promise.all(page.map((record) => this.present(type, record, options))),
    };
  }

  /** A record as it leaves the service: selected properties, expanded relations. */
  async present(type: EntityType, record: StoredRecord, options: Options): Promise<Body> {
    refuseUnknown(type, options);
    const presented: Body = { '@odata.etag': etag(record), id: record.id };
    for (const { name, type: kind } of type.properties) {
      if (options.select && !options.select.includes(name)) continue;
      if (kind === 'Edm.Stream') Object.assign(presented, streamLinks(type, record, name));
      else presented[name] = record.body[name] ?? null;
    }
    for (const [name, nested] of options.expand) {
      const navigation = type.navigations.find((each) => each.name === name);
      if (!navigation) throw new QueryError(`${type.name} has no relation ${name}.`);
      await this.#expand(presented, navigation, record, nested, type);
    }
    return presented;
  }

  async #expand(
    into: Body,
    navigation: Navigation,
    record: StoredRecord,
    options: Options,
    from: EntityType,
  ): Promise<void> {
    const target = typeNamed(navigation.target);
    if (!navigation.many) {
      const related = (await this.records(target.set)).get(String(record.body[navigation.key] ?? ''));
      into[navigation.name] = related ? await this.present(target, related, options) : null;
      return;
    }
    const base = `${from.set}('${record.id}')/${navigation.name}`;
    const page = await this.page(
      target,
      inOrder(options, navigation),
      base,
      (each) => each.body[navigation.key] === record.id,
      NESTED_PAGE,
    );
    into[navigation.name] = page.value;
    if (page.next) into[`${navigation.name}@odata.nextLink`] = page.next;
  }

  async #neededFor(type: EntityType, { filter = '', orderby = '' }: Options) {
    const needed = type.navigations.filter(({ name }) => `${filter} ${orderby}`.includes(`${name}/`));
    const loaded = await Promise.all(
      needed.map(async (each) => [each.name, await this.records(typeNamed(each.target).set)] as const),
    );
    return new Map(loaded);
  }
}

/** Nothing is selected that there is not (OData 4.01 URL conventions, 5.1.4). */
function refuseUnknown(type: EntityType, { select = [] }: Options): void {
  const known = new Set([...type.properties, ...type.navigations].map(({ name }) => name));
  const unknown = select.find((name) => !known.has(name));
  if (unknown !== undefined) throw new QueryError(`${type.name} has no property ${unknown}.`);
}

/** A relation with an order of its own comes in it, unless another is asked for. */
export const inOrder = (options: Options, { orderedBy }: Navigation): Options => ({
  ...options,
  orderby: options.orderby ?? orderedBy,
});

/** Where a stream is read (OData JSON 4.01, 9): nothing where the record has none. */
function streamLinks(type: EntityType, record: StoredRecord, name: string): Body {
  const media = record.body[name];
  if (typeof media !== 'string') return {};
  return {
    [`${name}@odata.mediaReadLink`]: `${type.set}('${record.id}')/${name}`,
    [`${name}@odata.mediaEtag`]: `"${media}"`,
  };
}

function readPath(
  type: EntityType,
  record: StoredRecord,
  path: string,
  related: Map<string, Map<string, StoredRecord>>,
): unknown {
  const [first, second] = path.split('/') as [string, string | undefined];
  if (!second) {
    if (first === 'id') return record.id;
    if (type.properties.some(({ name }) => name === first)) return record.body[first];
    throw new QueryError(`${type.name} has no property ${first}.`);
  }
  const navigation = type.navigations.find(({ name }) => name === first);
  if (!navigation) throw new QueryError(`${type.name} has no relation ${first}.`);
  return related.get(first)?.get(String(record.body[navigation.key]))?.body[second];
}

function sorted(records: StoredRecord[], orderby: string, read: (record: StoredRecord) => (path: string) => unknown) {
  const keys = orderby.split(',').map((key) => {
    const [path, direction] = key.trim().split(/\s+/) as [string, string?];
    return { path, sign: direction === 'desc' ? -1 : 1 };
  });
  return [...records].sort((a, b) => {
    for (const { path, sign } of keys) {
      const order = compare(read(a)(path), read(b)(path));
      if (order !== 0) return sign * order;
    }
    return 0;
  });
}

/** The link to the rest of a page (OData 4.01 protocol, 11.2.6.7). */
function nextLink(base: string, options: Options, size: number): string {
  const query = new URLSearchParams();
  if (options.select) query.set('$select', options.select.join(','));
  if (options.filter) query.set('$filter', options.filter);
  if (options.orderby) query.set('$orderby', options.orderby);
  const expand = [...options.expand].map(([name, nested]) =>
    nested.select ? `${name}($select=${nested.select.join(',')})` : name,
  );
  if (expand.length > 0) query.set('$expand', expand.join(','));
  if (options.top !== undefined) query.set('$top', String(options.top - size));
  query.set('$skip', String(options.skip + size));
  return `${base}?${query}`;
}

export const etag = (record: { version: number }) => `W/"${record.version}"`;

export function setOrThrow(set: string): EntityType {
  const type = typeOfSet(set);
  if (!type) throw new QueryError(`There is no ${set}.`);
  return type;
}
