import { partField } from './layout';
import { fieldOf, recordTypeOf, type FieldSchema, type RecordSchema } from './schema';

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

/** The pictures and PDFs that a tree reads, by their dotted paths. */
export function picturePaths({ fields, related }: PathTree, schema: RecordSchema, type: string): string[] {
  const own = [...fields].filter((name) => fieldOf(schema, type, name)?.type === 'image');
  const inner = [...related].flatMap(([name, tree]) => {
    const target = fieldOf(schema, type, name)?.target;
    return target ? under(name, picturePaths(tree, schema, target)) : [];
  });
  return [...own, ...inner];
}

/** Dotted paths of every plain field of a record and of the records next to it, and of those that its lists lead to. */
export function pathsNear(schema: RecordSchema, type: string): string[] {
  return [
    ...plainFields(schema, type),
    ...relationsOf(schema, type).flatMap(({ name, type: kind, target }) => [
      ...under(name, plainFields(schema, target!)),
      ...(kind === 'records' ? singlesUnder(schema, target!, name) : []),
    ]),
  ];
}

/** What a list's items lead to: a line's product, but not the record that the line is of. */
const singlesUnder = (schema: RecordSchema, type: string, list: string): string[] =>
  relationsOf(schema, type)
    .filter(({ type: kind }) => kind === 'record')
    .flatMap(({ name, target }) => under(`${list}.${name}`, plainFields(schema, target!)));

const under = (place: string, names: readonly string[]) => names.map((name) => `${place}.${name}`);
const plainFields = (schema: RecordSchema, type: string): string[] =>
  Object.values(recordTypeOf(schema, type)?.fields ?? {}).flatMap(({ name, target }) => (target ? [] : [name]));

/** The relations of a record type that have values of their own: its files are none. */
export function relationsOf(schema: RecordSchema, type: string): FieldSchema[] {
  const known = recordTypeOf(schema, type);
  const all = Object.values(known?.fields ?? {});
  return all.filter(({ name, target }) => recordTypeOf(schema, target) !== undefined && name !== known?.files);
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
