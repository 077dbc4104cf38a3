import { XMLParser } from 'fast-xml-parser';
import type { FieldSchema, FieldType, RecordSchema, RecordType } from '../../core/record/schema';

/** How a stored value becomes a field's value: which property names its currency, whether ten means ten percent. */
export interface StoredAs {
  currencyPath?: string;
  percentPoints?: boolean;
}

/** The CRM's record types, and how their values are stored. */
export interface CrmSchema {
  records: RecordSchema;
  /** Entity set by record type. */
  sets: Readonly<Record<string, string>>;
  storedAs: Readonly<Record<string, Readonly<Record<string, StoredAs>>>>;
}

interface XmlNode {
  [name: string]: XmlNode[] | string | undefined;
}

const nodes = (node: XmlNode | undefined, name: string) => (node?.[name] as XmlNode[] | undefined) ?? [];
const attribute = (node: XmlNode, name: string) => node[`@${name}`] as string | undefined;

/** Reads CSDL XML (OASIS OData 4.01) into record types. */
export function readCsdl(xml: string): CrmSchema {
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '@',
    isArray: (_name, _path, _leaf, isAttribute) => !isAttribute,
  });
  const root = parser.parse(xml) as XmlNode;
  const schema = nodes(nodes(nodes(root, 'edmx:Edmx')[0], 'edmx:DataServices')[0], 'Schema')[0];
  if (!schema) throw new Error('The CRM’s metadata cannot be read.');
  const types: Record<string, RecordType> = {};
  const storedAs: Record<string, Record<string, StoredAs>> = {};
  for (const entity of nodes(schema, 'EntityType')) {
    const name = attribute(entity, 'Name')!;
    const properties = nodes(entity, 'Property');
    const fields = [...properties.map(propertyField), ...nodes(entity, 'NavigationProperty').map(navigationField)];
    types[name] = {
      name,
      label: label(entity, name),
      fields: Object.fromEntries(fields.map((field) => [field.name, field])),
    };
    storedAs[name] = Object.fromEntries(
      properties.map((property) => [attribute(property, 'Name')!, storage(property)]),
    );
  }
  const containers = nodes(schema, 'EntityContainer')[0];
  const sets = nodes(containers, 'EntitySet').map((set) => [
    localName(attribute(set, 'EntityType')!),
    attribute(set, 'Name')!,
  ]);
  return { records: { types }, sets: Object.fromEntries(sets) as Record<string, string>, storedAs };
}

function propertyField(property: XmlNode): FieldSchema {
  const name = attribute(property, 'Name')!;
  const allowed = allowedValues(property);
  return {
    name,
    label: label(property, name),
    type: fieldType(property, allowed !== undefined),
    nullable: attribute(property, 'Nullable') !== 'false',
    readonly:
      name === 'id' ||
      annotation(property, 'Core.V1.Computed') !== undefined ||
      attribute(property, 'Type') === 'Edm.Stream',
    ...(allowed ? { allowed } : {}),
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
  const name = attribute(navigation, 'Name')!;
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

function label(node: XmlNode, name: string): string {
  const description = annotation(node, 'Core.V1.Description');
  return (description && attribute(description, 'String')) || name.replaceAll('_', ' ');
}

function allowedValues(property: XmlNode): { value: string; label: string }[] | undefined {
  const allowed = annotation(property, 'Validation.V1.AllowedValues');
  if (!allowed) return undefined;
  return nodes(nodes(allowed, 'Collection')[0], 'Record').map((record) => {
    const value = attribute(
      nodes(record, 'PropertyValue').find((each) => attribute(each, 'Property') === 'Value')!,
      'String',
    )!;
    return { value, label: value };
  });
}

const localName = (qualified: string) => qualified.split('.').at(-1)!;
