import type { fileEndpoints } from '../../core/contract/files';
import type { Answers } from '../edge/answer';
import { fileOf, putFile } from '../files';

/** What is kept under a hash never becomes another file. Opened by itself, a drawing runs and loads nothing. */
const KEPT_HEADERS = {
  'Cache-Control': 'private, max-age=31536000, immutable',
  'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
};

export const fileAnswers: Answers<typeof fileEndpoints> = {
  'POST /files': ({ body, services }) => putFile(services, body),
  'GET /files/{sha256}': async ({ parameters, services }) => {
    const { mediaType, bytes } = await fileOf(services.database, parameters.sha256);
    return { bytes, headers: { 'Content-Type': mediaType, ...KEPT_HEADERS } };
  },
};
