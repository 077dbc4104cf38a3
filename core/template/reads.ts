import { treeOf, type PathTree } from '../record/paths';
import type { RecordSchema } from '../record/schema';
import { checkerFor } from '../sheet/checkers';
import { assemble } from './assemble';
import { checkContext } from './check';
import { placedFormulas } from './formulas';
import { splitPlaceholders } from './placeholders';
import type { Pins, Template } from './template';

/**
 * What a template reads of its record, in any of its editions: told by the checker, which knows for every name in every formula
 * what it stands for and of which record. A related record is always read with its name.
 */
export function readsOf(template: Template, pins: Pins, schema: RecordSchema): PathTree {
  return treeOf(pathsRead(template, pins, schema), schema, template.record.type);
}

/** What has to be read of a record to know whether a template is for it, as paths. */
export function fitReadsOf(template: Template, pins: Pins, schema: RecordSchema): (readonly string[])[] {
  if (!template.fits) return [];
  const checker = checkerFor(checkContext(template, schema, pins.houseStyles));
  const { formula, sentence } = template.fits;
  const inSentence = splitPlaceholders(sentence).flatMap((part) => (part.kind === 'text' ? [] : part.formula));
  const checked = [formula, ...inSentence].map((each) => checker.formula(each));
  // A figure may be computed from anything.
  if (checked.some(({ uses }) => uses.length > 0)) return pathsRead(template, pins, schema);
  return checked.flatMap(({ reads }) => reads);
}

function pathsRead(template: Template, pins: Pins, schema: RecordSchema): (readonly string[])[] {
  const checker = checkerFor(checkContext(template, schema, pins.houseStyles));
  const paths = new Map<string, readonly string[]>();
  for (const { id } of template.editions) {
    for (const { formula, place } of placedFormulas(assemble(template, pins, id).template)) {
      for (const path of checker.formula(formula, checker.itemIn(place.within)).reads) paths.set(path.join('.'), path);
    }
  }
  return [...paths.values()];
}
