import type { Node } from '@tiptap/pm/model';
import type { NodeView } from '@tiptap/pm/view';
import { formulaWords } from '../../formula-words';
import type { PageView } from '#core/production/page-view';

/** What all values of the sheet are shown by: their texts for the record, and which formulas are figures. */
interface Showing {
  page: Pick<PageView, 'values' | 'faults'> | undefined;
  figures: ReadonlySet<string>;
}

let showing: Showing = { page: undefined, figures: new Set() };
const views = new Set<ValueView>();

/** Shows other values: only the words of a value change, never the document. */
export function showValues(next: Showing): void {
  showing = next;
  for (const view of views) view.show();
}

/** What a value says for the record that is shown; what it is called while there is nothing to show. */
export function shownWords({ attrs }: Node): string {
  const shown = showing.page?.values[(attrs.id as string | null) ?? ''];
  return shown ? shown.text : formulaWords(String(attrs.formula));
}

/** How a value without words is told from others: one that is left out, or a ruled space. */
const blankLook = (text: string) => (text === '' ? 'left-out' : text.trim() === '' ? 'ruled' : undefined);

/** A value in running text: what it gives for the record, or what it is called while there is nothing to show. */
export class ValueView implements NodeView {
  readonly dom = document.createElement('span');
  #node: Node;
  /** What is shown now. */
  #look = '';

  constructor(node: Node) {
    this.#node = node;
    this.dom.className = 'value';
    views.add(this);
    this.show();
  }

  update(node: Node): boolean {
    if (node.type !== this.#node.type) return false;
    this.#node = node;
    this.show();
    return true;
  }

  /** Takes the words of the value as it is now. */
  show(): void {
    const { id, formula } = this.#node.attrs as { id: string | null; formula: string };
    const shown = showing.page?.values[id ?? ''];
    const fault = shown ? (shown.fault ?? blankLook(shown.text)) : 'unknown';
    const sentence = fault && showing.page?.faults.find(({ value }) => value === id)?.sentence;
    // What is blank has a place all the same.
    const words = shownWords(this.#node).trim() || '\u00a0';
    const figure = showing.figures.has(formula.trim()) ? 'yes' : '';
    const title = sentence ? `${formula}: ${sentence}` : formula;
    // Hundreds are shown at each change, and few of them are others: the editor looks at whatever is written to the page.
    const look = [words, id, fault, figure, title].join('\n');
    if (look === this.#look) return;
    this.#look = look;
    this.dom.textContent = words;
    Object.assign(this.dom.dataset, { id: id ?? '', fault: fault ?? '', figure });
    this.dom.title = title;
  }

  destroy(): void {
    views.delete(this);
  }

  // What stands in it is not the document's.
  ignoreMutation(): boolean {
    return true;
  }
}
