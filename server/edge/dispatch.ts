import { createEventStream, createRouter, defineEventHandler, getQuery, getRouterParams, setResponseHeader, setResponseHeaders, setResponseStatus, type EventHandler, type H3Event } from 'h3'; // prettier-ignore
import type { ISchema } from 'yup';
import { isEvents, isFile, type Endpoint, type Method } from '../../core/contract/endpoint';
import type { ShapeOf } from '../../core/shape/shape';
import { accepted, acceptedTexts, Problem, sendProblem } from '../problem';
import type { Database } from '../db/database';
import { services } from '../services';
import type { Call, SentFile, Subscription } from './answer';
import { readBytes, readJson } from './body';
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
  const router = createRouter({ preemptive: true });
  for (const [key, endpoint] of Object.entries(contract)) {
    const [method, path] = key.split(' ') as [Method, string];
    const address = `/api${path.replaceAll(/\{(\w+)\}/g, ':$1')}`;
    const handler = defineEventHandler((event) => answer(event, key, endpoint, answers[key] as AnyAnswer));
    router.use(address, handler, method === 'GET' ? ['get', 'head'] : (method.toLowerCase() as Lowercase<Method>));
  }
  return defineEventHandler(async (event) => {
    try {
      return (await router.handler(event)) as unknown;
    } catch (thrown) {
      return sendProblem(event, foundNothing(thrown) ?? thrown);
    }
  });
}

/** The problem behind the router's own errors. */
function foundNothing(thrown: unknown): Problem | undefined {
  switch ((thrown as { statusCode?: number }).statusCode) {
    case 404:
      return new Problem(404, 'There is nothing at this address', 'Look how it is written. Nothing was changed.');
    case 405:
      return new Problem(405, 'This cannot be done at this address', 'Look how it is asked for. Nothing was changed.');
    default:
      return undefined;
  }
}

async function answer(event: H3Event, key: string, endpoint: Endpoint, give: AnyAnswer): Promise<unknown> {
  const opened = await services();
  const address = addressOf(event);
  await countAddress(address);
  const caller = await whoAsks(event, opened.database);
  if (endpoint.may !== 'anyone') admitCaller(caller, endpoint);
  if (caller) await countAccount(caller.id);
  if (endpoint.perMinute) await countEndpoint(key, endpoint.perMinute, caller?.id ?? address);
  const given = await give({
    parameters: inAddress(endpoint.parameters, decoded(getRouterParams(event))) as never,
    query: inAddress(endpoint.query, getQuery(event)) as never,
    body: (await bodyOf(event, endpoint)) as never,
    services: opened,
    caller: caller as never,
    event,
  });
  setResponseHeader(event, 'Cache-Control', 'no-store');
  if (isEvents(endpoint.answer)) return stream(event, endpoint, opened.database, given as Subscription<unknown>);
  setResponseStatus(event, endpoint.status ?? 200);
  if (!isFile(endpoint.answer)) return given;
  const { bytes, headers } = given as SentFile;
  setResponseHeaders(event, { ...headers });
  return bytes;
}

const inAddress = (shape: ISchema<unknown> | undefined, texts: object) =>
  shape === undefined ? undefined : acceptedTexts(shape as ShapeOf<unknown>, texts);

const decoded = (parameters: Record<string, string>) =>
  Object.fromEntries(Object.entries(parameters).map(([name, text]) => [name, decodeURIComponent(text)]));

async function bodyOf(event: H3Event, { body }: Endpoint): Promise<unknown> {
  if (body === undefined) return undefined;
  return isFile(body) ? readBytes(event, body.most!) : accepted(body as ShapeOf<unknown>, await readJson(event));
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
