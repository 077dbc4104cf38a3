import { plainNode } from './sheet-node';
import { REGIONS } from './layout-doc';

/** The whole sheet: what runs along its pages, where that is the template's own, and its body. */
export const sheet = plainNode('doc', {
  topNode: true,
  content: 'pageHeader? pageFollowingHeader? pageBody pageFooter?',
});

/** The parts of the sheet, each by itself: what is written in one never runs into another. */
export const regions = REGIONS.map(([name, field]) =>
  plainNode(name, {
    content: 'block*',
    isolating: true,
    selectable: false,
    renderHTML: () => ['div', { 'data-region': field }, 0],
  }),
);
