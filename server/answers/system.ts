import { sql } from 'drizzle-orm';
import { openApi } from '../../core/contract/open-api';
import type { systemEndpoints } from '../../core/contract/system';
import type { Answers } from '../edge/answer';
import { find } from '../find';

export const systemAnswers: Answers<typeof systemEndpoints> = {
  'GET /health': async ({ services }) => {
    await services.database.execute(sql`select 1`);
    return { ready: true };
  },
  'GET /openapi.json': () => openApi(),
  'GET /find': ({ query, services, caller }) => find(services.database, query.q, caller),
};
