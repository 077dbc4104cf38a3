import type { templateEndpoints } from '../../core/contract/templates';
import type { Answers } from '../edge/answer';
import { fileHeaders } from '../edge/file-headers';
import { putInTemplate, takeOutTemplate } from '../template-file';
import {
  archiveTemplate,
  clauseUses,
  listClauses,
  listTemplates,
  listVersions,
  readVersion,
  templateWithSchema,
} from '../templates';
import { templateThumbnail } from '../thumbnail';

export const templateAnswers: Answers<typeof templateEndpoints> = {
  'GET /templates': ({ services, caller }) => listTemplates(services.database, caller),
  'GET /clauses': ({ services }) => listClauses(services.database),
  'GET /clauses/{id}/uses': ({ parameters, services, caller }) => clauseUses(services.database, parameters.id, caller),
  'POST /templates': ({ query, body, services, caller }) => putInTemplate(services, body, caller, query),
  'GET /templates/{id}': ({ parameters, services, caller }) =>
    templateWithSchema(services.database, parameters.id, caller),
  'PUT /templates/{id}/archived': ({ parameters, body, services, caller }) =>
    archiveTemplate(services.database, parameters.id, body.archived, caller),
  'GET /templates/{id}/versions': ({ parameters, services, caller }) =>
    listVersions(services.database, parameters.id, caller),
  'GET /templates/{id}/versions/{version}': ({ parameters, services, caller }) =>
    readVersion(services.database, parameters.id, parameters.version, caller),
  'GET /templates/{id}/file': async ({ parameters, services, caller }) => {
    const { name, body } = await takeOutTemplate(services.database, parameters.id, caller);
    return { bytes: body, headers: fileHeaders('application/json; charset=utf-8', name, 'attachment') };
  },
  'GET /templates/{id}/thumbnail': async ({ parameters, services, caller }) => {
    const { png, version } = await templateThumbnail(services, parameters.id, caller);
    const kept = { 'Cache-Control': 'private, max-age=300', ETag: `"${version}"` };
    return { bytes: png, headers: { 'Content-Type': 'image/png', ...kept } };
  },
};
