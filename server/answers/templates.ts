import type { templateEndpoints } from '../../core/contract/templates';
import type { Answers } from '../edge/answer';
import { fileHeaders } from '../edge/file-headers';
import { putInTemplate, takeOutTemplate } from '../template-file';
import { listTemplates, publishSheet, templateWithSchema } from '../templates';
import { templateThumbnail } from '../thumbnail';

export const templateAnswers: Answers<typeof templateEndpoints> = {
  'GET /templates': ({ services }) => listTemplates(services.database),
  'POST /templates': ({ query, body, services }) => putInTemplate(services, body, query.reason),
  'GET /templates/{id}': ({ parameters, services }) => templateWithSchema(services.database, parameters.id),
  'GET /templates/{id}/file': async ({ parameters, services }) => {
    const { name, body } = await takeOutTemplate(services.database, parameters.id);
    return { bytes: body, headers: fileHeaders('application/json; charset=utf-8', name, 'attachment') };
  },
  'GET /templates/{id}/thumbnail': async ({ parameters, services }) => {
    const { png, version } = await templateThumbnail(services, parameters.id);
    const kept = { 'Cache-Control': 'private, max-age=300', ETag: `"${version}"` };
    return { bytes: png, headers: { 'Content-Type': 'image/png', ...kept } };
  },
  'PUT /templates/{id}/sheet': ({ parameters, body, services }) => publishSheet(services, parameters.id, body),
};
