import { ENTITY_TYPES, typeNamed, type AllowedValue, type EntityType, type Property } from './model';

const NAMESPACE = 'Crm';

/** The service's CSDL (OASIS OData 4.01 CSDL XML), with labels, units and allowed values by the standard vocabularies. */
export function metadataXml(): string {
  const sets = ENTITY_TYPES.map((type) => {
    const bindings = type.navigations.map(
      ({ name, target }) => `<NavigationPropertyBinding Path="${name}" Target="${typeNamed(target).set}"/>`,
    );
    return `<EntitySet Name="${type.set}" EntityType="${NAMESPACE}.${type.name}">${bindings.join('')}${description(type.plural)}${type.takesNew ? INSERTABLE : ''}${type.takesFiles ? REVISED : ''}</EntitySet>`;
  });
  return `<?xml version="1.0" encoding="utf-8"?>
<edmx:Edmx Version="4.0" xmlns:edmx="http://docs.oasis-open.org/odata/ns/edmx">
<edmx:DataServices>
<Schema Namespace="${NAMESPACE}" xmlns="http://docs.oasis-open.org/odata/ns/edm">
${ENTITY_TYPES.map(entityType).join('\n')}
<EntityType Name="Attachment" HasStream="true"><Key><PropertyRef Name="id"/></Key>${fileProperties('id', 'content_type')}<NavigationProperty Name="revisions" Type="Collection(${NAMESPACE}.AttachmentRevision)" ContainsTarget="true"/></EntityType>
<EntityType Name="AttachmentRevision" HasStream="true"><Key><PropertyRef Name="revision"/></Key>${fileProperties()}</EntityType>
<EntityContainer Name="Container">
${sets.join('\n')}
</EntityContainer>
</Schema>
</edmx:DataServices>
</edmx:Edmx>`;
}

/** What is told of a file, or of one of its earlier contents. */
const fileProperties = (...more: string[]) =>
  [...more, 'name', 'sha256', 'created_at'].map((name) => `<Property Name="${name}" Type="Edm.String"/>`).join('') +
  '<Property Name="size" Type="Edm.Int64"/><Property Name="revision" Type="Edm.Int32"/>';

function entityType(type: EntityType): string {
  const properties = type.properties.map(property);
  const navigations = type.navigations.map(({ name, label, target, many, orderedBy }) => {
    const related = many ? `Collection(${NAMESPACE}.${target})` : `${NAMESPACE}.${target}`;
    return `<NavigationProperty Name="${name}" Type="${related}">${description(label)}${orderedBy ? ORDERED : ''}</NavigationProperty>`;
  });
  if (type.takesFiles)
    navigations.push(
      `<NavigationProperty Name="attachments" Type="Collection(${NAMESPACE}.Attachment)" ContainsTarget="true">${description('Attachments')}</NavigationProperty>`,
    );
  return `<EntityType Name="${type.name}"><Key><PropertyRef Name="id"/></Key>${properties.join('')}${navigations.join('')}${description(type.label)}</EntityType>`;
}

function property({ name, type, label, nullable, computed, currency, unit, allowed, mediaType }: Property): string {
  const facets = type === 'Edm.Decimal' ? ' Precision="30" Scale="variable"' : '';
  const annotations = [
    description(label),
    computed ? '<Annotation Term="Org.OData.Core.V1.Computed" Bool="true"/>' : '',
    currency ? `<Annotation Term="Org.OData.Measures.V1.ISOCurrency" Path="${currency}"/>` : '',
    unit ? `<Annotation Term="Org.OData.Measures.V1.Unit" String="${unit}"/>` : '',
    allowed ? allowedValues(allowed) : '',
    mediaType ? `<Annotation Term="Org.OData.Core.V1.MediaType" String="${mediaType}"/>` : '',
  ];
  return `<Property Name="${name}" Type="${type}" Nullable="${nullable ?? false}"${facets}>${annotations.join('')}</Property>`;
}

/** OData Capabilities vocabulary. */
const INSERTABLE =
  '<Annotation Term="Org.OData.Capabilities.V1.InsertRestrictions"><Record><PropertyValue Property="Insertable" Bool="true"/></Record></Annotation>';
/** The content of a file on a record can be replaced; the earlier ones are kept as its revisions. */
const REVISED =
  '<Annotation Term="Org.OData.Capabilities.V1.NavigationRestrictions"><Record><PropertyValue Property="RestrictedProperties"><Collection><Record>' +
  '<PropertyValue Property="NavigationProperty" NavigationPropertyPath="attachments"/>' +
  '<PropertyValue Property="UpdateRestrictions"><Record><PropertyValue Property="Updatable" Bool="true"/></Record></PropertyValue>' +
  '</Record></Collection></PropertyValue></Record></Annotation>';
const ORDERED = '<Annotation Term="Org.OData.Core.V1.Ordered" Bool="true"/>';

function description(label: string): string {
  return `<Annotation Term="Org.OData.Core.V1.Description" String="${escapeXml(label)}"/>`;
}

/** The values that a property may have; a description says what people call one, where that is something else. */
function allowedValues(values: readonly AllowedValue[]): string {
  const records = values.map((each) => {
    const { value, label } = typeof each === 'string' ? { value: each, label: undefined } : each;
    const named = label === undefined ? '' : description(label);
    return `<Record><PropertyValue Property="Value" String="${escapeXml(value)}"/>${named}</Record>`;
  });
  return `<Annotation Term="Org.OData.Validation.V1.AllowedValues"><Collection>${records.join('')}</Collection></Annotation>`;
}

export function escapeXml(text: string): string {
  return text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
}
