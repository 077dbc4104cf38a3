import { blockList } from './blocks';
import { TABLE_STYLES } from './blocks/line-table';
import { id, label, number, oneOf, requiredMapOf, shape, text, type InferType } from '../shape/shape';

/** How a page is composed: over its full measure; or text in a narrower column, with headings hanging beside it. */
const COMPOSITIONS = ['full', 'hanging'] as const;

/** Families that come with Lumbix. */
const FONTS = ['Source Sans 3', 'Source Serif 4', 'Noto Sans'] as const;

const colour = () => text(7).matches(/^#[0-9a-f]{6}$/i, '“#” and six hexadecimal digits');
const margin = () => number().min(0).max(100).required();

/** Page margins in millimetres. */
export const margins = shape({ top: margin(), right: margin(), bottom: margin(), left: margin() });
export type Margins = NonNullable<InferType<typeof margins>>;

/** Type in points: running text, and how much larger one step of headings is than the next. */
const type = shape({ text: number().min(6).max(16).required(), step: number().min(1).max(2).required() });

/** What runs along the pages. `followingHeader`: header of the second page on; nothing where absent. */
export const letterhead = { header: blockList(), followingHeader: blockList(), footer: blockList() };
const wholeLetterhead = shape({ ...letterhead, header: blockList().required(), footer: blockList().required() });
export type Letterhead = NonNullable<InferType<typeof wholeLetterhead>>;

/** A brand's fonts, colours, logo, stationery and company details. */
export const houseStyle = shape({
  id: id(),
  name: label(),
  fonts: shape({ text: oneOf(FONTS).required(), headings: oneOf(FONTS).required() }).required(),
  type: type.required(),
  colours: shape({
    ink: colour().required(),
    quiet: colour().required(),
    accent: colour().required(),
    rule: colour().required(),
    tint: colour().required(),
  }).required(),
  table: oneOf(TABLE_STYLES).required(),
  composition: oneOf(COMPOSITIONS).required(),
  margins: margins.required(),
  /** SVG source, drawn by the project. */
  logo: shape({ svg: text(1_000_000).required(), alt: text(500).defined() }).required(),
  letterhead: wholeLetterhead.required(),
  /** Read in formulas as `company.name`, `company.country` and so on. */
  company: requiredMapOf(text(1_000).defined()),
}).required();
export type HouseStyle = InferType<typeof houseStyle>;

/** What a template has otherwise than its house style. */
export const ownStyle = shape({
  table: oneOf(TABLE_STYLES),
  composition: oneOf(COMPOSITIONS),
  type,
  colours: shape({ ink: colour(), quiet: colour(), accent: colour(), rule: colour(), tint: colour() }),
});
