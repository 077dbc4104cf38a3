import type { Expression } from '../formula/ast';
import { parseFormula } from '../formula/parse';
import { fieldOf, recordTypeOf, type RecordSchema, LINES } from '../record/schema';
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

  const add = (path: readonly string[]) => addPath(path, schema, template.record.type, root);
  const addLine = (path: readonly string[]) => add([LINES, ...path]);

  const visit = (node: Expression): void => {
    const path = dottedPath(node);
    if (path) {
      const [first, ...rest] = path;
      if (first === template.record.root) add(rest);
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

/** The paths of a tree, dotted, with every plain field of the records that it reads anything of. */
export function pathsAround({ fields, related }: PathTree, schema: RecordSchema, type: string): string[] {
  const own = Object.values(recordTypeOf(schema, type)?.fields ?? {});
  const plain = new Set([...fields, ...own.filter(({ target }) => !target).map(({ name }) => name)]);
  const inner = [...related].flatMap(([name, tree]) => {
    const target = fieldOf(schema, type, name)?.target;
    return target ? pathsAround(tree, schema, target).map((path) => `${name}.${path}`) : [];
  });
  return [...plain, ...inner];
}

/** Dotted paths as a tree, as far as the schema knows them. */
export function treeOf(paths: readonly string[], schema: RecordSchema, type: string): PathTree {
  const root: PathTree = { fields: new Set(), related: new Map() };
  for (const path of paths) addPath(path.split('.'), schema, type, root);
  return root;
}

/** Adds one path starting at a record type, as far as the schema knows it; a related record is always read with its name. */
function addPath(path: readonly string[], schema: RecordSchema, type: string | undefined, tree: PathTree): void {
  const [name, ...rest] = path;
  const field = name === undefined ? undefined : fieldOf(schema, type, name);
  if (!field) return;
  if (!field.target) return void tree.fields.add(field.name);
  const related = tree.related.get(field.name) ?? { fields: new Set(), related: new Map() };
  tree.related.set(field.name, related);
  if (fieldOf(schema, field.target, 'name')) related.fields.add('name');
  addPath(rest, schema, field.target, related);
}

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
