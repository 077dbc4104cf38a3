import { byType, type ShapeOf } from '../../shape/shape';
import type { Block } from '.';

/** The shapes of all kinds, put in by the list of kinds. Kinds that hold blocks refer to them here, before they are there. */
export const BLOCK_SHAPES: Record<string, ShapeOf<Block>> = {};

/** The shape of any block. */
export const anyBlock = byType<Block>('block', () => BLOCK_SHAPES);
