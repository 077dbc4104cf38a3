import { bulletList } from './bullet-list/node';
import { clause } from './clause/node';
import { code } from './code/node';
import { column, columns } from './columns/node';
import { divider } from './divider/node';
import { forEach } from './for-each/node';
import { gridCell, gridRow, gridTable } from './grid-table/node';
import { heading } from './heading/node';
import { keepTogether } from './keep-together/node';
import { lineTable } from './line-table/node';
import { listItem } from './list-item/node';
import { logo } from './logo/node';
import { numberedList } from './numbered-list/node';
import { documentTitle, pageCount, pageNumber } from './page-fields/node';
import { pageBreak } from './page-break/node';
import { paragraph } from './paragraph/node';
import { paymentCode } from './payment-code/node';
import { picture } from './picture/node';
import { richText } from './rich-text/node';
import { signature } from './signature/node';
import { space } from './space/node';
import { totals } from './totals/node';
import { value } from './value/node';
import { otherwise, then, whenSection } from './when-section/node';

/** Every kind of block and of inline content, with the parts that some of them are made of. */
export const KINDS = [
  paragraph, heading, bulletList, numberedList, listItem, gridTable, gridRow, gridCell, lineTable, totals, whenSection, then, otherwise,
  forEach, clause, richText, pageBreak, signature, picture, code, paymentCode, keepTogether, columns, column, logo, divider, space,
  value, pageNumber, pageCount, documentTitle,
]; // prettier-ignore
