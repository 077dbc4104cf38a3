import { figure } from './calculation';

/** The line that a line is a part of. Optional parts belong to optional lines, others to others; of two, the first counts. */
const HEAD = 'IF(optional, BUNDLEHEAD(lines[optional], sku, part_of), BUNDLEHEAD(lines[not optional], sku, part_of))';

/** Whether a line is the first of its SKU: the one that parts of that SKU belong to. */
const IS_FIRST = 'FIRST(lines[optional = this.optional and sku = this.sku]) = this';

/** The SKU of the line that a line belongs to, empty for one that is a part of none. */
export const BELONGS_TO = figure('text', 'belongs_to', 'Belongs to', `IF(ISBLANK(part_of), "", ${HEAD}.sku ?? "")`);

/** What all lines that belong to a line come to. */
export const PARTS_NET = `IF(COUNT(lines[belongs_to <> ""]) > 0 and ${IS_FIRST}, SUM(lines[belongs_to <> ""][optional = this.optional and belongs_to = this.sku].net), 0)`;
