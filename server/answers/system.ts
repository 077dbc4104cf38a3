import { sql } from 'drizzle-orm';
import { openApi } from '../../core/contract/open-api';
import type { systemEndpoints } from '../../core/contract/system';
import type { Answers } from '../edge/answer';
import { find } from '../find';

/** Made at the first request: the contract does not change while Lumbix runs. */
let description: ReturnType<typeof openApi> | undefined;

export const systemAnswers: Answers<typeof systemEndpoints> = {
  'GET /health': async ({ services }) => {
    await services.database.execute(sql`select 1`);
    return { ready: true };
  },
  'GET /openapi.json': () => (description ??= openApi()),
  'GET /find': ({ query, services, caller }) => find(services.database, query.q, caller),
};
