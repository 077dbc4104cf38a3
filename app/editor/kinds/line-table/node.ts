import { computedBlock } from '../../sheet-node';

/** A table of a list's items, a row each. */
export const lineTable = computedBlock('lineTable', {
  required: ['label', 'list', 'columns'],
  optional: ['filter', 'sort', 'empty', 'groups', 'bundles', 'carry', 'style'],
});
