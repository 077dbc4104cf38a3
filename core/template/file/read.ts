import { boundedJson, type Bounds } from '../../shape/bounds';
import { shaped, type Fault } from '../../shape/faults';
import { orderedMarks, type Mark } from '../inlines/marks';
import type { IdentifiedNode } from '../node';
import { templateShape, type Template } from '../template';
import { mapOwnBlocks } from '../walk';
import { upgradedTemplate } from './upgrade';

/** Bounds of a template file; its pictures are the long texts. */
const BOUNDS: Bounds = { values: 200_000, objects: 10_000, depth: 100, items: 10_000, text: 30_000_000, name: 200 };

/**
 * Reads a template in Lumbix's file format, or one of before. Whatever is wrong with its shape is told with its place; nothing
 * is guessed. What its formulas and its parts mean to each other is asked by the gate.
 */
export function readTemplateFile(source: string): { template: Template } | { faults: Fault[] } {
  const read = boundedJson(source, 'The file', BOUNDS);
  if ('refused' in read) return { faults: [{ path: '', sentence: read.refused }] };
  const result = shaped(templateShape, upgradedTemplate(read.data), 'the template');
  if ('faults' in result) return result;
  const { $schema: _, ...template } = result.value;
  return { template: mapOwnBlocks(template, (blocks) => blocks.map(asTheEditorHasIt)) };
}

/** A node as the editor writes it: nothing for an empty `content`, and marks in one order. */
function asTheEditorHasIt<Node extends object>(node: Node): Node {
  const { content, marks, ...rest } = node as Partial<IdentifiedNode> & { marks?: Mark[] };
  return {
    ...rest,
    ...(content && content.length > 0 && { content: content.map(asTheEditorHasIt) }),
    ...(marks && marks.length > 0 && { marks: orderedMarks(marks) }),
  } as Node;
}
