import { dealEndpoints } from './deals';
import { documentEndpoints } from './documents';
import type { Endpoints } from './endpoint';
import { ownEndpoints, peopleEndpoints, signInEndpoints } from './people';
import { productionEndpoints } from './productions';
import { systemEndpoints } from './system';
import { templateEndpoints } from './templates';

/** The contract's parts, by what they are called for people. */
export const PARTS: Readonly<Record<string, Endpoints>> = {
  Deals: dealEndpoints,
  Proofs: productionEndpoints,
  Documents: documentEndpoints,
  Templates: templateEndpoints,
  'Finding, and Lumbix itself': systemEndpoints,
  'Signing in': signInEndpoints,
  Oneself: ownEndpoints,
  Setup: peopleEndpoints,
};

/** Everything that Lumbix can be asked over HTTP, below `/api`. */
export const contract = {
  ...systemEndpoints,
  ...signInEndpoints,
  ...ownEndpoints,
  ...peopleEndpoints,
  ...dealEndpoints,
  ...productionEndpoints,
  ...documentEndpoints,
  ...templateEndpoints,
} satisfies Endpoints;
export type Contract = typeof contract;
