import type { Row } from '../../formula/row';
import { listOf } from '../../shape/shape';
import type { FormulaChanges, WordsChanges } from '../changes';
import type { Composer } from '../composer';
import type { Template } from '../template';
import { anyBlock, BLOCK_SHAPES } from './any-block';
import { bulletList } from './bullet-list';
import { clause } from './clause';
import { code } from './code';
import { columns } from './columns';
import { divider } from './divider';
import { forEach } from './for-each';
import { gridTable } from './grid-table';
import { heading } from './heading';
import { keepTogether } from './keep-together';
import type { BlockKind, InnerChange } from './kind';
import { lineTable } from './line-table';
import { logo } from './logo';
import { numberedList } from './numbered-list';
import { pageBreak } from './page-break';
import { paragraph } from './paragraph';
import { paymentCode } from './payment-code';
import { picture } from './picture';
import { richText } from './rich-text';
import { signature } from './signature';
import { space } from './space';
import { totals } from './totals';
import { whenSection } from './when-section';

/** Every kind of block, by its type. */
const BLOCKS = {
  paragraph, heading, bulletList, numberedList, gridTable, lineTable, totals, whenSection, forEach, clause, richText, pageBreak,
  signature, picture, code, paymentCode, keepTogether, columns, logo, divider, space,
}; // prettier-ignore

type Kinds = typeof BLOCKS;
type BlockType = keyof Kinds;

/** A block of a template. */
export type Block = {
  [Type in BlockType]: Kinds[Type] extends BlockKind<infer Each, infer _> ? Each : never;
}[BlockType];

/** A block as it prints. `block` is the id of the template's block. */
export type ComposedBlock = {
  [Type in BlockType]: Kinds[Type] extends BlockKind<infer _, infer Each> ? Each : never;
}[BlockType];

// Each kind is only ever asked about blocks of its own type.
const kinds: Readonly<Record<string, BlockKind<Block, ComposedBlock>>> = BLOCKS as never;
for (const [type, { shape }] of Object.entries(kinds)) BLOCK_SHAPES[type] = shape;

const MOST_BLOCKS = 5_000;
/** A list of blocks. */
export const blockList = () => listOf(anyBlock, MOST_BLOCKS);

const kindOf = ({ type }: Block) => kinds[type]!;

export const wordsFor = (block: Block): string => kindOf(block).words(block);
export const faultsIn = (block: Block, template: Template): string[] => kindOf(block).faults?.(block, template) ?? [];
export const withInner = (block: Block, change: InnerChange): Block => kindOf(block).inner(block, change);
export const withFormulas = (block: Block, change: FormulaChanges): Block => kindOf(block).mapFormulas(block, change);
export const withWords = (block: Block, change: WordsChanges): Block => kindOf(block).mapWords(block, change);
export const composeBlock = (block: Block, composer: Composer, row?: Row): ComposedBlock[] =>
  kindOf(block).compose(block, composer, row);
