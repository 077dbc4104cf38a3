import { sha256Hex, shape } from '../shape/shape';
import { LARGEST_FILE, templateFile } from '../template/template-file';
import { endpoint } from './endpoint';

export const fileEndpoints = {
  'POST /files': endpoint({
    about: 'Keeps a picture or PDF for a template or for one document, once it was looked over; says what it is.',
    may: 'bring',
    body: { file: 'application/octet-stream', most: LARGEST_FILE },
    answer: templateFile,
    problems: [422],
    twice: 'same',
    perMinute: 120,
  }),
  'GET /files/{sha256}': endpoint({
    about: 'A picture or PDF by the SHA-256 of its bytes.',
    may: 'prove',
    parameters: shape({ sha256: sha256Hex().required() }).required(),
    answer: { file: 'application/octet-stream' },
    problems: [404],
    twice: 'safe',
  }),
};
