import type { KindPanel } from '../panel';
import { bulletListPanel } from './bullet-list/panel';
import { clausePanel } from './clause/panel';
import { codePanel } from './code/panel';
import { columnPanel, columnsPanel } from './columns/panel';
import { dividerPanel } from './divider/panel';
import { forEachPanel } from './for-each/panel';
import { gridCellPanel, gridRowPanel, gridTablePanel } from './grid-table/panel';
import { headingPanel } from './heading/panel';
import { keepTogetherPanel } from './keep-together/panel';
import { lineTablePanel } from './line-table/panel';
import { listItemPanel } from './list-item/panel';
import { logoPanel } from './logo/panel';
import { numberedListPanel } from './numbered-list/panel';
import { pageBreakPanel } from './page-break/panel';
import { documentTitlePanel, pageCountPanel, pageNumberPanel } from './page-fields/panel';
import { paragraphPanel } from './paragraph/panel';
import { paymentCodePanel } from './payment-code/panel';
import { picturePanel } from './picture/panel';
import { richTextPanel } from './rich-text/panel';
import { signaturePanel } from './signature/panel';
import { spacePanel } from './space/panel';
import { totalsPanel } from './totals/panel';
import { valuePanel } from './value/panel';
import { otherwisePanel, thenPanel, whenSectionPanel } from './when-section/panel';

/** What people see of every kind, in the order of the Insert menu. */
export const PANELS: readonly KindPanel[] = [
  paragraphPanel, headingPanel, bulletListPanel, numberedListPanel, listItemPanel, gridTablePanel, gridRowPanel, gridCellPanel,
  lineTablePanel, totalsPanel, richTextPanel, codePanel, paymentCodePanel, picturePanel, valuePanel, clausePanel,
  signaturePanel, dividerPanel, spacePanel, pageBreakPanel, logoPanel, pageNumberPanel, pageCountPanel, documentTitlePanel,
  columnsPanel, columnPanel, keepTogetherPanel, whenSectionPanel, thenPanel, otherwisePanel, forEachPanel,
]; // prettier-ignore

export const panelOf = (type: string): KindPanel | undefined => PANELS.find((panel) => panel.type === type);
