import { LINK } from './link';
import { Parser } from 'htmlparser2';
import { own } from '../record/own';

/** A piece of formatted running text. */
export type RichRun =
  { kind: 'text'; text: string; bold?: true; italic?: true; underline?: true; link?: string } | { kind: 'break' };

/** A block of a formatted text. */
export type RichBlock =
  { kind: 'paragraph' | 'heading'; runs: RichRun[] } | { kind: 'list'; numbered: boolean; items: RichRun[][] };

/** What stands inside of these is no text to print. */
const UNPRINTED = new Set([
  'script',
  'style',
  'template',
  'iframe',
  'object',
  'svg',
  'math',
  'head',
  'noscript',
  'textarea',
  'select',
  'audio',
  'video',
]);
const BLOCKS = new Set([
  'p',
  'div',
  'section',
  'article',
  'blockquote',
  'li',
  'ul',
  'ol',
  'table',
  'tr',
  'td',
  'th',
  'pre',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
]);
const MARKS: Readonly<Record<string, 'bold' | 'italic' | 'underline'>> = {
  b: 'bold',
  strong: 'bold',
  i: 'italic',
  em: 'italic',
  u: 'underline',
};
/**
 * The blocks of a formatted text. Only paragraphs, headings, lists, bold, italic, underlined and links are taken from
 * the HTML; scripts, styles and everything that could load something are left out, other elements give their text.
 */
export function richBlocks(html: string): RichBlock[] {
  const blocks: RichBlock[] = [];
  const marks: ('bold' | 'italic' | 'underline')[] = [];
  const lists: Extract<RichBlock, { kind: 'list' }>[] = [];
  const links: (string | undefined)[] = [];
  let unprinted = 0;
  let heading = false;
  let runs: RichRun[] = [];

  const finish = () => {
    const trimmed = trimmedRuns(runs);
    runs = [];
    if (trimmed.length === 0) return;
    const list = lists[0];
    if (list) list.items.push(trimmed);
    else blocks.push({ kind: heading ? 'heading' : 'paragraph', runs: trimmed });
  };
  const parser = new Parser({
    onopentag(name, attributes) {
      if (UNPRINTED.has(name)) unprinted++;
      if (unprinted > 0) return;
      if (name === 'br') runs.push({ kind: 'break' });
      const mark = own(MARKS, name);
      if (mark) marks.push(mark);
      if (name === 'a') links.push(LINK.test(attributes.href ?? '') ? attributes.href : undefined);
      if (BLOCKS.has(name)) finish();
      heading ||= /^h[1-6]$/.test(name);
      if (name === 'ul' || name === 'ol') {
        // Lists inside of lists are printed as one: their items follow each other.
        const list = lists[0] ?? { kind: 'list' as const, numbered: name === 'ol', items: [] };
        if (lists.length === 0) blocks.push(list);
        lists.push(list);
      }
    },
    ontext(text) {
      if (unprinted > 0) return;
      const marked = Object.fromEntries(marks.map((mark) => [mark, true as const]));
      const link = links.at(-1);
      runs.push({ kind: 'text', text: text.replace(/\s+/g, ' '), ...marked, ...(link && { link }) });
    },
    onclosetag(name) {
      if (UNPRINTED.has(name)) unprinted--;
      if (unprinted > 0) return;
      const mark = own(MARKS, name);
      if (mark) marks.splice(marks.lastIndexOf(mark), 1);
      if (name === 'a') links.pop();
      if (BLOCKS.has(name)) finish();
      if (/^h[1-6]$/.test(name)) heading = false;
      if (name === 'ul' || name === 'ol') lists.pop();
    },
  });
  parser.write(html);
  parser.end();
  finish();
  return blocks.filter((block) => block.kind !== 'list' || block.items.length > 0);
}

/** What a formatted text may be made of to be changed here: what has other elements would lose them. Nobody misses scripts. */
const EDITABLE = new Set([
  'script',
  'style',
  'p',
  'br',
  'ul',
  'ol',
  'li',
  'h1',
  'h2',
  'h3',
  'h4',
  'h5',
  'h6',
  'a',
  ...Object.keys(MARKS),
]);

/** Whether a formatted text can be changed here and stay as it is otherwise: it has no tables, pictures or such in it. */
export function isEditable(html: string): boolean {
  let editable = true;
  const parser = new Parser({ onopentag: (name) => void (editable &&= EDITABLE.has(name)) });
  parser.write(html);
  parser.end();
  return editable;
}

/** A formatted text as HTML of nothing but what is printed of it. */
export function cleanHtml(html: string): string {
  return richBlocks(html)
    .map((block) => {
      if (block.kind !== 'list') return element(block.kind === 'heading' ? 'h2' : 'p', htmlOf(block.runs));
      return element(block.numbered ? 'ol' : 'ul', block.items.map((item) => element('li', htmlOf(item))).join(''));
    })
    .join('');
}

const element = (name: string, inner: string, attributes = '') => `<${name}${attributes}>${inner}</${name}>`;
const TAGS = { bold: 'strong', italic: 'em', underline: 'u' } as const;

function htmlOf(runs: readonly RichRun[]): string {
  return runs
    .map((run) => {
      if (run.kind === 'break') return '<br>';
      const marked = (Object.keys(TAGS) as (keyof typeof TAGS)[])
        .filter((mark) => run[mark])
        .reduce((inner, mark) => element(TAGS[mark], inner), escaped(run.text));
      return run.link === undefined ? marked : element('a', marked, ` href="${escaped(run.link)}"`);
    })
    .join('');
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => ESCAPES[sign]!);

/** A formatted text as plain text, a line for each block and item. */
export function plainText(html: string): string {
  const lines = richBlocks(html).flatMap((block) => (block.kind === 'list' ? block.items : [block.runs]));
  return lines.map((runs) => runs.map((run) => (run.kind === 'text' ? run.text : '\n')).join('')).join('\n');
}

/** Without the white space at both ends and without doubled spaces between pieces. */
function trimmedRuns(runs: readonly RichRun[]): RichRun[] {
  const kept: RichRun[] = [];
  for (const run of runs) {
    const before = kept.at(-1);
    const starts = before === undefined || before.kind === 'break' || before.text.endsWith(' ');
    const text = run.kind === 'text' && starts ? run.text.replace(/^ /, '') : run.kind === 'text' ? run.text : '';
    if (run.kind === 'break') kept.push(run);
    else if (text !== '') kept.push({ ...run, text });
  }
  while (kept.length > 0) {
    const last = kept.at(-1)!;
    if (last.kind === 'text' && last.text.trimEnd() !== '') {
      kept[kept.length - 1] = { ...last, text: last.text.trimEnd() };
      break;
    }
    kept.pop();
  }
  return kept;
}
