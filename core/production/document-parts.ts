import { withInner, withWords, wordsFor, type Block } from '../template/blocks';
import type { Inline } from '../template/inlines';
import { everyBlock } from '../template/walk';
import { carriesSums } from './with-changes';

/** A section of a document: whether it prints, and when it would by itself. */
export interface DocumentSection {
  id: string;
  note: string;
  prints: boolean;
}

/** A block of a document that can be changed for it alone. */
export interface DocumentBlock {
  id: string;
  /** What people call it: “the paragraph “Dear Sir””. */
  name: string;
  /** Its running texts, each by the id of the node it stands in; none where it has none of its own. */
  texts: { id: string; content: readonly Inline[] }[];
  /** Whether it can be left out: what proves that the document adds up cannot. */
  mayBeLeftOut: boolean;
}

/** What of a document can be changed for it alone. */
export interface DocumentParts {
  sections: DocumentSection[];
  blocks: DocumentBlock[];
}

/** Blocks that hold others and print nothing themselves. */
const HOLDERS: readonly string[] = ['whenSection', 'forEach', 'keepTogether', 'columns'];
const BARE: readonly string[] = ['space', 'pageBreak', 'divider'];

/** The parts of a document by its blocks. `printedBlocks`: ids of the blocks that printed something; `held`: of the conditions that held. */
export function partsOf(
  body: readonly Block[],
  { printedBlocks: printed, held }: { printedBlocks: ReadonlySet<string>; held: ReadonlySet<string> },
): DocumentParts {
  const all = everyBlock(body);
  return {
    sections: all.flatMap((block) =>
      block.type === 'whenSection'
        ? [{ id: block.attrs.id, note: block.attrs.note ?? block.attrs.when, prints: held.has(block.attrs.id) }]
        : [],
    ),
    blocks: all
      .filter((block) => printed.has(block.attrs.id) && !HOLDERS.includes(block.type) && !BARE.includes(block.type))
      .map(partOf),
  };
}

function partOf(block: Block): DocumentBlock {
  const texts: DocumentBlock['texts'] = [];
  // What it holds is a part of its own.
  withWords(
    withInner(block, () => []),
    {
      content: (id, content) => {
        if (content && content.length > 0) texts.push({ id, content });
        return content ? { content: [...content] } : {};
      },
      text: (_, words) => words,
    },
  );
  return { id: block.attrs.id, name: wordsFor(block), texts, mayBeLeftOut: !carriesSums(block) };
}
