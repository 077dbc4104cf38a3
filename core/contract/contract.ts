import { dealEndpoints } from './deals';
import { documentEndpoints } from './documents';
import type { Endpoints } from './endpoint';
import { proofEndpoints } from './proofs';
import { systemEndpoints } from './system';
import { templateEndpoints } from './templates';

/** Everything that Lumbix can be asked over HTTP, below `/api`. */
export const contract = {
  ...systemEndpoints,
  ...dealEndpoints,
  ...proofEndpoints,
  ...documentEndpoints,
  ...templateEndpoints,
} satisfies Endpoints;
export type Contract = typeof contract;
