import type { KindPanel } from '../../panel';

export const dividerPanel: KindPanel = {
  type: 'divider',
  label: 'Divider',
  fields: [],
  insert: { among: 'Page', make: () => ({ type: 'divider' }) },
};
