import { createHash } from 'node:crypto';
import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';

type Entity = Record<string, unknown>;

/**
 * An OData service of a workshop, whose types, keys, fields, relations and stages are called as nothing in the demo is. Its clients have
 * numbers for keys, what was deleted is told by its address alone, and a list ends after two records.
 */
export interface WorkshopCrm {
  url: string;
  orders: Entity[];
  /** Orders that were deleted since they were read. */
  gone: string[];
  papers: Entity[];
  close(): void;
}

const property = (name: string, type: string, more = '', inside = '') =>
  `<Property Name="${name}" Type="Edm.${type}" ${more}>${inside}</Property>`;
const annotation = (term: string, value: string) => `<Annotation Term="Org.OData.${term}" ${value}/>`;
const described = (text: string) => annotation('Core.V1.Description', `String="${text}"`);
const values = (...all: string[]) =>
  `<Annotation Term="Org.OData.Validation.V1.AllowedValues"><Collection>${all
    .map((value) => `<Record><PropertyValue Property="Value" String="${value}"/></Record>`)
    .join('')}</Collection></Annotation>`;

const METADATA = `<?xml version="1.0"?>
<edmx:Edmx Version="4.0" xmlns:edmx="http://docs.oasis-open.org/odata/ns/edmx"><edmx:DataServices>
<Schema Namespace="Workshop" xmlns="http://docs.oasis-open.org/odata/ns/edm">
<EntityType Name="Order"><Key><PropertyRef Name="code"/></Key>
${property('code', 'String', 'Nullable="false"')}
${property('title', 'String', 'Nullable="false"', described('Title'))}
${property('phase', 'String', 'Nullable="false"', values('Asked', 'Agreed', 'Made &#38; sent') + described('Phase'))}
${property('worth', 'Decimal', '', annotation('Measures.V1.ISOCurrency', 'Path="coin"'))}
${property('coin', 'String')}
${property('until', 'Date')}
<NavigationProperty Name="client" Type="Workshop.Client"/>
<NavigationProperty Name="papers" Type="Collection(Workshop.Paper)" ContainsTarget="true"/>
${described('Workshop order')}</EntityType>
<EntityType Name="Client"><Key><PropertyRef Name="number"/></Key>
${property('number', 'Int32', 'Nullable="false"')}${property('firm', 'String', 'Nullable="false"')}</EntityType>
<EntityType Name="Paper" HasStream="true"><Key><PropertyRef Name="id"/></Key>${property('id', 'String')}</EntityType>
<EntityContainer Name="All">
<EntitySet Name="Auftraege" EntityType="Workshop.Order">${described('Workshop orders')}</EntitySet>
<EntitySet Name="Kunden" EntityType="Workshop.Client"/>
</EntityContainer></Schema></edmx:DataServices></edmx:Edmx>`;

/** Starts the service, without any faults. */
export async function startWorkshopCrm(): Promise<WorkshopCrm> {
  const client = { number: 7, firm: 'Fen Nurseries' };
  const crm = {
    orders: [
      { code: "W'1", title: 'Two gates', phase: 'Asked', worth: '120.50', coin: 'EUR', until: '2026-12-01', client },
      { code: 'W2', title: 'A railing', phase: 'Agreed', worth: '80', coin: 'EUR', until: null, client: null },
      { code: 'W3', title: 'A stair', phase: 'Asked', worth: null, coin: null, until: '2027-01-05', client },
    ] as Entity[],
    gone: [] as string[],
    papers: [] as Entity[],
  };
  const server: Server = createServer((request, response) => {
    void read(request).then((body) => {
      const [status, answer] = answerOf(crm, request, body);
      const text = typeof answer === 'string' ? answer : JSON.stringify(answer);
      response.writeHead(status, { 'Content-Type': 'application/json' }).end(text);
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return Object.assign(crm, {
    url,
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  });
}

async function read(request: IncomingMessage): Promise<Buffer> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

function answerOf(crm: Omit<WorkshopCrm, 'url' | 'close'>, request: IncomingMessage, body: Buffer): [number, unknown] {
  const url = new URL(request.url!, 'http://crm');
  const path = decodeURIComponent(url.pathname);
  if (path === '/oauth/token') return [200, { access_token: 'x', expires_in: 3_600 }];
  if (path === '/odata/$metadata') return [200, METADATA];
  const one = /^\/odata\/(Auftraege|Kunden)\((?:'((?:[^']|'')*)'|(\d+))\)(\/papers)?$/.exec(path);
  if (one) {
    const [, set, text, number, papers] = one;
    if (set === 'Kunden') return number === '7' ? [200, { number: 7, firm: 'Fen Nurseries' }] : refused(400);
    const order = crm.orders.find(({ code }) => code === text?.replaceAll("''", "'"));
    if (!order) return refused(404);
    if (papers) return papersOf(crm, request, body);
    if (request.method === 'GET') return [200, { ...order, '@odata.etag': '"1"' }];
    Object.assign(order, JSON.parse(body.toString()));
    return [204, ''];
  }
  if (path === '/odata/Auftraege/$query') {
    const filter = new URLSearchParams(body.toString()).get('$filter')!;
    const wanted = [...filter.matchAll(/'((?:[^']|'')*)'/g)].map(([, code]) => code!.replaceAll("''", "'"));
    return filter.startsWith('code in')
      ? [200, { value: crm.orders.filter(({ code }) => wanted.includes(String(code))) }]
      : refused(400);
  }
  if (path !== '/odata/Auftraege') return refused(404);
  if (url.searchParams.has('$deltatoken')) {
    const removed = crm.gone.map((code) => ({ '@removed': {}, '@id': `Auftraege('${encodeURIComponent(code)}')` }));
    return [200, { value: removed, '@odata.deltaLink': 'Auftraege?$deltatoken=2' }];
  }
  if (url.searchParams.get('$orderby')?.startsWith('id')) return refused(400);
  const from = Number(url.searchParams.get('$skip') ?? 0);
  const isLast = from + 2 >= crm.orders.length;
  const link = isLast
    ? { '@odata.deltaLink': 'Auftraege?$deltatoken=1' }
    : { '@odata.nextLink': `Auftraege?$skip=${from + 2}` };
  return [200, { value: crm.orders.slice(from, from + 2), ...link }];
}

function papersOf(crm: Pick<WorkshopCrm, 'papers'>, request: IncomingMessage, body: Buffer): [number, unknown] {
  if (request.method === 'GET') return [200, { value: crm.papers }];
  const paper = {
    id: `P${crm.papers.length + 1}`,
    name: decodeURIComponent(String(request.headers.slug)),
    size: body.length,
    sha256: createHash('sha256').update(body).digest('hex'),
  };
  crm.papers.push(paper);
  return [201, paper];
}

const refused = (status: number): [number, unknown] => [status, { error: { code: String(status), message: 'No.' } }];
