import type { KindPanel } from '../../panel';

export const listItemPanel: KindPanel = { type: 'listItem', label: 'Item', fields: [] };
