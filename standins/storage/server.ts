import { timingSafeEqual } from 'node:crypto';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { mkdir, readFile, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { AwsV4Signer } from 'aws4fetch';
import { Faults, type Fault } from '../faults';

export interface StorageOptions {
  /** Where it keeps what it is given. */
  folder: string;
  user: string;
  secret: string;
}

const LARGEST_BODY = 100 * 1024 * 1024;
/** How old a signed request may be, in milliseconds. */
const SIGNED_FOR = 15 * 60_000;

interface Answer {
  status: number;
  body?: string | Buffer;
  headers?: Record<string, string>;
}

/** The simulated storage: a WebDAV server (RFC 4918) under `/dav/`, and buckets that speak S3 under `/s3/`. */
export function createStorage({ folder, user, secret }: StorageOptions): Server {
  const faults = new Faults();

  const server = createServer((request, response) => {
    handle(request)
      .catch((problem: unknown): Answer => {
        process.stderr.write(`Storage stand-in: ${String(problem)}\n`);
        return { status: 500 };
      })
      .then((answer) => answer && send(response, answer));
  });

  async function handle(request: IncomingMessage): Promise<Answer | undefined> {
    const url = new URL(request.url ?? '/', `http://${request.headers.host}`);
    if (url.pathname === '/health') return { status: 200, body: 'ok' };
    if (url.pathname === '/faults') return faultSwitches(request);
    const fault = faults.next(request.method === 'PUT' ? 'attach' : 'read');
    if (fault?.kind === 'slow') await new Promise((done) => setTimeout(done, fault.delay ?? 1_000));
    if (fault?.kind === 'drop-before') return void request.socket.destroy();
    if (fault?.kind === 'status') {
      request.resume();
      return { status: fault.status ?? 500 };
    }
    const answer = await route(request, url);
    if (fault?.kind === 'drop-after') return void request.socket.destroy();
    return answer;
  }

  async function route(request: IncomingMessage, url: URL): Promise<Answer> {
    const [, area, ...names] = url.pathname.split('/').map(decodeURIComponent);
    const path = names.filter(Boolean);
    if (path.some((name) => name === '..' || name.includes('/') || name.includes('\\'))) return { status: 400 };
    if (area === 'dav') return isKnown(request) ? dav(request, path) : { status: 401, headers: BASIC };
    if (area === 's3') return (await isSigned(request, url)) ? s3(request, path) : { status: 403, body: DENIED };
    return { status: 404 };
  }

  /** Basic authentication (RFC 7617). */
  function isKnown(request: IncomingMessage): boolean {
    const given = Buffer.from(String(request.headers.authorization ?? '').replace(/^Basic /, ''), 'base64');
    return isSame(given, Buffer.from(`${user}:${secret}`));
  }

  /** AWS Signature Version 4: the same request is signed again, and must come out the same. */
  async function isSigned(request: IncomingMessage, url: URL): Promise<boolean> {
    const authorization = String(request.headers.authorization ?? '');
    const [, key, region, signed] =
      /^AWS4-HMAC-SHA256 Credential=([^/]+)\/\d{8}\/([^/]+)\/s3\/aws4_request, SignedHeaders=([^,]+), Signature=/.exec(
        authorization,
      ) ?? [];
    const datetime = String(request.headers['x-amz-date'] ?? '');
    const at = Date.parse(datetime.replace(/^(\d{4})(\d{2})(\d{2})T(\d{2})(\d{2})(\d{2})Z$/, '$1-$2-$3T$4:$5:$6Z'));
    if (key !== user || !signed || !(Math.abs(Date.now() - at) < SIGNED_FOR)) return false;
    const headers = Object.fromEntries(
      signed.split(';').flatMap((name) => (name === 'host' ? [] : [[name, String(request.headers[name] ?? '')]])),
    );
    const signer = new AwsV4Signer({
      method: request.method!,
      url: url.href,
      headers,
      accessKeyId: user,
      secretAccessKey: secret,
      region: region!,
      service: 's3',
      datetime,
    });
    const wanted = (await signer.sign()).headers.get('authorization') ?? '';
    return isSame(Buffer.from(authorization), Buffer.from(wanted));
  }

  async function dav(request: IncomingMessage, path: readonly string[]): Promise<Answer> {
    const place = join(folder, 'dav', ...path);
    switch (request.method) {
      case 'PROPFIND':
        return (await isFolder(place))
          ? { status: 207, body: multistatus(request.url!), headers: XML }
          : { status: 404 };
      case 'MKCOL':
        if (await exists(place)) return { status: 405 };
        if (!(await isFolder(dirname(place)))) return { status: 409 };
        await mkdir(place);
        return { status: 201 };
      case 'PUT':
        if (!(await isFolder(dirname(place)))) return { status: 409 };
        return put(request, place);
      case 'GET':
        return get(place);
      default:
        return { status: 405 };
    }
  }

  async function s3(request: IncomingMessage, [bucket, ...key]: readonly string[]): Promise<Answer> {
    const buckets = join(folder, 's3', bucket ?? '');
    if (!bucket || !(await isFolder(buckets))) return { status: 404, body: NO_BUCKET, headers: XML };
    // Keys are no folders.
    const place = join(buckets, encodeURIComponent(key.join('/')));
    if (request.method === 'HEAD' && key.length === 0) return { status: 200 };
    if (request.method === 'PUT' && key.length > 0) return put(request, place);
    if (request.method === 'GET' && key.length > 0) return get(place);
    return { status: 405 };
  }

  /** `If-None-Match: *` puts nothing in place of what is there (RFC 9110, 13.1.2). */
  async function put(request: IncomingMessage, place: string): Promise<Answer> {
    const bytes = await readBody(request);
    try {
      const flag = request.headers['if-none-match'] === '*' ? 'wx' : 'w';
      await writeFile(place, bytes, { flag });
      return { status: 201 };
    } catch (problem) {
      if ((problem as NodeJS.ErrnoException).code === 'EEXIST') return { status: 412 };
      throw problem;
    }
  }

  async function faultSwitches(request: IncomingMessage): Promise<Answer> {
    if (request.method === 'POST') faults.add(JSON.parse((await readBody(request)).toString()) as Fault);
    if (request.method === 'DELETE') faults.clear();
    return { status: 200, body: JSON.stringify({ faults: faults.list() }) };
  }

  return server;
}

/** The bucket and the folder that there are from the start. */
export async function prepareStorage(folder: string): Promise<void> {
  await mkdir(join(folder, 'dav'), { recursive: true });
  await mkdir(join(folder, 's3', 'copies'), { recursive: true });
}

const BASIC = { 'WWW-Authenticate': 'Basic realm="Storage stand-in"' };
const XML = { 'Content-Type': 'application/xml' };
const DENIED = '<Error><Code>SignatureDoesNotMatch</Code></Error>';
const NO_BUCKET = '<Error><Code>NoSuchBucket</Code></Error>';

const multistatus = (path: string): string =>
  `<?xml version="1.0"?><d:multistatus xmlns:d="DAV:"><d:response><d:href>${path}</d:href><d:propstat><d:prop><d:resourcetype><d:collection/></d:resourcetype></d:prop><d:status>HTTP/1.1 200 OK</d:status></d:propstat></d:response></d:multistatus>`;

async function get(place: string): Promise<Answer> {
  const found = await stat(place).catch(() => undefined);
  if (!found?.isFile()) return { status: 404 };
  return { status: 200, body: await readFile(place), headers: { 'Content-Type': 'application/octet-stream' } };
}

const exists = async (place: string): Promise<boolean> => (await stat(place).catch(() => undefined)) !== undefined;
const isFolder = async (place: string): Promise<boolean> =>
  (await stat(place).catch(() => undefined))?.isDirectory() ?? false;

const isSame = (one: Buffer, other: Buffer): boolean => one.length === other.length && timingSafeEqual(one, other);

function send(response: ServerResponse, { status, body, headers = {} }: Answer): void {
  if (response.destroyed) return;
  const content = Buffer.from(body ?? '');
  response.writeHead(status, { ...headers, 'Content-Length': content.length }).end(content);
}

async function readBody(request: IncomingMessage): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request) {
    size += (chunk as Buffer).length;
    if (size > LARGEST_BODY) throw new Error('The file is too large.');
    chunks.push(chunk as Buffer);
  }
  return Buffer.concat(chunks);
}
