import { LINK } from '#core/rich/link';
import { sheetMark } from './sheet-node';

/** Looks besides bold, italic and underlined. They come after those in the order of a layout. */
export const quiet = sheetMark(
  'quiet',
  {},
  {
    priority: 60,
    renderHTML: () => ['span', { class: 'quiet' }, 0],
  },
);

/** The house style's accent, or a colour in hexadecimal digits. */
export const colour = sheetMark(
  'colour',
  { required: ['colour'] },
  {
    priority: 50,
    renderHTML: ({ mark }) => {
      const named = mark.attrs.colour as string;
      return ['span', { style: `color: ${named === 'accent' ? 'var(--accent)' : named}` }, 0];
    },
  },
);

export const link = sheetMark(
  'link',
  { required: ['href'] },
  {
    priority: 40,
    inclusive: false,
    parseHTML: () => [
      {
        tag: 'a[href]',
        getAttrs: (element) => {
          const href = element.getAttribute('href') ?? '';
          return LINK.test(href) && href.length <= 2_000 ? { href } : false;
        },
      },
    ],
    renderHTML: ({ mark }) => ['a', { 'data-href': mark.attrs.href as string, title: mark.attrs.href as string }, 0],
  },
);
