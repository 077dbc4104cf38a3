import type { recordEndpoints } from '../../core/contract/records';
import { now } from '../clock';
import { changeField } from '../change';
import type { Answers } from '../edge/answer';
import { seesKind } from '../people/access';
import { registeredFor } from '../productions/registered';
import { documentsInHand } from '../productions/production';
import { templatesFor } from '../productions/templates-for';
import { changeLayout, readLayouts, readListAnew } from '../records/layout-setup';
import { withPictures } from '../records/pictures';
import {
  listRecords,
  recordSummary,
  recordTypes,
  recordValues,
  schemaFor,
  valuesHeld,
  wholeRecord,
} from '../records/record-list';

export const recordAnswers: Answers<typeof recordEndpoints> = {
  'GET /record-types': ({ caller }) => recordTypes(caller),
  'GET /record-types/{type}': ({ parameters, query, services, caller }) =>
    recordSummary(services.database, parameters.type, query, caller),
  'GET /records/{type}': ({ parameters, query, services, caller }) =>
    listRecords(services.database, parameters.type, query, caller),
  'GET /records/{type}/{id}': ({ parameters, caller }) => wholeRecord(parameters, caller),
  'GET /records/{type}/held': ({ parameters, query, caller }) => valuesHeld(parameters.type, query.path, caller),
  'GET /records/{type}/{id}/values': async ({ parameters, query: { paths, pictures }, services, caller }) => {
    const record = await recordValues(parameters, paths.split(','), caller);
    return pictures === undefined ? record : withPictures(services, record, pictures.split(','));
  },
  'GET /records/{type}/{id}/registered': async ({ parameters, services, caller }) => {
    await schemaFor(parameters.type, caller);
    const registered = await registeredFor(services.database, parameters, now());
    return registered.filter(({ kind }) => seesKind(caller, kind));
  },
  'GET /records/{type}/{id}/templates': ({ parameters, services, caller }) =>
    templatesFor(services.database, parameters, caller),
  'GET /records/{type}/{id}/in-hand': ({ parameters, services, caller }) =>
    documentsInHand(services.database, parameters, caller),
  'PATCH /fields': async ({ body, services, caller }) => {
    await changeField(services.database, body, caller);
    return { changed: true };
  },
  'GET /layouts': ({ services }) => readLayouts(services.database),
  'PUT /layouts/{type}': async ({ parameters, body, services, caller }) => {
    await changeLayout(services.database, parameters.type, body, caller);
    return { changed: true };
  },
  'DELETE /layouts/{type}': async ({ parameters, services, caller }) => {
    await changeLayout(services.database, parameters.type, undefined, caller);
    return { changed: true };
  },
  'POST /layouts/{type}/list': async ({ parameters, services }) => {
    await readListAnew(services.database, parameters.type);
    return { begun: true };
  },
};
