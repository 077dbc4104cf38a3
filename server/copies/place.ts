/** Places where copies of filed documents are kept, outside of Lumbix and of the CRM. */

/** What a place did not do, with a sentence for people. `away` passes: the same may go well later. */
export class PlaceError extends Error {
  constructor(
    readonly failure: 'away' | 'refused',
    message: string,
  ) {
    super(message);
    this.name = 'PlaceError';
  }
}

/** A place that files are put at by their paths, such as `2026/Quotes/Q-2026-0001.pdf`. All of it throws PlaceError. */
export interface Place {
  /** Puts a file where there is none; `taken` where there is one, which stays as it is. */
  put(path: string, bytes: Uint8Array): Promise<'written' | 'taken'>;
  /** The bytes of a file; undefined where there is none. */
  read(path: string): Promise<Uint8Array | undefined>;
  /** Tries whether the place answers and lets Lumbix in. */
  test(): Promise<void>;
}

/** How long a place has for one answer, in milliseconds. */
export const PLACE_TIMEOUT = 10_000;

/** What an answer's status means. `where`: what the place is called. */
export function statusError(status: number, where: string): PlaceError {
  if (status === 401 || status === 403)
    return new PlaceError(
      'refused',
      `${where} does not accept Lumbix’s credentials (${status}). Look at it in Setup, Copies.`,
    );
  if (status === 404 || status === 409)
    return new PlaceError('refused', `${where} has no such folder or bucket (${status}). Look at it in Setup, Copies.`);
  if (status === 429 || status === 408 || status === 423 || status === 507 || status >= 500)
    return new PlaceError('away', `${where} answered with an error (${status}).`);
  return new PlaceError('refused', `${where} refused the file (${status}).`);
}

/** What is told where nothing was answered. */
export const unreached = (where: string): PlaceError => new PlaceError('away', `Nothing answers at ${where}.`);
