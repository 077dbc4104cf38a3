import type { IncomingMessage } from 'node:http';
import {
  createEventStream,
  defineEventHandler,
  getHeader,
  setResponseHeader,
  setResponseHeaders,
  setResponseStatus,
  type EventHandler,
  type H3Event,
} from 'h3';
import type { ISchema } from 'yup';
import { isEvents, isFile, type Endpoint } from '../../core/contract/endpoint';
import type { ShapeOf } from '../../core/shape/shape';
import { accepted, acceptedTexts, Problem, sendProblem } from '../problem';
import type { Database } from '../db/database';
import { withSchemaAsItIs } from '../records/record-schema';
import { services } from '../services';
import { EncodedJson, type Call, type SentFile, type Subscription } from './answer';
import { readBytes, readJson } from './body';
import { sentEncoded, sentJson } from './json';
import { endpointFinder, type Found } from './find-endpoint';
import { addressOf } from './address';
import { countAccount, countAddress, countEndpoint } from './rate';
import { admitCaller, whoAsks } from './who';

/** An endpoint's function, whatever it takes and gives: `Answers` holds each to its own endpoint. */
type AnyAnswer = (call: Call<Endpoint>) => unknown;

/**
 * Answers requests by a contract: finds the endpoint, checks what comes in by its shapes, and sends what its function gives.
 * Every error leaves as problem details.
 */
export function dispatcher(
  contract: Readonly<Record<string, Endpoint>>,
  answers: Readonly<Record<string, unknown>>,
): EventHandler {
  const find = endpointFinder(contract, '/api');
  return defineEventHandler(async (event) => {
    try {
      const { method, originalUrl, url } = event.node.req as IncomingMessage & { originalUrl?: string };
      const found = find(method ?? 'GET', originalUrl ?? url ?? '');
      return await answer(event, found, answers[found.key] as AnyAnswer);
    } catch (thrown) {
      return sendProblem(event, thrown);
    }
  });
}

async function answer(event: H3Event, found: Found, give: AnyAnswer): Promise<unknown> {
  const { key, endpoint } = found;
  const opened = await services();
  const address = addressOf(event);
  await countAddress(address);
  const caller = await whoAsks(event, opened.database);
  if (endpoint.may !== 'anyone') admitCaller(caller, endpoint);
  if (caller) await countAccount(caller.id);
  if (endpoint.perMinute) await countEndpoint(key, endpoint.perMinute, caller?.id ?? address);
  const call = {
    parameters: inAddress(endpoint.parameters, found.parameters) as never,
    query: inAddress(endpoint.query, found.query) as never,
    body: (await bodyOf(event, endpoint)) as never,
    key: (endpoint.twice === 'keyed' ? keyOf(event) : undefined) as never,
    services: opened,
    caller: caller as never,
    event,
  };
  // What the CRM refuses is refused before anything is kept.
  const given = await withSchemaAsItIs(async () => give(call));
  setResponseHeader(event, 'Cache-Control', 'no-store');
  if (isEvents(endpoint.answer)) return stream(event, endpoint, opened.database, given as Subscription<unknown>);
  setResponseStatus(event, endpoint.status ?? 200);
  if (given instanceof EncodedJson) return sentEncoded(event, given);
  if (!isFile(endpoint.answer)) return sentJson(event, given);
  const { bytes, headers } = given as SentFile;
  setResponseHeaders(event, { ...headers });
  return bytes;
}

const inAddress = (shape: ISchema<unknown> | undefined, texts: object) =>
  shape === undefined ? undefined : acceptedTexts(shape as ShapeOf<unknown>, texts);

async function bodyOf(event: H3Event, { body }: Endpoint): Promise<unknown> {
  if (body === undefined) return undefined;
  return isFile(body) ? readBytes(event, body.most!) : accepted(body as ShapeOf<unknown>, await readJson(event));
}

/** What a caller names a request by, as itself or as a quoted string (RFC 8941, 3.3.3). @throws Problem where there is none */
function keyOf(event: H3Event): string {
  const key = /^"?([\x21\x23-\x5b\x5d-\x7e]{1,200})"?$/.exec(getHeader(event, 'idempotency-key') ?? '')?.[1];
  if (key !== undefined) return key;
  throw new Problem(
    400,
    'The request has no key',
    'Send a header Idempotency-Key with a new UUID for each filing, and the same one whenever you send it again. Nothing was done.',
    { reason: 'key' },
  );
}

/** Sends events until the other side goes away or is let in no more; what is the same as before is not sent again. */
function stream(
  event: H3Event,
  endpoint: Endpoint,
  database: Database,
  subscribe: Subscription<unknown>,
): Promise<void> {
  const events = createEventStream(event);
  let lastSent = '';
  const end = subscribe(async (told) => {
    const text = JSON.stringify(told);
    if (text === lastSent) return;
    lastSent = text;
    if (await isStillLetIn(event, endpoint, database)) await events.push(text);
    else await events.close();
  });
  events.onClosed(async () => {
    end();
    await events.close();
  });
  return events.send();
}

/** Whether who asked when a stream began would be let in now: sessions end while streams go on. */
async function isStillLetIn(event: H3Event, endpoint: Endpoint, database: Database): Promise<boolean> {
  try {
    admitCaller(await whoAsks(event, database), endpoint);
    return true;
  } catch {
    return false;
  }
}
