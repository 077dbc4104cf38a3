import type { ShapeOf } from '../../shape/shape';
/** What bullet lists and numbered lists have in common. */
import type { Row } from '../../formula/row';
import type { FormulaChanges, WordsChanges } from '../changes';
import type { Composer } from '../composer';
import type { Run } from '../composed';
import { inlineShape, mapInlineFormulas, type Inline } from '../inlines';
import { attrs, branch } from '../node';

/** One item of a list, with running text. */
export interface ListItem {
  type: 'listItem';
  attrs: { id: string };
  content?: Inline[];
}

/** A list as it prints. `start`: the number of its first item; bullets where absent. */
export interface ComposedList {
  kind: 'list';
  block: string;
  items: Run[][];
  start?: number;
}

export const listItem: ShapeOf<ListItem> = branch('listItem', attrs({}), inlineShape);

interface List {
  attrs: { id: string };
  content?: ListItem[];
}

/** A list with the formulas of its items changed. */
export function mapItemFormulas<Kept extends List>(list: Kept, change: FormulaChanges): Kept {
  return {
    ...list,
    ...(list.content && {
      content: list.content.map((item) => ({ ...item, ...mapInlineFormulas(item.content, change) })),
    }),
  };
}

/** A list with the words of its items changed. */
export function mapItemWords<Kept extends List>(list: Kept, change: WordsChanges): Kept {
  return {
    ...list,
    ...(list.content && {
      content: list.content.map((item) => ({ ...item, ...change.content(item.attrs.id, item.content) })),
    }),
  };
}

/** The items that print. One whose values are all blank is no item; a list without items is no list. */
export function composeItems(
  { attrs: { id }, content = [] }: List,
  composer: Composer,
  row?: Row,
  start?: number,
): ComposedList[] {
  const items = content.map((item) => composer.inlines(item.content, id, row)).filter((runs) => runs.length > 0);
  return items.length === 0 ? [] : [{ kind: 'list', block: id, items, start }];
}
