import { Checker, type CheckContext, type Diagnostic } from '../sheet/check';
import { mapFormulas, placedFormulas } from './formulas';
import type { Template } from './template';

/** A field that a template reads and that its records do not have, or no longer. */
export interface MissingField {
  /** What such a record is called: "deal". */
  owner: string;
  name: string;
  /** The field that was probably meant. */
  likely?: string;
  /** Where it is read, in words: "the section “the house is heated”". */
  places: string[];
}

/** Fields that a template reads and that there are not, each with all of its places. */
export function missingFields(
  template: Template,
  context: CheckContext,
  checker = new Checker(context),
): MissingField[] {
  const found = new Map<string, MissingField>();
  for (const { formula, place } of placedFormulas(template)) {
    for (const { missing, fix } of checker.formula(formula, checker.itemIn(place.within)).diagnostics) {
      if (!missing) continue;
      const key = `${missing.owner} ${missing.name}`;
      const known = found.get(key) ?? { ...missing, ...(fix !== undefined && { likely: fix }), places: [] };
      if (!known.places.includes(place.words)) known.places.push(place.words);
      found.set(key, known);
    }
  }
  return [...found.values()];
}

/** The template with another field wherever it reads one that there is not. */
export function withFieldReplaced(
  template: Template,
  context: CheckContext,
  { owner, name }: Pick<MissingField, 'owner' | 'name'>,
  by: string,
): Template {
  const checker = new Checker(context);
  const isIt = ({ missing }: Diagnostic) => missing?.owner === owner && missing.name === name;
  return mapFormulas(template, (formula, place) =>
    checker
      .formula(formula, checker.itemIn(place.within))
      .diagnostics.filter(isIt)
      .sort((one, other) => other.from - one.from)
      .reduce((text, { from, to }) => text.slice(0, from) + by + text.slice(to), formula),
  );
}
