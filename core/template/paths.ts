import type { Expression } from '../formula/ast';
import { LINES } from '../formula/figure';
import { parseFormula } from '../formula/parse';
import { fieldOf, recordTypeOf, type RecordSchema } from '../record/schema';
import { placedFormulas } from './formulas';
import { assemble } from './assemble';
import type { Pins, Template } from './template';

/** The fields of a record to read, and of its related records in turn. */
export interface PathTree {
  fields: Set<string>;
  related: Map<string, PathTree>;
}

/**
 * The paths that a template reads in any of its editions, as a tree that a connector can turn into one request. A bare name inside a filter
 * or a line figure is looked for among the fields of the line items, so a name that is no field asks for nothing.
 */
export function usedPaths(template: Template, pins: Pins, schema: RecordSchema): PathTree {
  const root: PathTree = { fields: new Set(), related: new Map() };
  const lineType = fieldOf(schema, template.record.type, LINES)?.target;

  /** Adds one dotted path starting at a record type, as far as the schema knows it. */
  const add = (path: readonly string[], type: string | undefined, tree: PathTree) => {
    const [name, ...rest] = path;
    const field = name === undefined || type === undefined ? undefined : fieldOf(schema, type, name);
    if (!field) return;
    if (!field.target) return void tree.fields.add(field.name);
    const related = tree.related.get(field.name) ?? { fields: new Set(), related: new Map() };
    tree.related.set(field.name, related);
    if (fieldOf(schema, field.target, 'name')) related.fields.add('name');
    add(rest, field.target, related);
  };
  const addLine = (path: readonly string[]) => add([LINES, ...path], template.record.type, root);

  const visit = (node: Expression): void => {
    const path = dottedPath(node);
    if (path) {
      const [first, ...rest] = path;
      if (first === template.record.root) add(rest, template.record.type, root);
      else if (first === LINES) addLine(rest);
      else if (first === 'item') addLine(rest[0] === LINES ? rest.slice(1) : rest);
      else if (fieldOf(schema, lineType, first!)) addLine(path);
    }
    if (node.kind === 'member') {
      if (!path && endsInLines(node.object)) addLine([node.name]);
      visit(node.object);
    } else if (node.kind === 'filter') [node.list, node.condition].forEach(visit);
    else if (node.kind === 'call') node.arguments.forEach(visit);
    else if (node.kind === 'binary') [node.left, node.right].forEach(visit);
    else if ('operand' in node) visit(node.operand);
  };
  const whole = template.editions.map(({ id }) => assemble(template, pins, id).template);
  const formulas = new Set([template, ...whole].flatMap(placedFormulas).map(({ formula }) => formula));
  for (const formula of formulas) visit(parseFormula(formula));
  return root;
}

/**
 * Every field of a record and of the records around it, as far as some steps lead, with all that a template reads beside
 * them: what a screen needs where formulas are still being written. A relation that leads back is not followed.
 */
export function pathsAround(paths: PathTree, schema: RecordSchema, type: string, steps = 2, passed: readonly string[] = []): PathTree {
  const own = Object.values(recordTypeOf(schema, type)?.fields ?? {});
  const fields = new Set([...paths.fields, ...own.filter(({ target }) => !target).map(({ name }) => name)]);
  const related = new Map(paths.related);
  for (const { name, target } of own) {
    if (!target || target === type || passed.includes(target) || steps === 0) continue;
    const known = related.get(name) ?? { fields: new Set(), related: new Map() };
    related.set(name, pathsAround(known, schema, target, steps - 1, [...passed, type]));
  }
  return { fields, related };
} // prettier-ignore

function dottedPath(node: Expression): string[] | undefined {
  if (node.kind === 'name') return [node.name];
  if (node.kind !== 'member') return undefined;
  const object = dottedPath(node.object);
  return object && [...object, node.name];
}

function endsInLines(node: Expression): boolean {
  if (node.kind === 'filter') return endsInLines(node.list);
  return (node.kind === 'name' || node.kind === 'member') && node.name === LINES;
}
