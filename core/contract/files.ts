import { shape, text } from '../shape/shape';
import { LARGEST_FILE, templateFile } from '../template/template-file';
import { endpoint } from './endpoint';

export const fileEndpoints = {
  'POST /files': endpoint({
    about: 'Keeps a picture or PDF for a template, once it was looked over; says what it is.',
    may: 'publish',
    body: { file: 'application/octet-stream', most: LARGEST_FILE },
    answer: templateFile,
    problems: [422],
    twice: 'same',
    perMinute: 120,
  }),
  'GET /files/{sha256}': endpoint({
    about: 'A picture or PDF by the SHA-256 of its bytes.',
    may: 'publish',
    parameters: shape({
      sha256: text(64)
        .matches(/^[0-9a-f]{64}$/, 'a SHA-256 in hexadecimal')
        .required(),
    }).required(),
    answer: { file: 'application/octet-stream' },
    problems: [404],
    twice: 'safe',
  }),
};
