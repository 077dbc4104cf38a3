import { documentEndpoints } from './documents';
import { draftEndpoints } from './drafts';
import type { Endpoints } from './endpoint';
import { fileEndpoints } from './files';
import { ownEndpoints, peopleEndpoints, signInEndpoints } from './people';
import { placeEndpoints } from './places';
import { productionEndpoints } from './productions';
import { recordEndpoints } from './records';
import { seriesEndpoints } from './series';
import { systemEndpoints } from './system';
import { templateEndpoints } from './templates';

/** The contract's parts, by what they are called for people. */
export const PARTS: Readonly<Record<string, Endpoints>> = {
  Records: recordEndpoints,
  Proofs: productionEndpoints,
  Documents: documentEndpoints,
  Templates: templateEndpoints,
  Drafts: draftEndpoints,
  Files: fileEndpoints,
  'Finding, and Lumbix itself': systemEndpoints,
  'Signing in': signInEndpoints,
  Oneself: ownEndpoints,
  Setup: peopleEndpoints,
  'Places for copies': placeEndpoints,
  'Number series': seriesEndpoints,
};

/** Everything that Lumbix can be asked over HTTP, below `/api`. */
export const contract = {
  ...systemEndpoints,
  ...signInEndpoints,
  ...ownEndpoints,
  ...peopleEndpoints,
  ...recordEndpoints,
  ...productionEndpoints,
  ...documentEndpoints,
  ...templateEndpoints,
  ...draftEndpoints,
  ...fileEndpoints,
  ...placeEndpoints,
  ...seriesEndpoints,
} satisfies Endpoints;
export type Contract = typeof contract;
