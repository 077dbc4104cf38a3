import { treeOf, type PathTree } from '../record/paths';
import type { RecordSchema } from '../record/schema';
import { checkerFor } from '../sheet/checkers';
import { assemble } from './assemble';
import { checkContext } from './check';
import { placedFormulas } from './formulas';
import type { Pins, Template } from './template';

/**
 * What a template reads of its record, in any of its editions: told by the checker, which knows for every name in every formula
 * what it stands for and of which record. A related record is always read with its name.
 */
export function readsOf(template: Template, pins: Pins, schema: RecordSchema): PathTree {
  const checker = checkerFor(checkContext(template, schema, pins.houseStyles));
  const paths = new Map<string, readonly string[]>();
  for (const { id } of template.editions) {
    for (const { formula, place } of placedFormulas(assemble(template, pins, id).template)) {
      for (const path of checker.formula(formula, checker.itemIn(place.within)).reads) paths.set(path.join('.'), path);
    }
  }
  return treeOf(paths.values(), schema, template.record.type);
}
