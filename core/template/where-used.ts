import type { Checker } from '../sheet/check';
import { wordsFor } from './blocks';
import { placedFormulas, type FormulaPlace } from './formulas';
import type { Template } from './template';
import { everyBlock, ownBlockLists } from './walk';

/** A place that uses something: a block of the page, a figure, or a part around them such as a file name. */
export type Use = Pick<FormulaPlace, 'words' | 'block' | 'figure'>;

/** Where a template uses what it is made of; what is used nowhere is not named. */
export interface Uses {
  /** By the keys of figures and lists: `total`, `lines.net`. */
  figures: Record<string, Use[]>;
  /** By the paths of fields, from the record on: `account.name`. */
  fields: Record<string, Use[]>;
  /** By the ids of clauses. */
  clauses: Record<string, Use[]>;
}

/** Where a template uses its figures, the fields of its record, and clauses. */
export function usesIn(template: Template, checker: Checker): Uses {
  const [figures, fields, clauses] = [new Places(), new Places(), new Places()];
  for (const { formula, place } of placedFormulas(template)) {
    const { uses, reads } = checker.formula(formula, checker.itemIn(place.within));
    for (const { key } of uses) figures.add(key, place);
    for (const path of reads) fields.add(path.join('.'), place);
  }
  for (const { clause, ...use } of clausePlaces(template)) clauses.add(clause, use);
  return { figures: figures.all, fields: fields.all, clauses: clauses.all };
}

/** Where a template puts clauses in, or one of them. */
export function clausePlaces(template: Template, wanted?: string): (Use & { clause: string })[] {
  return ownBlockLists(template)
    .flatMap(everyBlock)
    .flatMap((block) => {
      if (block.type !== 'clause' || (wanted !== undefined && block.attrs.clause !== wanted)) return [];
      const { id, clause } = block.attrs;
      return [{ words: wordsFor(block), block: id, clause }];
    });
}

/** Places by what they use, each once. */
class Places {
  readonly all: Record<string, Use[]> = Object.create(null) as Record<string, Use[]>;

  add(key: string, { words, block, figure }: Use): void {
    const known = (this.all[key] ??= []);
    if (!known.some((each) => each.words === words && each.block === block && each.figure === figure))
      known.push({ words, ...(block !== undefined && { block }), ...(figure !== undefined && { figure }) });
  }
}
