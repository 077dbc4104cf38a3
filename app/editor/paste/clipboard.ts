import { Extension } from '@tiptap/core';
import { DOMSerializer, Fragment, Slice, type Schema } from '@tiptap/pm/model';
import { Plugin } from '@tiptap/pm/state';
import { WORDS } from '../commands';
import { named } from '../part-ids';
import { cleanHtml, MOST_BLOCKS } from './clean-html';

/** Where what was copied on a sheet is kept for other windows of this browser, with the key that the clipboard has. */
const KEPT = 'lumbix.copied';
const MARK = 'data-lumbix-copied';

interface Copied {
  key: string;
  slice: object;
}

/** Keeps a slice whole: what a block is computed from has no place in HTML, and HTML from elsewhere could say anything. */
function keep(slice: Slice): string {
  const key = crypto.randomUUID();
  try {
    localStorage.setItem(KEPT, JSON.stringify({ key, slice: slice.toJSON() as object } satisfies Copied));
  } catch {
    // There is no room: the text is in the clipboard all the same.
  }
  return key;
}

/** The slice that was kept under a key, as far as this sheet knows what is in it. */
function kept(key: string, schema: Schema): Slice | undefined {
  try {
    const copied = JSON.parse(localStorage.getItem(KEPT) ?? '') as Copied;
    return copied.key === key ? Slice.fromJSON(schema, copied.slice) : undefined;
  } catch {
    return undefined;
  }
}

/** Copying and pasting: whole between sheets, cleaned from other programs; pictures and tables of plain text too. */
export const clipboard = (actions: { putPictures: (files: readonly File[]) => void; tell: (words: string) => void }) =>
  Extension.create({
    name: 'sheetClipboard',
    addProseMirrorPlugins() {
      const { schema } = this.editor;
      let key = '';
      const serializer = DOMSerializer.fromSchema(schema);
      return [
        new Plugin({
          props: {
            transformCopied: (slice) => {
              key = keep(slice);
              return slice;
            },
            clipboardSerializer: {
              serializeFragment: (fragment: Fragment, options?: { document?: Document }) => {
                const doc = options?.document ?? document;
                const mark = doc.createElement('div');
                mark.setAttribute(MARK, key);
                mark.append(serializer.serializeFragment(fragment, { document: doc }));
                const whole = doc.createDocumentFragment();
                whole.append(mark);
                return whole;
              },
            } as unknown as DOMSerializer,
            transformPastedHTML: (html) => (html.includes(MARK) ? html : cleanHtml(html)),
            transformPasted: (slice) => {
              const { content, openStart, openEnd } = slice;
              if (content.childCount <= MOST_BLOCKS) return new Slice(named(content), openStart, openEnd);
              actions.tell(`Only the first ${MOST_BLOCKS.toLocaleString('en')} blocks were pasted.`);
              return new Slice(named(Fragment.from(content.content.slice(0, MOST_BLOCKS))), openStart, 0);
            },
            clipboardTextParser: (text, $context, plain) => tableOf(text, schema, plain) ?? linesOf(text, schema),
            handlePaste: (view, event) => {
              const data = event.clipboardData;
              const own = new RegExp(`${MARK}="([0-9a-f-]+)"`).exec(data?.getData('text/html') ?? '')?.[1];
              const slice = own === undefined ? undefined : kept(own, schema);
              if (slice) {
                view.dispatch(view.state.tr.replaceSelection(slice).setMeta(WORDS, 'Pasted').scrollIntoView());
                return true;
              }
              return takePictures(data?.files, data?.getData('text/html') ?? '');
            },
            handleDrop: (_, event) => takePictures((event as DragEvent).dataTransfer?.files, ''),
          },
        }),
      ];

      /** Pictures of the clipboard; where words come with them, as from a spreadsheet, the words count. */
      function takePictures(files: FileList | undefined, html: string): boolean {
        const pictures = [...(files ?? [])].filter(({ type }) => type.startsWith('image/'));
        if (pictures.length === 0 || /<(table|p|li)\b/i.test(html)) return false;
        actions.putPictures(pictures);
        return true;
      }
    },
  });

/** Lines with tabs between their cells are a table of words. */
function tableOf(text: string, schema: Schema, plain: boolean): Slice | undefined {
  const rows = text.replace(/\r/g, '').replace(/\n+$/, '').split('\n');
  if (plain || rows.length < 2 || !rows.every((row) => row.includes('\t'))) return undefined;
  const cell = (words: string) => schema.node('gridCell', null, words === '' ? [] : schema.text(words));
  const made = rows.map((row) => schema.node('gridRow', null, row.split('\t').map(cell)));
  return new Slice(Fragment.from(schema.node('gridTable', null, made)), 0, 0);
}

/** Plain text as paragraphs, one for each line; of one line, the text alone. */
function linesOf(text: string, schema: Schema): Slice {
  const lines = text.replace(/\r/g, '').split(/\n+/);
  const made = lines.map((line) => schema.node('paragraph', null, line === '' ? [] : schema.text(line)));
  return new Slice(Fragment.from(made), 1, 1);
}
