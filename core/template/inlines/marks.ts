import { LINK } from '../../rich/link';
import { byType, listOf, oneOf, shape, text, type ShapeOf } from '../../shape/shape';

/** Looks of a piece of text, in the order that the editor keeps them in. */
const PLAIN_MARKS = ['bold', 'italic', 'underline', 'quiet'] as const;

/** How a piece of text looks. A colour is a house style's `accent` or six hexadecimal digits after `#`. */
export type Mark =
  | { type: (typeof PLAIN_MARKS)[number] }
  | { type: 'colour'; attrs: { colour: string } }
  | { type: 'link'; attrs: { href: string } };

const COLOUR = /^(accent|#[0-9a-f]{6})$/i;

const plain = Object.fromEntries(
  PLAIN_MARKS.map((type) => [type, shape({ type: oneOf([type]).required() }).required()]),
);
const colour: ShapeOf<Mark> = shape({
  type: oneOf(['colour']).required(),
  attrs: shape({
    colour: text(10).matches(COLOUR, '“accent”, or “#” and six hexadecimal digits').required(),
  }).required(),
}).required();
const link: ShapeOf<Mark> = shape({
  type: oneOf(['link']).required(),
  attrs: shape({
    href: text(2_000)
      .matches(LINK, 'an address such as https://…, mailto:… or tel:…, with nothing hidden in it')
      .required(),
  }).required(),
}).required();

const mark = byType<Mark>('mark', () => ({ ...plain, colour, link }));
export const marks = () => listOf(mark, 10);

/** Marks in the editor's order, each kind once. */
export function orderedMarks(all: readonly Mark[]): Mark[] {
  const ORDER: readonly string[] = [...PLAIN_MARKS, 'colour', 'link'];
  const byKind = new Map(all.map((each) => [each.type, each]));
  return [...byKind.values()].sort((a, b) => ORDER.indexOf(a.type) - ORDER.indexOf(b.type));
}
