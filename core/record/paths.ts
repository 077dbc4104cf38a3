import { partField } from './layout';
import { fieldOf, recordTypeOf, type RecordSchema } from './schema';

/** The fields of a record to read, and of its related records in turn. */
export interface PathTree {
  fields: Set<string>;
  related: Map<string, PathTree>;
}

/** Paths as a tree that a connector can turn into one request, as far as the schema knows them. */
export function treeOf(paths: Iterable<readonly string[]>, schema: RecordSchema, type: string): PathTree {
  const root: PathTree = { fields: new Set(), related: new Map() };
  for (const path of paths) addPath(path, schema, type, root);
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

/** Adds one path starting at a record type, as far as the schema knows it; a related record is always read with its name. */
function addPath(path: readonly string[], schema: RecordSchema, type: string | undefined, tree: PathTree): void {
  const [first, ...rest] = path;
  const field = first === undefined ? undefined : fieldOf(schema, type, first);
  if (!field) return;
  if (!field.target) return void tree.fields.add(field.name);
  const related = tree.related.get(field.name) ?? { fields: new Set(), related: new Map() };
  tree.related.set(field.name, related);
  const name = partField(schema, field.target, 'name');
  if (name !== undefined) related.fields.add(name);
  addPath(rest, schema, field.target, related);
}
