import type { H3Error, H3Event } from 'h3';
import { Problem, sendProblem } from './problem';

/** Errors that the framework met before or outside a route are problem details too, and echo nothing of the request. */
export default async function answerError(error: H3Error, event: H3Event): Promise<void> {
  if (event.handled) return;
  const { statusCode } = error;
  const known = statusCode >= 400 && statusCode < 500;
  const body = await sendProblem(
    event,
    known
      ? new Problem(statusCode, 'The request is not valid', 'Lumbix cannot read this request. Nothing was changed.')
      : error,
  );
  event.node.res.end(JSON.stringify(body));
}
