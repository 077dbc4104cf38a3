import type { KindPanel } from '../../panel';

export const headingPanel: KindPanel = {
  type: 'heading',
  label: 'Heading',
  fields: [
    {
      is: 'choice',
      key: 'level',
      label: 'Level',
      options: [1, 2, 3].map((level) => ({ value: level, label: String(level) })),
    },
  ],
  insert: { among: 'Text', keys: '# at a line’s start', make: () => ({ type: 'heading', attrs: { level: 2 } }) },
};
