import { boolean, formula, id, label, number, shape } from '../shape/shape';
import { MOST_BACKDATED } from '../production/issue-days';
import { all, count, day, words } from './answers';
import { endpoint } from './endpoint';

const ofSeries = shape({ id: id() }).required();
const done = shape({ done: boolean().required() }).required();

export const seriesEndpoints = {
  'GET /series': endpoint({
    about: 'The number series that documents take their numbers from.',
    may: 'look',
    answer: all(
      shape({
        id: words(),
        label: words(),
        formula: words(),
        /** How many days before today a document may be issued on. */
        backdatedDays: count(),
        /** The number that is taken next; null where the formula gives none. */
        next: words().nullable(),
        /** How many were taken this year. */
        taken: count(),
        /** The latest day that something was issued on. */
        lastIssued: day().nullable(),
      }).required(),
    ),
    twice: 'safe',
  }),
  'GET /series/numbers': endpoint({
    about: 'The first numbers that a formula of a series would give today, or why it gives none.',
    may: 'number',
    query: shape({ formula: formula().required() }).required(),
    answer: shape({ numbers: all(words()), fault: words().nullable() }).required(),
    twice: 'safe',
  }),
  'PUT /series/{id}': endpoint({
    about: 'Sets up a number series, or changes one. Numbers that were taken stay as they are.',
    may: 'number',
    parameters: ofSeries,
    body: shape({
      label: label(),
      formula: formula().required(),
      backdatedDays: number().integer().min(0).max(MOST_BACKDATED).required(),
    }).required(),
    answer: done,
    problems: [409, 422],
    twice: 'same',
    people: true,
  }),
  'DELETE /series/{id}': endpoint({
    about: 'Takes a number series away that no number was taken from and no template names.',
    may: 'number',
    parameters: ofSeries,
    answer: done,
    problems: [404, 409],
    twice: 'same',
    people: true,
  }),
};
