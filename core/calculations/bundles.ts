import type { Figure } from '../sheet/figure';
import { amount, figure } from './calculation';

/** The line that a line is a part of. Optional parts belong to optional lines, others to others; of two, the first counts. */
const head = (condition = '') =>
  `IF(optional, BUNDLEHEAD(lines[optional], sku, part_of${condition}), BUNDLEHEAD(lines[not optional], sku, part_of${condition}))`;

/** Whether a line is the first of its SKU: the one that parts of that SKU belong to. */
const IS_FIRST = 'FIRST(lines[optional = this.optional and sku = this.sku]) = this';

/** The SKU of the line that a line belongs to, empty for one that is a part of none. */
export const BELONGS_TO = figure('text', 'belongs_to', 'Belongs to', `IF(ISBLANK(part_of), "", ${head()}.sku ?? "")`);

/** What all lines that belong to a line come to. */
export const PARTS_NET = `IF(COUNT(lines[belongs_to <> ""]) > 0 and ${IS_FIRST}, SUM(lines[belongs_to <> ""][optional = this.optional and belongs_to = this.sku].net), 0)`;

/**
 * What a line of a bundle prints. A line whose parts are rolled up or hidden prints the sum of itself and everything inside
 * of it; what is inside prints nothing. Other parts are printed as lines of their own.
 */
const BUNDLE_FIGURES: readonly Figure[] = [
  figure('boolean', 'rolled', 'Parts rolled up', '(parts_shown ?? "") = "rolled up" or (parts_shown ?? "") = "hidden"'),
  figure('text', 'inside_of', 'Inside of', `IF(ISBLANK(part_of), "", ${head(', rolled')}.sku ?? "")`),
  figure('boolean', 'inside', 'Inside of another line', 'inside_of <> ""'),
  figure(
    'boolean',
    'two_heads',
    'Belongs to one of two lines',
    'IF(ISBLANK(part_of), false, COUNT(lines[optional = this.optional and sku = this.part_of]) > 1)',
  ),
  amount(
    'printed_net',
    'Printed net',
    `IF(rolled and not inside, net + IF(${IS_FIRST}, SUM(lines[inside][optional = this.optional and inside_of = this.sku].net), 0), net)`,
  ),
];

/** The section that a line is printed in: that of the line it belongs to, so that a bundle stays together. */
const BUNDLE_SECTION = figure(
  'text',
  'bundle_section',
  'Section of the bundle',
  `IF(ISBLANK(part_of), section, IF(ISBLANK(${head()}), section, ${head()}.section))`,
);
