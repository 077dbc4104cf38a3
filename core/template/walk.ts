/** The one walk over the blocks of a template: everything that looks at all of them, or changes them, goes this way. */
import { withInner, type Block } from './blocks';
import type { Template } from './template';

/** A block with what stands in scope: formulas of the lists whose items are, from the outside in. */
export type BlockChange = (block: Block, within: readonly string[]) => Block;

/** The same blocks with each of them changed, and in turn those that it holds. */
export function mapBlocks(blocks: readonly Block[], change: BlockChange, within: readonly string[] = []): Block[] {
  return blocks.map((block) =>
    withInner(change(block, within), (inner, list) =>
      mapBlocks(inner, change, list === undefined ? within : [...within, list]),
    ),
  );
}

/** All blocks of a list and those that they hold, from the outside in. */
export function everyBlock(blocks: readonly Block[]): Block[] {
  const found: Block[] = [];
  mapBlocks(blocks, (block) => {
    found.push(block);
    return block;
  });
  return found;
}

/** The same template with every list of its own blocks changed: on its pages, and in place of others in its editions. */
export function mapOwnBlocks(template: Template, change: (blocks: readonly Block[]) => Block[]): Template {
  const { header, followingHeader, footer, body } = template.layout;
  return {
    ...template,
    layout: {
      ...template.layout,
      ...(header && { header: change(header) }),
      ...(followingHeader && { followingHeader: change(followingHeader) }),
      ...(footer && { footer: change(footer) }),
      body: change(body),
    },
    editions: template.editions.map(({ instead, ...edition }) => ({
      ...edition,
      ...(instead && {
        instead: Object.fromEntries(Object.entries(instead).map(([id, blocks]) => [id, change(blocks)])),
      }),
    })),
  };
}

/** A template's own lists of blocks, each by itself. */
export function ownBlockLists(template: Template): (readonly Block[])[] {
  const lists: (readonly Block[])[] = [];
  mapOwnBlocks(template, (blocks) => {
    lists.push(blocks);
    return [...blocks];
  });
  return lists;
}
