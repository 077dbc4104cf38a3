import { randomBytes, randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { Faults, type Fault } from '../faults';
import { QueryError, type Body } from './filter';
import { metadataXml } from './metadata';
import { ofChange, refusal, refuseRenaming, renameField, typeNamed, type EntityType } from './model';
import { fieldsPage, FIRST_AREA, listPage, pathOf, recordPage, typedValue, typeOfArea } from './page';
import { etag, inOrder, readOptions, Reading, setOrThrow } from './query';
import type { Store, StoredRecord } from './store';

export interface CrmOptions {
  store: Store;
  clientId: string;
  clientSecret: string;
  /** Where "Open in Lumbix" on the page of a record leads. */
  lumbixUrl: string;
}

const TOKEN_LIFETIME = 3_600;
/** Who changes records: the one program that has a token, and the person who sits at the CRM's own pages. */
const CALLER = 'Lumbix';
const BY_HAND = 'Nell Orrin';
const LARGEST_BODY = 50 * 1024 * 1024;

/** What a request is answered with. */
interface Answer {
  status: number;
  body?: string | Buffer | object;
  headers?: Record<string, string>;
  /** Half of it is sent: then the connection is closed, or nothing more comes. */
  brokenBy?: 'cut-off' | 'stall';
}

/** What stands before a CRM and answers for it. */
const PAGE: Answer = {
  status: 200,
  body: '<!doctype html><title>Maintenance</title><p>We are back soon.</p>',
  headers: { 'Content-Type': 'text/html' },
};

/** A refusal in the form of an OData error. */
class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly headers: Record<string, string> = {},
  ) {
    super(message);
  }
}

/** When what a request asks for was asked for first (OASIS OData Repeatable Requests 1.0, Repeatability-First-Sent): it counts as of then. */
function firstSent({ headers }: IncomingMessage): Date {
  const sent = new Date(String(headers['repeatability-first-sent']));
  return Number.isNaN(sent.getTime()) ? new Date() : sent;
}

/** The simulated CRM's web server: an OData 4.01 service under `/odata/`, and plain pages. */
export function createCrm(options: CrmOptions): Server {
  const { store } = options;
  const faults = new Faults();
  const tokens = new Map<string, number>();

  const server = createServer((request, response) => {
    handle(request)
      .catch((problem: unknown): Answer => {
        if (problem instanceof Refused) return odataError(problem.status, problem.message, problem.headers);
        if (problem instanceof QueryError) return odataError(400, problem.message);
        process.stderr.write(`CRM stand-in: ${String(problem)}\n`);
        return odataError(500, 'The CRM could not do this.');
      })
      .then((answer) => answer && send(response, answer, request.socket));
  });

  /** Gives the answer, or nothing where a fault has closed the connection. */
  async function handle(request: IncomingMessage): Promise<Answer | undefined> {
    const url = new URL(request.url ?? '/', 'http://crm');
    if (url.pathname === '/faults') return faultSwitches(request);
    const kind = faultKind(request, url);
    const fault = kind && faults.next(kind);
    if (fault?.kind === 'slow') await new Promise((done) => setTimeout(done, fault.delay ?? 1_000));
    if (fault?.kind === 'drop-before') return void request.socket.destroy();
    if (fault?.kind === 'status') {
      request.resume();
      const status = fault.status ?? 500;
      if (fault.plain) return { ...PAGE, status };
      return odataError(status, 'The CRM is out of order.', status === 429 ? { 'Retry-After': '1' } : {});
    }
    const answer = await route(request, url);
    if (fault?.kind === 'drop-after') return void request.socket.destroy();
    if (fault?.kind === 'cut-off' || fault?.kind === 'stall') return { ...answer, brokenBy: fault.kind };
    return fault?.kind === 'page' ? PAGE : answer;
  }

  async function route(request: IncomingMessage, url: URL): Promise<Answer> {
    if (url.pathname === '/health') return { status: 200, body: { ok: true } };
    if (url.pathname === '/oauth/token' && request.method === 'POST') return token(request);
    if (url.pathname.startsWith('/odata/')) {
      const expires = tokens.get((request.headers.authorization ?? '').replace(/^Bearer /, ''));
      if (!expires || expires < Date.now())
        throw new Refused(401, 'Ask for a token first.', { 'WWW-Authenticate': 'Bearer' });
      return odata(request, url);
    }
    return pages(request, url);
  }

  /** OAuth 2.0 client credentials (RFC 6749, 4.4). */
  async function token(request: IncomingMessage): Promise<Answer> {
    const form = new URLSearchParams((await readBody(request)).toString());
    if (form.get('client_id') !== options.clientId || form.get('client_secret') !== options.clientSecret)
      return { status: 401, body: { error: 'invalid_client' } };
    const access_token = randomBytes(24).toString('base64url');
    tokens.set(access_token, Date.now() + TOKEN_LIFETIME * 1_000);
    return { status: 200, body: { access_token, token_type: 'Bearer', expires_in: TOKEN_LIFETIME } };
  }

  async function odata(request: IncomingMessage, url: URL): Promise<Answer> {
    const path = decodeURIComponent(url.pathname.slice('/odata/'.length));
    if (path === '$metadata')
      return { status: 200, body: metadataXml(), headers: { 'Content-Type': 'application/xml' } };
    const content = /^Attachments\('([^']+)'\)(?:\/revisions\((\d+)\))?\/\$value$/.exec(path);
    if (content) return attachmentContent(content[1]!, content[2]);
    const revisions = /^Attachments\('([^']+)'\)\/revisions$/.exec(path);
    if (revisions) return collectionAnswer({ value: (await store.revisions(revisions[1]!)) as unknown as Body[] });
    const held = /^(\w+)\('((?:[^']|'')+)'\)\/attachments\('([^']+)'\)\/\$value$/.exec(path);
    if (held && request.method === 'PUT')
      return revise(request, setOrThrow(held[1]!), held[2]!.replaceAll("''", "'"), held[3]!);
    const match = /^(\w+)(?:\('((?:[^']|'')+)'\))?(?:\/([\w$]+))?$/.exec(path);
    if (!match) throw new Refused(404, `There is no ${path}.`);
    const type = setOrThrow(match[1]!);
    const id = match[2]?.replaceAll("''", "'");
    if (!id && match[3] === '$query')
      return collection(request, type, new URL(`?${(await readBody(request)).toString()}`, url));
    if (!id) return tracksChanges(request, url) ? changes(request, type, url) : collection(request, type, url);
    if (match[3] === 'attachments' && type.takesFiles) return attachments(request, type, id);
    if (type.properties.some((each) => each.name === match[3] && each.type === 'Edm.Stream'))
      return stream(type, id, match[3]!);
    if (match[3] && request.method === 'POST') return addRelated(request, type, id, match[3]);
    if (match[3]) return relatedCollection(type, id, match[3], url);
    if (request.method === 'PATCH') return change(request, type, id);
    return entity(type, id, url);
  }

  async function collection(request: IncomingMessage, type: EntityType, url: URL): Promise<Answer> {
    const page = await new Reading(store).page(type, readOptions(url.searchParams), type.set);
    return collectionAnswer({ ...page, next: page.next && absolute(request, page.next) });
  }

  /** A collection with everything that changes in it from then on (OData 4.01 protocol, 11.3). */
  async function changes(request: IncomingMessage, type: EntityType, url: URL): Promise<Answer> {
    const asked = new URLSearchParams(url.searchParams);
    const since = asked.get('$deltatoken') ?? asked.get('$skiptoken') ?? '0';
    if (!/^\d{1,18}$/.test(since)) throw new Refused(410, 'This link is too old. Read everything anew.');
    asked.delete('$deltatoken');
    asked.delete('$skiptoken');
    const options = readOptions(asked);
    const size = Math.min(Number(/maxpagesize=(\d+)/.exec(String(request.headers.prefer))?.[1] ?? 200), 1_000);
    const relations = type.navigations
      .filter(({ name, many }) => !many && options.expand.has(name))
      .map(({ target, key }) => ({ set: typeNamed(target).set, key }));
    const found = await store.changesSince(type.set, since, size, relations);
    const reading = new Reading(store);
    const value = await Promise.all(
      found.map(({ id, record }) =>
        record
          ? reading.present(type, record, options)
          : { '@removed': { reason: 'deleted' }, '@id': `${type.set}('${id}')`, id },
      ),
    );
    const isWhole = found.length < size;
    asked.set(isWhole ? '$deltatoken' : '$skiptoken', found.at(-1)?.changed ?? since);
    const link = absolute(request, `${type.set}?${asked}`);
    return {
      status: 200,
      body: { value, [isWhole ? '@odata.deltaLink' : '@odata.nextLink']: link },
      headers: { 'Preference-Applied': 'odata.track-changes' },
    };
  }

  async function relatedCollection(type: EntityType, id: string, name: string, url: URL): Promise<Answer> {
    const navigation = type.navigations.find((each) => each.name === name && each.many);
    if (!navigation) throw new Refused(404, `${type.name} has no collection ${name}.`);
    const target = typeNamed(navigation.target);
    const within = (record: { body: Body }) => record.body[navigation.key] === id;
    const base = `${type.set}('${id}')/${name}`;
    return collectionAnswer(
      await new Reading(store).page(target, inOrder(readOptions(url.searchParams), navigation), base, within),
    );
  }

  /** A new record on one that it belongs to (OData 4.01 protocol, 11.4.2). */
  async function addRelated(request: IncomingMessage, type: EntityType, id: string, name: string): Promise<Answer> {
    const navigation = type.navigations.find((each) => each.name === name && each.many);
    if (!navigation) throw new Refused(404, `${type.name} has no collection ${name}.`);
    const target = typeNamed(navigation.target);
    if (!target.takesNew) throw new Refused(405, `Nothing can be added to ${name} of a ${type.label.toLowerCase()}.`);
    if (!(await store.one(type.set, id))) throw new Refused(404, `There is no ${type.label.toLowerCase()} ${id}.`);
    const body = parseJson(await readBody(request));
    return repeatable(request, async (repeatabilityId) => {
      refuseWrong(target, body);
      for (const property of target.properties)
        if (!property.nullable && !property.computed && !(property.name in body))
          throw new Refused(422, refusal(property, null)!);
      const added = { ...body, id: randomUUID(), written_at: firstSent(request).toISOString(), [navigation.key]: id };
      await store.add(target.set, added, repeatabilityId);
      return { status: 201, body: added, headers: { Location: `${target.set}('${added.id}')` } };
    });
  }

  /** Does what a request asks for, or answers as it did the first time (OASIS OData Repeatable Requests 1.0). */
  async function repeatable(
    request: IncomingMessage,
    act: (repeatabilityId: string | undefined) => Promise<Answer>,
  ): Promise<Answer> {
    const id = request.headers['repeatability-request-id'] as string | undefined;
    if (!id) return act(undefined);
    const first = async (): Promise<Answer | undefined> => {
      const { status, location, body } = (await store.answered(id)) ?? {};
      if (status === undefined) return undefined;
      return {
        status,
        ...(body !== 'null' && { body: JSON.parse(body!) as object }),
        headers: { ...(location && { Location: location }), 'Repeatability-Result': 'accepted' },
      };
    };
    const before = await first();
    if (before) return before;
    try {
      const answer = await act(id);
      return { ...answer, headers: { ...answer.headers, 'Repeatability-Result': 'accepted' } };
    } catch (problem) {
      // The same request, twice at once: the other one has won.
      const winner = await first();
      if (!winner) throw problem;
      return winner;
    }
  }

  async function entity(type: EntityType, id: string, url: URL): Promise<Answer> {
    const record = await store.one(type.set, id);
    if (!record) throw new Refused(404, `There is no ${type.label.toLowerCase()} ${id}.`);
    const body = await new Reading(store).present(type, record, readOptions(url.searchParams));
    return { status: 200, body, headers: { ETag: etag(record) } };
  }

  async function stream(type: EntityType, id: string, name: string): Promise<Answer> {
    const media = (await store.one(type.set, id))?.body[name];
    const found = typeof media === 'string' ? await store.media(media) : undefined;
    if (!found) throw new Refused(404, `${type.label} ${id} has no ${name}.`);
    return {
      status: 200,
      body: found.content,
      headers: { 'Content-Type': found.content_type, ETag: `"${String(media)}"` },
    };
  }

  async function change(request: IncomingMessage, type: EntityType, id: string): Promise<Answer> {
    const changes = parseJson(await readBody(request));
    const match = request.headers['if-match'];
    if (!match) throw new Refused(428, 'Send If-Match with the version you changed.');
    return repeatable(request, async (repeatabilityId) => {
      const record = await store.one(type.set, id);
      if (!record) throw new Refused(404, `There is no ${type.label.toLowerCase()} ${id}.`);
      if (match !== '*' && match !== etag(record)) throw new Refused(412, 'Somebody else has changed the record.');
      refuseWrong(type, changes);
      const noted = { ...changes, ...ofChange(type, { at: firstSent(request), by: CALLER }) };
      const version = await store.change(type.set, id, record.version, noted, repeatabilityId);
      if (version === undefined) throw new Refused(412, 'Somebody else has changed the record.');
      return { status: 204, headers: { ETag: etag({ version }) } };
    });
  }

  async function attachments(request: IncomingMessage, { set, label }: EntityType, id: string): Promise<Answer> {
    if (!(await store.one(set, id))) throw new Refused(404, `There is no ${label.toLowerCase()} ${id}.`);
    if (request.method !== 'POST') return { status: 200, body: { value: await store.attachments(set, id) } };
    const content = await readBody(request);
    return repeatable(request, async (repeatabilityId) => {
      // Slug names a new media entity (RFC 5023, 9.7): percent-encoded UTF-8.
      const name = decodeURIComponent(String(request.headers.slug ?? '')).trim();
      if (!name) throw new Refused(400, 'Name the file in the Slug header.');
      const contentType = request.headers['content-type'] ?? 'application/octet-stream';
      const attachment = await store.attach(
        set,
        id,
        { name, contentType, content, at: firstSent(request) },
        repeatabilityId,
      );
      return { status: 201, body: attachment, headers: { Location: `Attachments('${attachment.id}')` } };
    });
  }

  /** Another content of a file (OData 4.01 protocol, 11.4.7.2), named by Content-Disposition (RFC 6266); the one before is kept. */
  async function revise(request: IncomingMessage, { set }: EntityType, recordId: string, id: string): Promise<Answer> {
    const content = await readBody(request);
    return repeatable(request, async (repeatabilityId) => {
      const [, encoded] = /filename\*=UTF-8''([^;]+)/i.exec(String(request.headers['content-disposition'] ?? '')) ?? [];
      if (!encoded) throw new Refused(400, 'Name the file in the Content-Disposition header.');
      const contentType = request.headers['content-type'] ?? 'application/octet-stream';
      const named = { name: decodeURIComponent(encoded), contentType, content, at: firstSent(request) };
      const attachment = await store.revise({ set, recordId, id }, named, repeatabilityId);
      if (!attachment) throw new Refused(404, 'There is no such attachment.');
      return { status: 200, body: attachment };
    });
  }

  async function attachmentContent(id: string, revision?: string): Promise<Answer> {
    const found = await store.attachmentContent(id, revision === undefined ? undefined : Number(revision));
    if (!found) throw new Refused(404, 'There is no such attachment.');
    const disposition = `inline; filename*=UTF-8''${encodeURIComponent(found.name)}`;
    return {
      status: 200,
      body: found.content,
      headers: { 'Content-Type': found.content_type, 'Content-Disposition': disposition },
    };
  }

  async function pages(request: IncomingMessage, url: URL): Promise<Answer> {
    const [, area = '', id, action] = url.pathname.split('/').map(decodeURIComponent);
    if (area === 'attachments' && id) return attachmentContent(id, action);
    if (area === 'fields') return request.method === 'POST' ? rename(request) : html(fieldsPage());
    const type = typeOfArea(area || FIRST_AREA);
    if (!type) throw new Refused(404, 'There is no such page.');
    if (!id) return html(listPage(type, await store.all(type.set)));
    const record = await store.one(type.set, id);
    if (!record) throw new Refused(404, 'There is no such page.');
    if (action === 'change' && request.method === 'POST') return changeByHand(request, type, record);
    return html(await show(type, record));
  }

  /** A field is set in a form; whoever did it sees the record again, or the one that it belongs to. */
  async function changeByHand(request: IncomingMessage, type: EntityType, record: StoredRecord): Promise<Answer> {
    const form = new URLSearchParams((await readBody(request)).toString());
    const property = type.properties.find(({ name }) => name === form.get('property'));
    if (!property) throw new Refused(400, 'There is no such field.');
    const value = typedValue(property, form.get('value') ?? '');
    const wrong = refusal(property, value);
    const noted = { [property.name]: value, ...ofChange(type, { at: new Date(), by: BY_HAND }) };
    if (!wrong) await store.change(type.set, record.id, record.version, noted);
    const owner = type.takesFiles ? undefined : type.navigations.find((each) => typeNamed(each.target).takesFiles);
    const shown = owner ? typeNamed(owner.target) : type;
    const shownId = owner ? String(record.body[owner.key]) : record.id;
    if (wrong) return html(await show(shown, (await store.one(shown.set, shownId))!, wrong), 422);
    return { status: 303, headers: { Location: pathOf(shown, shownId) } };
  }

  async function rename(request: IncomingMessage): Promise<Answer> {
    const form = new URLSearchParams((await readBody(request)).toString());
    const [type, from, to] = ['type', 'from', 'to'].map((name) => form.get(name) ?? '') as [string, string, string];
    const wrong = refuseRenaming({ type, from, to });
    if (wrong) return html(fieldsPage(wrong), 422);
    await store.rename(typeNamed(type).set, { type, from, to });
    renameField({ type, from, to });
    return { status: 303, headers: { Location: '/fields' } };
  }

  async function show(type: EntityType, record: StoredRecord, message?: string): Promise<string> {
    const lists = await Promise.all(
      type.navigations
        .filter(({ many }) => many)
        .map(async ({ label, target, key }) => ({
          label,
          type: typeNamed(target),
          records: await store.having(typeNamed(target).set, key, record.id),
        })),
    );
    const attachments = await Promise.all(
      (await store.attachments(type.set, record.id)).map(async (each) => ({
        ...each,
        earlier: await store.revisions(each.id),
      })),
    );
    return recordPage({ type, record, lists, attachments, lumbix: options.lumbixUrl, message });
  }

  async function faultSwitches(request: IncomingMessage): Promise<Answer> {
    if (request.method === 'POST') faults.add(parseJson(await readBody(request)) as unknown as Fault);
    if (request.method === 'DELETE') faults.clear();
    return { status: 200, body: { faults: faults.list() } };
  }

  return server;
}

/** Links between pages are absolute, as many services write them. */
const absolute = (request: IncomingMessage, link: string) => `http://${request.headers.host}/odata/${link}`;

const tracksChanges = (request: IncomingMessage, { searchParams }: URL) =>
  String(request.headers.prefer ?? '').includes('odata.track-changes') ||
  searchParams.has('$deltatoken') ||
  searchParams.has('$skiptoken');

function faultKind(request: IncomingMessage, url: URL): Fault['on'] | undefined {
  if (url.pathname === '/oauth/token') return 'token';
  if (!url.pathname.startsWith('/odata/')) return undefined;
  if (request.method === 'POST' && url.pathname.endsWith('/attachments')) return 'attach';
  if (request.method === 'PUT') return 'attach';
  if (request.method === 'POST' && !url.pathname.endsWith('$query')) return 'activity';
  return request.method === 'PATCH' ? 'patch' : 'read';
}

function refuseWrong(type: EntityType, changes: Body): void {
  for (const [name, value] of Object.entries(changes)) {
    const property = type.properties.find((each) => each.name === name);
    if (!property) throw new Refused(400, `${type.label} has no property ${name}.`);
    const wrong = refusal(property, value);
    if (wrong) throw new Refused(422, wrong);
  }
}

function collectionAnswer({ value, next, count }: { value: Body[]; next?: string; count?: number }): Answer {
  const body: Body = { value };
  if (count !== undefined) body['@odata.count'] = count;
  if (next) body['@odata.nextLink'] = next;
  return { status: 200, body };
}

const html = (body: string, status = 200): Answer => ({
  status,
  body,
  headers: { 'Content-Type': 'text/html; charset=utf-8' },
});

function odataError(status: number, message: string, headers: Record<string, string> = {}): Answer {
  return { status, body: { error: { code: String(status), message } }, headers };
}

function send(
  response: ServerResponse,
  { status, body, headers = {}, brokenBy }: Answer,
  socket: IncomingMessage['socket'],
): void {
  if (socket.destroyed) return;
  const isPlain = typeof body === 'object' && !Buffer.isBuffer(body);
  const type = isPlain ? { 'Content-Type': 'application/json' } : {};
  const content = Buffer.from((isPlain ? JSON.stringify(body) : body) ?? '');
  response.writeHead(status, {
    ...type,
    ...headers,
    'OData-Version': '4.01',
    ...(status !== 204 && { 'Content-Length': content.length }),
  });
  if (!brokenBy) return void response.end(content);
  response.write(content.subarray(0, content.length / 2), () => brokenBy === 'cut-off' && socket.destroy());
}

function parseJson(body: Buffer): Body {
  try {
    return JSON.parse(body.toString()) as Body;
  } catch {
    throw new Refused(400, 'The body is not JSON.');
  }
}

async function readBody(request: IncomingMessage): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request) {
    size += (chunk as Buffer).length;
    if (size > LARGEST_BODY) throw new Refused(413, 'The file is larger than 50 MiB.');
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
}
