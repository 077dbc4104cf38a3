import { boolean, label, listOf, number, oneOf, requiredMapOf, shape, text, uuid } from '../shape/shape';
import { all, count, moment, uuidText, words } from './answers';
import { endpoint } from './endpoint';
import { days, listQuery } from './list-query';
import { ROLES } from './permissions';

/** Characters of a password: long ones are welcome, and nobody may have the server hash a book. */
const PASSWORD_LENGTH = { least: 12, most: 200 } as const;

const email = () =>
  text(200)
    .matches(/^[^\s@<>,;"]+@[^\s@<>,;"]+$/, 'an e-mail address')
    .required();
const password = () => text(PASSWORD_LENGTH.most).required();
const newPassword = () => text(PASSWORD_LENGTH.most).min(PASSWORD_LENGTH.least).required();
/** A one-time code of six digits, or a recovery code. */
const code = () => text(20).required();
const linkToken = () => text(100).required();
const role = oneOf(ROLES).required();
/** One role at least, each once. */
const roles = () => listOf(role, ROLES.length).min(1).required();
const anyRoles = () => listOf(role, ROLES.length).required();
const ofOne = shape({ id: uuid().required() }).required();
const done = shape({ done: boolean().required() }).required();

/** Who sees documents of a kind or records of a type, and who acts on them; an empty list lets in whoever may otherwise. */
const rule = shape({ see: anyRoles(), act: anyRoles() }).required();
const rules = {
  /** By kind of document: who sees them, and who files them. */
  kinds: requiredMapOf(rule),
  /** By type of record: who sees them, and who changes them. */
  records: requiredMapOf(rule),
};

const me = shape({
  id: uuidText(),
  name: words(),
  email: words(),
  roles: anyRoles(),
  isDemo: boolean().required(),
  /** Whether one-time codes are asked for at sign-in, and how many recovery codes are left. */
  codes: boolean().required(),
  recoveryCodes: count(),
  rules: shape(rules).required(),
  /** Whom to ask for what one may not do. */
  administrators: all(words()),
}).required();

const session = shape({
  id: uuidText(),
  agent: words(),
  address: words(),
  createdAt: moment(),
  seenAt: moment(),
  isThis: boolean().required(),
}).required();

const apiToken = shape({
  id: uuidText(),
  name: words(),
  person: words(),
  roles: anyRoles(),
  createdAt: moment(),
  expiresAt: moment(),
  lastUsedAt: moment().nullable(),
}).required();

const link = shape({
  /** Shown this once. */
  link: words(),
  expiresAt: moment(),
}).required();

const trailQuery = {
  search: text(200),
  person: uuid(),
  subjectKind: text(40),
  subjectId: text(200),
  ...days,
};

export const signInEndpoints = {
  'GET /sign-in': endpoint({
    about: 'How one can sign in here: the accounts of the demo, where it is loaded.',
    may: 'anyone',
    answer: shape({ demo: all(shape({ id: uuidText(), name: words(), roles: anyRoles() }).required()) }).required(),
    twice: 'safe',
  }),
  'POST /sign-in': endpoint({
    about: 'Signs in with an e-mail address and a password, and a one-time code where the person has them.',
    may: 'anyone',
    body: shape({ email: email(), password: password(), code: text(20) }).required(),
    answer: me,
    problems: [401],
    twice: 'again',
  }),
  'POST /sign-in/demo': endpoint({
    about: 'Signs in as one of the accounts of the demo.',
    may: 'anyone',
    body: shape({ id: uuid().required() }).required(),
    answer: me,
    problems: [404],
    twice: 'again',
    perMinute: 240,
  }),
  'POST /invitation': endpoint({
    about: 'Whom a one-time link is for.',
    may: 'anyone',
    body: shape({ token: linkToken() }).required(),
    answer: shape({ name: words(), email: words(), roles: anyRoles(), isNew: boolean().required() }).required(),
    problems: [410],
    twice: 'same',
    perMinute: 60,
  }),
  'POST /invitation/accept': endpoint({
    about: 'Uses a one-time link: chooses the password and signs in.',
    may: 'anyone',
    /** Name and address where the link leaves them open, as a first administrator’s does. */
    body: shape({
      token: linkToken(),
      password: newPassword(),
      name: label().optional(),
      email: email().optional(),
    }).required(),
    answer: me,
    problems: [409, 410],
    twice: 'same',
    perMinute: 60,
  }),
  'DELETE /session': endpoint({
    about: 'Signs out.',
    may: 'own',
    answer: done,
    twice: 'same',
    people: true,
  }),
};

export const ownEndpoints = {
  'GET /me': endpoint({
    about: 'Who is signed in, and what roles may do here.',
    may: 'own',
    answer: me,
    twice: 'safe',
  }),
  'PUT /me/password': endpoint({
    about: 'Changes one’s password. Every other session ends.',
    may: 'own',
    body: shape({ current: password(), new: newPassword() }).required(),
    answer: done,
    twice: 'again',
    people: true,
    perMinute: 30,
  }),
  'GET /me/sessions': endpoint({
    about: 'Where one is signed in.',
    may: 'own',
    answer: all(session),
    twice: 'safe',
    people: true,
  }),
  'DELETE /me/sessions': endpoint({
    about: 'Signs out everywhere but here.',
    may: 'own',
    answer: shape({ ended: count() }).required(),
    twice: 'same',
    people: true,
  }),
  'DELETE /me/sessions/{id}': endpoint({
    about: 'Signs out in one of the places.',
    may: 'own',
    parameters: ofOne,
    answer: done,
    problems: [404],
    twice: 'same',
    people: true,
  }),
  'POST /me/codes': endpoint({
    about: 'Begins with one-time codes: a secret for an app that makes them, as text, as an address and as a picture.',
    may: 'own',
    body: shape({ password: password() }).required(),
    answer: shape({ secret: words(), uri: words(), picture: words() }).required(),
    problems: [409],
    twice: 'again',
    people: true,
    perMinute: 30,
  }),
  'POST /me/codes/confirm': endpoint({
    about: 'Turns one-time codes on by a first code, and gives the recovery codes.',
    may: 'own',
    body: shape({ code: code() }).required(),
    answer: shape({ recoveryCodes: all(words()) }).required(),
    problems: [409],
    twice: 'again',
    people: true,
    perMinute: 30,
  }),
  'POST /me/codes/off': endpoint({
    about: 'Turns one-time codes off.',
    may: 'own',
    body: shape({ password: password(), code: code() }).required(),
    answer: done,
    problems: [409],
    twice: 'same',
    people: true,
    perMinute: 30,
  }),
  'GET /me/tokens': endpoint({
    about: 'One’s tokens for programs.',
    may: 'own',
    answer: all(apiToken),
    twice: 'safe',
    people: true,
  }),
  'POST /me/tokens': endpoint({
    about: 'Makes a token for a program. It is shown this once.',
    may: 'own',
    body: shape({ name: label(), roles: roles(), days: number().integer().min(1).max(366).required() }).required(),
    answer: shape({ token: words(), id: uuidText(), expiresAt: moment() }).required(),
    twice: 'again',
    people: true,
    perMinute: 30,
  }),
  'DELETE /me/tokens/{id}': endpoint({
    about: 'Withdraws one of one’s tokens.',
    may: 'own',
    parameters: ofOne,
    answer: done,
    problems: [404],
    twice: 'same',
    people: true,
  }),
};

export const peopleEndpoints = {
  'GET /people': endpoint({
    about: 'Everybody who may sign in, the links that were not used yet, and the tokens of programs.',
    may: 'administer',
    answer: shape({
      people: all(
        shape({
          id: uuidText(),
          name: words(),
          email: words(),
          roles: anyRoles(),
          codes: boolean().required(),
          isDemo: boolean().required(),
          sessions: count(),
          seenAt: moment().nullable(),
          withdrawnAt: moment().nullable(),
        }).required(),
      ),
      invitations: all(
        shape({
          id: uuidText(),
          name: words(),
          email: words(),
          roles: anyRoles(),
          invitedBy: words(),
          expiresAt: moment(),
          isNew: boolean().required(),
        }).required(),
      ),
      tokens: all(apiToken),
    }).required(),
    twice: 'safe',
    people: true,
  }),
  'POST /people/invitations': endpoint({
    about: 'Invites a person: gives a link that works once, for three days.',
    may: 'administer',
    body: shape({ name: label(), email: email(), roles: roles() }).required(),
    answer: link,
    problems: [409],
    twice: 'again',
    people: true,
  }),
  'DELETE /people/invitations/{id}': endpoint({
    about: 'Withdraws a link that was not used yet.',
    may: 'administer',
    parameters: ofOne,
    answer: done,
    problems: [404],
    twice: 'same',
    people: true,
  }),
  'PUT /people/{id}/roles': endpoint({
    about: 'Gives a person other roles. Their sessions end, so that nothing old goes on with the new ones.',
    may: 'administer',
    parameters: ofOne,
    body: shape({ roles: roles() }).required(),
    answer: done,
    problems: [404, 409],
    twice: 'same',
    people: true,
  }),
  'PUT /people/{id}/withdrawn': endpoint({
    about: 'Takes a person’s access away, or gives it back. What they did stays under their name.',
    may: 'administer',
    parameters: ofOne,
    body: shape({ withdrawn: boolean().required() }).required(),
    answer: done,
    problems: [404, 409],
    twice: 'same',
    people: true,
  }),
  'DELETE /people/{id}/sessions': endpoint({
    about: 'Signs a person out everywhere.',
    may: 'administer',
    parameters: ofOne,
    answer: shape({ ended: count() }).required(),
    problems: [404],
    twice: 'same',
    people: true,
  }),
  'POST /people/{id}/link': endpoint({
    about: 'A one-time link with which a person chooses a new password, and turns one-time codes off.',
    may: 'administer',
    parameters: ofOne,
    answer: link,
    problems: [404],
    twice: 'again',
    people: true,
  }),
  'DELETE /people/tokens/{id}': endpoint({
    about: 'Withdraws a token, whosever it is.',
    may: 'administer',
    parameters: ofOne,
    answer: done,
    problems: [404],
    twice: 'same',
    people: true,
  }),
  'PUT /people/rules': endpoint({
    about: 'Limits kinds of documents and types of records to roles.',
    may: 'administer',
    body: shape(rules).required(),
    answer: shape(rules).required(),
    twice: 'same',
    people: true,
  }),
  'GET /connection': endpoint({
    about: 'The connection to the CRM, without its secret.',
    may: 'administer',
    answer: shape({
      url: words(),
      clientId: words(),
      changedAt: moment(),
      /** Whether a person set it, or the start command did. */
      byPerson: boolean().required(),
    }).required(),
    twice: 'safe',
    people: true,
  }),
  'PUT /connection': endpoint({
    about: 'Changes the connection to the CRM, once the CRM was reached with it. Without a secret the kept one stays.',
    may: 'administer',
    body: shape({
      url: text(500)
        .matches(/^https?:\/\/[^\s/?#@]+[^\s?#]*$/, 'an address such as https://crm.example')
        .required(),
      clientId: text(200).required(),
      secret: text(1_000),
    }).required(),
    answer: done,
    twice: 'same',
    people: true,
    perMinute: 30,
  }),
  'POST /connection/test': endpoint({
    about: 'Tries whether the CRM answers, and tells what it has.',
    may: 'administer',
    answer: shape({ types: all(shape({ name: words(), label: words(), fields: count() }).required()) }).required(),
    twice: 'same',
    people: true,
    perMinute: 30,
  }),
  'GET /trail': endpoint({
    about: 'A page of the audit trail: who did what, when, to which; the newest first.',
    may: 'administer',
    query: shape({ ...trailQuery, skip: listQuery.skip, top: listQuery.top }).required(),
    answer: shape({
      entries: all(
        shape({
          id: uuidText(),
          at: moment(),
          personName: words(),
          via: oneOf(['page', 'token', 'system']).required(),
          act: words(),
          subjectKind: words(),
          subjectId: words(),
          subjectName: words(),
          sentence: words(),
        }).required(),
      ),
      total: count(),
    }).required(),
    twice: 'safe',
  }),
  'GET /trail.csv': endpoint({
    about: 'The audit trail as CSV (RFC 4180).',
    may: 'administer',
    query: shape(trailQuery).required(),
    answer: { file: 'text/csv' },
    twice: 'safe',
  }),
};
