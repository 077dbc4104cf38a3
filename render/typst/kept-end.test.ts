import { expect, it } from 'vitest';
import type { ComposedBlock } from '../../core/template/blocks';
import { keptEnd } from './kept-end';

const runs = (letters: number) => [{ kind: 'text' as const, text: 'x'.repeat(letters) }];
const paragraph = (block: string, letters = 40): ComposedBlock => ({
  kind: 'paragraph',
  block,
  align: 'start',
  runs: runs(letters),
});
const heading = (block: string): ComposedBlock => ({ kind: 'heading', block, level: 2, runs: runs(8) });
const list = (block: string, items: number): ComposedBlock => ({
  kind: 'list',
  block,
  items: Array.from({ length: items }, () => runs(30)),
});
const signature: ComposedBlock = { kind: 'signature', block: 'sign', label: [], date: [] };
const space: ComposedBlock = { kind: 'space', block: 'air', height: 20 };
const totals: ComposedBlock = { kind: 'totals', block: 'totals', rows: [] };

/** The ids of a document's blocks, those that are kept together at its end in brackets. */
const outline = (blocks: readonly ComposedBlock[]): string =>
  blocks
    .map((each) => (each.kind === 'keep' && each.block === 'end' ? `[${outline(each.blocks)}]` : each.block))
    .join(' ');

it.each<[string, ComposedBlock[], string]>([
  ['a signature goes with the terms above it', [totals, heading('terms'), list('list', 4), space, signature], 'totals [terms list air sign]'],
  ['as many blocks as it takes', [paragraph('a'), paragraph('b'), paragraph('c'), paragraph('d'), paragraph('e'), paragraph('f')], 'a [b c d e f]'],
  ['a long text stands for itself', [paragraph('a'), paragraph('b', 900)], 'a b'],
  ['what is too long to be moved is left', [list('list', 40), signature], 'list sign'],
  ['no table is kept', [totals, paragraph('a')], 'totals a'],
  ['what is kept already counts by its lines', [paragraph('a'), { kind: 'keep', block: 'k', blocks: [heading('h'), list('l', 5)] }], 'a k'],
  ['columns count by the longest', [totals, paragraph('a'), { kind: 'columns', block: 'c', widths: [1, 1], columns: [[signature], [paragraph('p', 200)]] }], 'totals [a c]'],
  ['nothing at all', [], ''],
])('%s', (_, body, expected) => expect(outline(keptEnd(body))).toBe(expected)); // prettier-ignore
