import { anything, boolean, shape, text } from '../shape/shape';
import { all, uuidText, words } from './answers';
import { endpoint } from './endpoint';

export const systemEndpoints = {
  'GET /health': endpoint({
    about: 'Answers once Lumbix can work: its database answers and its press is open.',
    may: 'anyone',
    answer: shape({ ready: boolean().required() }).required(),
    twice: 'safe',
  }),
  'GET /openapi.json': endpoint({
    about: 'This description, in OpenAPI 3.1.',
    may: 'anyone',
    answer: anything<object>('An OpenAPI document.'),
    twice: 'safe',
  }),
  'GET /find': endpoint({
    about: 'Records, documents and templates by a few letters of their names or numbers.',
    may: 'look',
    query: shape({ q: text(200).default('') }).required(),
    answer: shape({
      records: all(shape({ type: words(), called: words(), id: words(), name: words(), account: words() }).required()),
      templates: all(shape({ id: words(), name: words(), kind: words() }).required()),
      documents: all(
        shape({ id: uuidText(), number: words(), title: words(), accountName: words(), state: words() }).required(),
      ),
    }).required(),
    twice: 'safe',
  }),
};
