import { setResponseHeader, setResponseStatus, type H3Event } from 'h3';
import { reportOf, shapedFromTexts, shapedQuietly, type Fault } from '../core/shape/faults';
import type { ShapeOf } from '../core/shape/shape';
import { SourceError, type SourceFailure } from './records/source';
import { isDatabaseAway } from './db/away';
import { log, withoutData } from './log';
import { PastBounds } from './press/bounds';

/** Something a person asked for that cannot be done, as RFC 9457 problem details: what happened and what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    /** Further members for programs. */
    readonly members: Readonly<Record<string, unknown>> = {},
  ) {
    super(detail);
    this.name = 'Problem';
  }
}

/** Makes an error the answer of a request. Gives the body. */
export function sendProblem(event: H3Event, thrown: unknown): object {
  const { status, title, detail, members } = asProblem(thrown);
  setResponseStatus(event, status);
  setResponseHeader(event, 'Content-Type', 'application/problem+json');
  return { type: 'about:blank', status, title, detail, ...members };
}

/** What a request's body brings, in its shape. @throws Problem with every fault and its place. */
export function accepted<T>(shape: ShapeOf<T>, data: unknown): T {
  const read = shapedQuietly(shape, data, 'the request');
  if ('value' in read) return read.value;
  throw wrongRequest(422, read.faults);
}

/** What a request's address brings: texts that are read as what belongs there. @throws Problem with every fault and its place. */
export function acceptedTexts<T>(shape: ShapeOf<T>, texts: object): T {
  const read = shapedFromTexts(shape, texts, 'the request');
  if ('value' in read) return read.value;
  throw wrongRequest(400, read.faults);
}

function wrongRequest(status: number, found: readonly Fault[]): Problem {
  const { faults, count } = reportOf(found);
  return new Problem(status, 'The request is not valid', faults[0]!.sentence, { reason: 'request', faults, count });
}

function asProblem(thrown: unknown): Problem {
  if (thrown instanceof Problem) return thrown;
  if (thrown instanceof SourceError) return crmProblem(thrown);
  if (thrown instanceof PastBounds)
    return new Problem(422, 'This is too large', `${thrown.message} Nothing was changed.`, { reason: 'bounds' });
  if (thrown instanceof URIError)
    return new Problem(400, 'The address is not right', 'A % in it is not followed by two digits of a character.');
  log.error(withoutData(thrown), 'A request could not be answered.');
  if (isDatabaseAway(thrown))
    return new Problem(
      503,
      'The database can’t be reached',
      'Lumbix cannot reach its database. Nothing was changed; try again in a moment.',
    );
  return new Problem(
    500,
    'Something went wrong',
    'Lumbix could not do this. Nothing was changed; try again, and look at the log if it happens again.',
  );
}

const CRM_PROBLEMS: Readonly<Record<SourceFailure, [status: number, title: string, advice: string]>> = {
  away: [503, 'The CRM can’t be reached', 'Lumbix itself works; what is in the register can still be opened.'],
  refused: [422, 'The CRM refused this', 'Nothing was changed.'],
  conflict: [
    409,
    'Someone else changed this record',
    'Nothing was changed. Load the record again, then repeat your change.',
  ],
  missing: [404, 'The CRM has no such record', 'It may have been deleted there. Nothing was changed.'],
};

function crmProblem({ failure, message }: SourceError): Problem {
  const [status, title, advice] = CRM_PROBLEMS[failure];
  // What the CRM says of a record that it has not repeats what it was asked for.
  const detail = failure === 'missing' ? advice : `${message} ${advice}`;
  return new Problem(status, title, detail, { reason: `crm-${failure}` });
}
