/** A file that will not be taken. The message says why, and what to do. */
export class RefusedFile extends Error {
  override name = 'RefusedFile';
}
