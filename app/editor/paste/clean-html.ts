/** The longest HTML that is looked through, in characters: beyond any document that people write. */
const LONGEST = 8_000_000;

/** The most blocks that are taken from another program at once. */
export const MOST_BLOCKS = 2_000;
/** Where a line begins. */
const LINES = /<(?:p|li|tr|h[1-6]|pre|blockquote)[\s>]/gi;

/** What is never text. */
const DROPPED =
  'script, style, head, title, meta, link, template, noscript, iframe, object, embed, svg, math, form, input, button, select';

/**
 * HTML from another program as the sheet reads it: with its lists as lists, one level deep, and with nothing but running text in items
 * and cells. It is parsed in a document of its own, where nothing runs and nothing is loaded.
 */
export function cleanHtml(html: string): string {
  const { body } = new DOMParser().parseFromString(
    withoutHandlers(shortened(withoutScripts(html.slice(0, LONGEST)))),
    'text/html',
  );
  for (const element of body.querySelectorAll(DROPPED)) element.remove();
  makeLists(body);
  for (const inner of [...body.querySelectorAll('li li')]) liftItem(inner);
  for (const holder of body.querySelectorAll('li, td, th')) joinLines(holder);
  return body.innerHTML;
}

/**
 * Without scripts and handlers already before it is parsed. They would not run in a document of its own; but the browser would look
 * at each, and report each to the page's policy.
 */
const withoutScripts = (html: string): string => html.replace(/<script\b[\s\S]*?<\/script\s*>/gi, '');
const withoutHandlers = (html: string): string =>
  html.replace(/<[^<>]*\son[^<>]*>/gi, (tag) => tag.replace(/\son\w+\s*=\s*("[^"]*"|'[^']*'|[^\s>]+)/gi, ''));

/** Without what comes after the most that is taken at once, and one more, by which that is noticed: it is not even parsed. */
function shortened(html: string): string {
  const lines = html.matchAll(LINES);
  let [count, end] = [0, html.length];
  for (const { index } of lines) {
    if (count++ <= MOST_BLOCKS) continue;
    end = index;
    break;
  }
  return html.slice(0, end);
}

/** Paragraphs that a word processor marked as items (`mso-list`) become items: one list for those that follow one another. */
function makeLists(body: HTMLElement): void {
  let list: Element | undefined;
  for (const paragraph of [...body.querySelectorAll('p')]) {
    if (!/mso-list:\s*l\d/.test(paragraph.getAttribute('style') ?? '')) continue;
    const sign = signOf(paragraph);
    const name = /^\(?(\d+|[a-z]|[ivxl]+)[.)]/i.test(sign) ? 'ol' : 'ul';
    if (!list || list.nextElementSibling !== paragraph || list.localName !== name) {
      list = body.ownerDocument.createElement(name);
      paragraph.before(list);
    }
    const item = body.ownerDocument.createElement('li');
    item.append(...paragraph.childNodes);
    list.append(item);
    paragraph.remove();
  }
}

/** The bullet or number that stands before an item as text; it is taken off. */
function signOf(paragraph: Element): string {
  const sign = [...paragraph.querySelectorAll('span')].find((span) =>
    /mso-list:\s*ignore/i.test(span.getAttribute('style') ?? ''),
  );
  if (sign) sign.remove();
  return sign?.textContent?.trim() ?? '';
}

/** An item within an item comes after it, in the same list. */
function liftItem(inner: Element): void {
  const list = inner.parentElement!;
  const outer = list.closest('li')!;
  // Those that follow it have been lifted before it when they are reached from the end.
  let last: Element = outer;
  while (last.nextElementSibling?.hasAttribute('data-lifted')) last = last.nextElementSibling;
  inner.setAttribute('data-lifted', '');
  last.after(inner);
  if (list.children.length === 0) list.remove();
}

/** Paragraphs inside an item or a cell become lines of it. */
function joinLines(holder: Element): void {
  for (const line of [...holder.querySelectorAll('p, div, h1, h2, h3, h4, h5, h6, blockquote')]) {
    if (line.nextSibling) line.after(line.ownerDocument.createElement('br'));
    line.replaceWith(...line.childNodes);
  }
}
