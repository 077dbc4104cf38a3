/**
 * Reads what was kept in format 1 as format 2: lists, grids, columns and sections had their inner parts in arrays of their own,
 * and a figure's meaning was called its role. The one place that knows the old format.
 */
type Json = Readonly<Record<string, unknown>>;

/** A template in the current format; one that is in it already stays as it is. Whether it is one at all is asked later. */
export function upgradedTemplate(kept: unknown): unknown {
  if (!isObject(kept) || kept.formatVersion !== 1) return kept;
  const { sheet, layout, editions } = kept;
  return {
    ...kept,
    formatVersion: 2,
    ...(isObject(sheet) && { sheet: upgradedSheet(sheet) }),
    ...(isObject(layout) && {
      layout: { ...layout, ...upgradedParts(layout, ['header', 'followingHeader', 'footer', 'body']) },
    }),
    ...(Array.isArray(editions) && { editions: editions.map(upgradedEdition) }),
  };
}

/** A clause in the current format. */
export function upgradedClause(kept: unknown): unknown {
  return isObject(kept) ? { ...kept, ...upgradedParts(kept, ['content']) } : kept;
}

/** A house style in the current format. */
export function upgradedHouseStyle(kept: unknown): unknown {
  if (!isObject(kept) || !isObject(kept.letterhead)) return kept;
  const { letterhead } = kept;
  return {
    ...kept,
    letterhead: { ...letterhead, ...upgradedParts(letterhead, ['header', 'followingHeader', 'footer']) },
  };
}

function upgradedEdition(edition: unknown): unknown {
  if (!isObject(edition) || !isObject(edition.instead)) return edition;
  return { ...edition, instead: upgradedParts(edition.instead, Object.keys(edition.instead)) };
}

function upgradedSheet(sheet: Json): Json {
  const figures = (all: unknown) => (Array.isArray(all) ? all.map(upgradedFigure) : all);
  const lists = (all: unknown) =>
    Array.isArray(all) ? all.map((list) => (isObject(list) ? { ...list, columns: figures(list.columns) } : list)) : all;
  return { ...sheet, perLine: figures(sheet.perLine), lists: lists(sheet.lists), document: figures(sheet.document) };
}

function upgradedFigure(figure: unknown): unknown {
  if (!isObject(figure) || !('role' in figure)) return figure;
  const { role, ...rest } = figure;
  return { ...rest, meaning: role };
}

function upgradedParts(whole: Json, names: readonly string[]): Json {
  return Object.fromEntries(
    names.flatMap((name) => (Array.isArray(whole[name]) ? [[name, upgradedBlocks(whole[name])]] : [])),
  );
}

const upgradedBlocks = (blocks: readonly unknown[]): unknown[] => blocks.map(upgradedBlock);

/** One block and what it holds. One that is in the current format stays as it is. */
function upgradedBlock(block: unknown): unknown {
  if (!isObject(block) || !isObject(block.attrs)) return block;
  const { type, attrs, content } = block;
  const id = String(attrs.id);
  switch (type) {
    case 'bulletList':
    case 'numberedList':
      return Array.isArray(content)
        ? { type, attrs, ...held(content.map((item, at) => inlineNode('listItem', `${id}.${at + 1}`, item))) }
        : block;
    case 'gridTable':
      return Array.isArray(block.rows)
        ? { type, attrs, ...held(block.rows.map((row, at) => gridRow(id, row, at))) }
        : block;
    case 'columns':
      return Array.isArray(block.columns) ? upgradedColumns(id, attrs, block.columns) : block;
    case 'whenSection':
      return Array.isArray(content) ? { type, attrs, content: branches(id, content, block.otherwise) } : block;
    default:
      return Array.isArray(content)
        ? { ...rest(block), ...held(isText(type) ? texts(content) : upgradedBlocks(content)) }
        : block;
  }
}

const isText = (type: unknown) => type === 'paragraph' || type === 'heading';

/** A node of running text; one that is in the current format stays as it is. */
function inlineNode(type: string, id: string, content: unknown): unknown {
  return Array.isArray(content) ? { type, attrs: { id }, ...held(texts(content)) } : content;
}

function gridRow(table: string, row: unknown, at: number): unknown {
  if (!Array.isArray(row)) return row;
  const id = `${table}.${at + 1}`;
  return {
    type: 'gridRow',
    attrs: { id },
    ...held(row.map((cell, x) => inlineNode('gridCell', `${id}.${x + 1}`, cell))),
  };
}

function upgradedColumns(id: string, { widths, ...attrs }: Json, columns: readonly unknown[]): unknown {
  const widthOf = (at: number) => (Array.isArray(widths) ? widths[at] : undefined);
  const content = columns.map((blocks, at) => ({
    type: 'column',
    attrs: { id: `${id}.${at + 1}`, width: widthOf(at) },
    ...held(Array.isArray(blocks) ? upgradedBlocks(blocks) : []),
  }));
  return { type: 'columns', attrs, ...held(content) };
}

function branches(id: string, content: readonly unknown[], otherwise: unknown): unknown[] {
  if (content.some((each) => isObject(each) && (each.type === 'then' || each.type === 'otherwise')))
    return content.map(upgradedBranch);
  const branch = (type: string, blocks: readonly unknown[]) => ({
    type,
    attrs: { id: `${id}.${type}` },
    ...held(upgradedBlocks(blocks)),
  });
  return [branch('then', content), ...(Array.isArray(otherwise) ? [branch('otherwise', otherwise)] : [])];
}

function upgradedBranch(branch: unknown): unknown {
  return isObject(branch) && Array.isArray(branch.content)
    ? { ...rest(branch), ...held(upgradedBlocks(branch.content)) }
    : branch;
}

/** Running text: a text of no letters is nothing. */
const texts = (inlines: readonly unknown[]) =>
  inlines.filter((each) => !(isObject(each) && each.type === 'text' && each.text === ''));

function rest({ content: _, ...others }: Json): Json {
  return others;
}

const held = (content: unknown[]): { content?: unknown[] } => (content.length > 0 ? { content } : {});
const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
