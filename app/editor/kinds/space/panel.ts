import type { KindPanel } from '../../panel';

export const spacePanel: KindPanel = {
  type: 'space',
  label: 'Space',
  fields: [{ is: 'number', key: 'height', label: 'Height', unit: 'pt', least: 0, most: 2_000 }],
  insert: { among: 'Page', make: () => ({ type: 'space', attrs: { height: 14 } }) },
};
