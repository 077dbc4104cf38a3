import { XMLParser } from 'fast-xml-parser';
import { own } from '../../../core/record/own';
import type { FieldSchema, FieldType, RecordSchema, RecordType } from '../../../core/record/schema';

/** How a stored value becomes a field's value: which property names its currency, whether ten means ten percent. */
export interface StoredAs {
  currencyPath?: string;
  percentPoints?: boolean;
}

/** The property that names a record among those of its type. */
export interface Key {
  name: string;
  /** Whether it stands in apostrophes in an address (OData ABNF, keyPropertyValue). */
  isText: boolean;
}

/** The service's record types, and how their values are stored. */
export interface ODataSchema {
  records: RecordSchema;
  /** Entity set by record type. */
  sets: Readonly<Record<string, string>>;
  /** Key by record type. */
  keys: Readonly<Record<string, Key>>;
  /** Relations whose records come in an order of their own, by record type. */
  ordered: Readonly<Record<string, ReadonlySet<string>>>;
  storedAs: Readonly<Record<string, Readonly<Record<string, StoredAs>>>>;
}

interface XmlNode {
  [name: string]: XmlNode[] | string | undefined;
}

const nodes = (node: XmlNode | undefined, name: string) => (node?.[name] as XmlNode[] | undefined) ?? [];
const nameOf = (node: XmlNode) => attribute(node, 'Name')!;
const attribute = (node: XmlNode, name: string) => node[`@${name}`] as string | undefined;

/** Reads CSDL XML (OASIS OData CSDL XML 4.01) into record types; undefined for anything else. */
export function readCsdl(xml: string): ODataSchema | undefined {
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    // References by number too (XML 1.0, 4.1).
    htmlEntities: true,
    isArray: (_name, _path, _leaf, isAttribute) => !isAttribute,
  });
  const root = parser.parse(xml) as XmlNode;
  const schema = nodes(nodes(nodes(root, 'edmx:Edmx')[0], 'edmx:DataServices')[0], 'Schema')[0];
  if (!schema) return undefined;
  const all = nodes(schema, 'EntityType');
  // Files are no records.
  const isFile = (entity: XmlNode) => attribute(entity, 'HasStream') === 'true';
  const entities = all.filter((each) => !isFile(each));
  const streams = new Map(all.filter(isFile).map((each) => [nameOf(each), each]));
  const sets = new Map(
    nodes(nodes(schema, 'EntityContainer')[0], 'EntitySet').map((set) => [
      localName(attribute(set, 'EntityType')!),
      set,
    ]),
  );
  const byType = <T>(of: (entity: XmlNode) => T) =>
    Object.fromEntries(entities.map((entity) => [nameOf(entity), of(entity)]));
  return {
    records: { types: byType((entity) => recordType(entity, sets.get(nameOf(entity)), streams)) },
    sets: Object.fromEntries([...sets].map(([type, set]) => [type, nameOf(set)])),
    keys: byType(keyOf),
    ordered: byType(
      (entity) =>
        new Set(
          nodes(entity, 'NavigationProperty')
            .filter((each) => annotation(each, 'Core.V1.Ordered'))
            .map(nameOf),
        ),
    ),
    storedAs: byType((entity) =>
      Object.fromEntries(nodes(entity, 'Property').map((property) => [nameOf(property), storage(property)])),
    ),
  };
}

/** `streams`: the types of files, by their names. */
function recordType(entity: XmlNode, set: XmlNode | undefined, streams: ReadonlyMap<string, XmlNode>): RecordType {
  const name = nameOf(entity);
  const key = keyOf(entity).name;
  const navigations = nodes(entity, 'NavigationProperty');
  const files = navigations.find(
    (each) => attribute(each, 'ContainsTarget') === 'true' && streams.has(navigationField(each).target ?? ''),
  );
  const fields = [
    ...nodes(entity, 'Property').map((property) => propertyField(property, key)),
    ...navigations.filter((each) => each !== files).map(navigationField),
  ];
  // A file that holds files keeps its earlier contents.
  const keepsRevisions = (type = '') =>
    nodes(streams.get(type), 'NavigationProperty').some(
      (each) => attribute(each, 'ContainsTarget') === 'true' && streams.has(navigationField(each).target ?? ''),
    );
  const plural = set && description(set);
  return {
    name,
    label: label(entity, name),
    ...(plural && { plural }),
    fields: Object.fromEntries(fields.map((field) => [field.name, field])),
    ...(files && { files: nameOf(files) }),
    ...(files &&
      set &&
      keepsRevisions(navigationField(files).target) &&
      isUpdatable(set, nameOf(files)) && { revisesFiles: true }),
    ...(set && isInsertable(set) && { takesNew: true }),
  };
}

/** Whether a service says that records of a set may be written (OData Capabilities vocabulary, InsertRestrictions). */
function isInsertable(set: XmlNode): boolean {
  const restrictions = annotation(set, 'Capabilities.V1.InsertRestrictions');
  const said = restrictions && nodes(nodes(restrictions, 'Record')[0], 'PropertyValue');
  return (
    said?.some((each) => attribute(each, 'Property') === 'Insertable' && attribute(each, 'Bool') === 'true') ?? false
  );
}

/** Whether a service says that what a relation of a set leads to may be changed (OData Capabilities vocabulary, NavigationRestrictions). */
function isUpdatable(set: XmlNode, navigation: string): boolean {
  const restrictions = annotation(set, 'Capabilities.V1.NavigationRestrictions');
  const said = (record: XmlNode | undefined, property: string) =>
    nodes(record, 'PropertyValue').find((each) => attribute(each, 'Property') === property);
  const restricted = said(nodes(restrictions, 'Record')[0], 'RestrictedProperties');
  const its = nodes(nodes(restricted, 'Collection')[0], 'Record').find((each) => {
    const of = said(each, 'NavigationProperty');
    return of && attribute(of, 'NavigationPropertyPath') === navigation;
  });
  const updatable = said(nodes(said(its, 'UpdateRestrictions'), 'Record')[0], 'Updatable');
  return updatable !== undefined && attribute(updatable, 'Bool') === 'true';
}

function keyOf(entity: XmlNode): Key {
  const name = attribute(nodes(nodes(entity, 'Key')[0], 'PropertyRef')[0] ?? {}, 'Name') ?? 'id';
  const property = nodes(entity, 'Property').find((each) => nameOf(each) === name);
  return { name, isText: !property || attribute(property, 'Type') === 'Edm.String' };
}

function propertyField(property: XmlNode, key: string): FieldSchema {
  const name = nameOf(property);
  const allowed = allowedValues(property);
  return {
    name,
    label: label(property, name),
    type: fieldType(property, allowed !== undefined),
    nullable: attribute(property, 'Nullable') !== 'false',
    readonly:
      name === key ||
      annotation(property, 'Core.V1.Computed') !== undefined ||
      attribute(property, 'Type') === 'Edm.Stream',
    ...(allowed ? { allowed } : {}),
    ...(name === key ? { identifies: true } : {}),
  };
}

function fieldType(property: XmlNode, closed: boolean): FieldType {
  const type = attribute(property, 'Type')!;
  if (type === 'Collection(Edm.String)') return 'choices';
  if (annotation(property, 'Measures.V1.ISOCurrency')) return 'money';
  if (storage(property).percentPoints) return 'percent';
  const media = annotation(property, 'Core.V1.MediaType');
  if (media && attribute(media, 'String') === 'text/html') return 'rich';
  switch (type) {
    case 'Edm.Stream':
      return 'image';
    case 'Edm.Boolean':
      return 'boolean';
    case 'Edm.Date':
      return 'date';
    case 'Edm.DateTimeOffset':
      return 'datetime';
    case 'Edm.Decimal':
    case 'Edm.Int16':
    case 'Edm.Int32':
    case 'Edm.Int64':
    case 'Edm.Double':
      return 'number';
    default:
      return closed ? 'choice' : 'text';
  }
}

function navigationField(navigation: XmlNode): FieldSchema {
  const name = nameOf(navigation);
  const type = attribute(navigation, 'Type')!;
  const many = /^Collection\((.+)\)$/.exec(type);
  const target = localName(many?.[1] ?? type);
  return {
    name,
    label: label(navigation, name),
    type: many ? 'records' : 'record',
    nullable: true,
    readonly: true,
    target,
  };
}

function storage(property: XmlNode): StoredAs {
  const currency = annotation(property, 'Measures.V1.ISOCurrency');
  const unit = annotation(property, 'Measures.V1.Unit');
  return {
    ...(currency ? { currencyPath: attribute(currency, 'Path') } : {}),
    ...(unit && attribute(unit, 'String') === '%' ? { percentPoints: true } : {}),
  };
}

function annotation(node: XmlNode, term: string): XmlNode | undefined {
  return nodes(node, 'Annotation').find((each) => attribute(each, 'Term') === `Org.OData.${term}`);
}

function description(node: XmlNode): string | undefined {
  const said = annotation(node, 'Core.V1.Description');
  return (said && attribute(said, 'String')) || undefined;
}

const label = (node: XmlNode, name: string) => description(node) ?? name.replaceAll('_', ' ');

function allowedValues(property: XmlNode): { value: string; label: string }[] | undefined {
  const allowed = annotation(property, 'Validation.V1.AllowedValues');
  if (!allowed) return undefined;
  return nodes(nodes(allowed, 'Collection')[0], 'Record').map((record) => {
    const value = attribute(
      nodes(record, 'PropertyValue').find((each) => attribute(each, 'Property') === 'Value')!,
      'String',
    )!;
    return { value, label: description(record) ?? value };
  });
}

/** The key of a record type. */
export const keyNamed = (schema: ODataSchema, type: string): Key =>
  own(schema.keys, type) ?? { name: 'id', isText: true };

/** How the service keeps a field. */
export const storedAs = (schema: ODataSchema, type: string, name: string): StoredAs =>
  own(own(schema.storedAs, type) ?? {}, name) ?? {};

const localName = (qualified: string) => qualified.split('.').at(-1)!;
