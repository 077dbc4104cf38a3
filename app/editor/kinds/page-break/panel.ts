import type { KindPanel } from '../../panel';

export const pageBreakPanel: KindPanel = {
  type: 'pageBreak',
  label: 'Page break',
  fields: [],
  insert: { among: 'Page', make: () => ({ type: 'pageBreak' }) },
};
