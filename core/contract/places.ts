import { boolean, byType, id, label, oneOf, shape, text } from '../shape/shape';
import { all, moment, words } from './answers';
import { endpoint } from './endpoint';

/** A folder under the one that whoever runs Lumbix chose for copies. */
export interface FolderSettings {
  type: 'folder';
  /** Below that one; empty for itself. */
  folder: string;
}

/** A folder of a WebDAV server. */
export interface WebDavSettings {
  type: 'webDav';
  url: string;
  user: string;
}

/** A bucket of a storage service that speaks S3. */
export interface S3Settings {
  type: 's3';
  url: string;
  bucket: string;
  region: string;
  /** The access key's id. */
  user: string;
}

/** Where copies are kept, without its secret. */
export type PlaceSettings = FolderSettings | WebDavSettings | S3Settings;

const url = () =>
  text(500)
    .matches(/^https?:\/\/[^\s/?#@]+[^\s?#]*$/, 'an address such as https://files.example')
    .required();
const name = () => text(200).min(1).required();

const settings = byType<PlaceSettings>('placeSettings', () => ({
  folder: shape({ type: oneOf(['folder']).required(), folder: text(500).defined() }).required(),
  webDav: shape({ type: oneOf(['webDav']).required(), url: url(), user: name() }).required(),
  s3: shape({ type: oneOf(['s3']).required(), url: url(), bucket: name(), region: name(), user: name() }).required(),
}));

const ofPlace = shape({ id: id() }).required();
const done = shape({ done: boolean().required() }).required();

export const placeEndpoints = {
  'GET /places': endpoint({
    about: 'The places where copies of filed documents are kept, without their secrets.',
    may: 'look',
    answer: shape({
      places: all(shape({ id: words(), label: words(), settings, changedAt: moment() }).required()),
    }).required(),
    twice: 'safe',
  }),
  'PUT /places/{id}': endpoint({
    about:
      'Sets up a place for copies, once it let Lumbix in. Without a secret the kept one stays, as long as it goes to the same address.',
    may: 'administer',
    parameters: ofPlace,
    body: shape({ label: label(), settings, secret: text(1_000) }).required(),
    answer: done,
    problems: [422],
    twice: 'same',
    people: true,
    perMinute: 30,
  }),
  'POST /places/{id}/test': endpoint({
    about: 'Tries whether a place for copies answers.',
    may: 'administer',
    parameters: ofPlace,
    answer: done,
    problems: [404, 422],
    twice: 'same',
    people: true,
    perMinute: 30,
  }),
  'DELETE /places/{id}': endpoint({
    about: 'Takes a place for copies away. What is kept there stays; steps that wait for it are held.',
    may: 'administer',
    parameters: ofPlace,
    answer: done,
    problems: [404, 409],
    twice: 'same',
    people: true,
  }),
};
