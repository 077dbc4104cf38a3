/** The contract as an OpenAPI 3.1 document, whose schemas are JSON Schema (draft 2020-12). */
import type { ISchema } from 'yup';
import { jsonSchemaOf, namedSchemas } from '../shape/json-schema';
import { PARTS } from './contract';
import { isEvents, isFile, problemsOf, type Endpoint } from './endpoint';
import { PERMISSIONS } from './permissions';

type Json = Record<string, unknown>;

const SCHEMAS = '#/components/schemas/';

/** The description of every endpoint, for programs that call Lumbix. */
export function openApi(): Json {
  const paths: Record<string, Json> = {};
  for (const [part, endpoints] of Object.entries(PARTS)) {
    for (const [key, endpoint] of Object.entries(endpoints)) {
      const [method, path] = key.split(' ') as [string, string];
      paths[path] = { ...paths[path], [method.toLowerCase()]: operation(key, endpoint, part) };
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Lumbix',
      version: '1',
      description:
        'Quotes, proposals and invoices from CRM deals. Programs bring a token: `Authorization: Bearer …`. Every error is problem details (RFC 9457).',
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: '/api' }],
    tags: Object.keys(PARTS).map((name) => ({ name })),
    paths,
    components: {
      schemas: { ...namedSchemas(SCHEMAS), Problem: PROBLEM },
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer', description: 'A token that a person made for a program.' },
        session: { type: 'apiKey', in: 'cookie', name: 'lumbix', description: 'What a browser has after sign-in.' },
      },
      responses: {
        Problem: {
          description: 'What happened, what was kept, and what to do.',
          content: { 'application/problem+json': { schema: { $ref: `${SCHEMAS}Problem` } } },
        },
      },
    },
  };
}

const PROBLEM: Json = {
  type: 'object',
  properties: {
    type: { type: 'string' },
    status: { type: 'integer' },
    title: { type: 'string' },
    detail: { type: 'string' },
    reason: { type: 'string', description: 'A word for programs.' },
    faults: {
      type: 'array',
      description: 'What is wrong in a body, each with its place.',
      items: {
        type: 'object',
        properties: { path: { type: 'string' }, sentence: { type: 'string' } },
        required: ['path', 'sentence'],
      },
    },
  },
  required: ['type', 'status', 'title', 'detail'],
};

const REPEATED: Readonly<Record<Endpoint['twice'], string>> = {
  safe: 'Changes nothing.',
  same: 'Sent twice, it leaves what it left the first time.',
  again: 'Sent twice, it is done twice.',
  keyed: 'Sent twice with one key, it is done once and answers the same.',
};

function operation(key: string, endpoint: Endpoint, part: string): Json {
  const [method, path] = key.split(' ') as [string, string];
  const { about, body, parameters, query, status = 200 } = endpoint;
  const problems = problemsOf(endpoint).map((each) => [String(each), { $ref: '#/components/responses/Problem' }]);
  return {
    operationId: `${method.toLowerCase()}${path.replaceAll(/[^A-Za-z]+(\w?)/g, (_, letter: string) => letter.toUpperCase())}`,
    summary: about,
    description: `${whoMay(endpoint)} ${REPEATED[endpoint.twice]}`,
    tags: [part],
    ...(endpoint.may !== 'anyone' && { security: securityOf(endpoint) }),
    parameters: [
      ...inAddress('path', parameters),
      ...inAddress('query', query),
      ...(endpoint.twice === 'keyed' ? [KEY] : []),
    ],
    ...(body && { requestBody: { required: true, content: contentOf(body) } }),
    responses: {
      [status]: { description: 'Done.', content: contentOf(endpoint.answer) },
      ...Object.fromEntries(problems),
    },
  };
}

/** The IETF’s draft for the header field, in whose form keys come. */
const KEY: Json = {
  name: 'Idempotency-Key',
  in: 'header',
  required: true,
  description: 'Names what is asked for, once for each: a UUID, for instance.',
  schema: { type: 'string', minLength: 1, maxLength: 200 },
};

const securityOf = ({ people }: Endpoint) => (people ? [{ session: [] }] : [{ token: [] }, { session: [] }]);

function whoMay({ may }: Endpoint): string {
  if (may === 'anyone') return 'Anyone may ask.';
  if (may === 'own') return 'Anyone who is signed in may ask.';
  return `Takes one of the roles ${PERMISSIONS[may].roles.join(', ')}.`;
}

function inAddress(place: 'path' | 'query', shape: ISchema<unknown> | undefined): Json[] {
  if (shape === undefined) return [];
  const { properties, required = [] } = jsonSchemaOf(shape, SCHEMAS) as { properties: Json; required?: string[] };
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema,
  }));
}

function contentOf(content: NonNullable<Endpoint['body']> | Endpoint['answer']): Json {
  if (isFile(content)) return { [content.file]: { schema: { type: 'string', format: 'binary' } } };
  if (isEvents(content)) return { 'text/event-stream': { schema: jsonSchemaOf(content.events, SCHEMAS) } };
  return { 'application/json': { schema: jsonSchemaOf(content, SCHEMAS) } };
}
