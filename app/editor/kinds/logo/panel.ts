import { PLACE } from '../picture/panel';
import type { KindPanel } from '../../panel';

export const logoPanel: KindPanel = {
  type: 'logo',
  label: 'Logo',
  fields: [{ is: 'number', key: 'width', label: 'Width', unit: 'pt', least: 1, most: 2_000 }, PLACE],
  insert: { among: 'Page', make: () => ({ type: 'logo', attrs: { width: 120 } }) },
};
