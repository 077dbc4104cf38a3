import { escapeXml as safe } from './metadata';
import { ENTITY_TYPES, valueOf, type AllowedValue, type EntityType, type Property } from './model';
import type { Attachment, StoredRecord } from './store';

const STYLE = `body{font:15px/1.5 system-ui,sans-serif;margin:2rem auto;max-width:60rem;padding:0 1rem;color:#222}
table{border-collapse:collapse;width:100%}td,th{text-align:left;padding:.3rem .6rem;border-bottom:1px solid #ddd;vertical-align:top}
input,select{font:inherit;padding:.15rem .3rem}form.row{display:flex;gap:.5rem}a{color:#234}.note{background:#eef;padding:.5rem 1rem}`;

/** The records that have a list of their own on these pages: those that files can be put on. */
const LISTED = () => ENTITY_TYPES.filter(({ takesFiles }) => takesFiles);
const areaOf = ({ set }: EntityType) => set.toLowerCase();
export const FIRST_AREA = 'deals';

/** The type whose records stand under the first part of an address: `/deals/D-1188`. */
export const typeOfArea = (area: string): EntityType | undefined => ENTITY_TYPES.find((type) => areaOf(type) === area);

/** The address of a record's page. */
export const pathOf = (type: EntityType, id: string): string => `/${areaOf(type)}/${encodeURIComponent(id)}`;

const page = (title: string, body: string) => {
  const areas = LISTED().map((type) => `<a href="/${areaOf(type)}">${safe(type.plural)}</a>`);
  const links = ['<a href="/">CRM stand-in</a>', ...areas, '<a href="/fields">Fields</a>'];
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${safe(title)}</title><style>${STYLE}</style><body><p>${links.join(' · ')}</p><h1>${safe(title)}</h1>${body}</body></html>`;
};

/** What a record is called on these pages. */
const calledOn = ({ body }: StoredRecord): string =>
  String(body.name ?? body.subject ?? [body.given_name, body.family_name].filter(Boolean).join(' '));

/** The columns of a list: what fits a line. */
const COLUMNS: Readonly<Record<string, readonly string[]>> = {
  Deal: ['stage', 'amount', 'currency'],
  Account: ['city', 'country'],
  Contact: ['job_title', 'email'],
  LineItem: ['quantity', 'unit_price', 'discount'],
  Activity: ['kind', 'text'],
};
const columnsOf = (type: EntityType) =>
  (COLUMNS[type.name] ?? []).flatMap((name) => type.properties.find((each) => each.name === name) ?? []);

/** All records of a type, plainly. */
export function listPage(type: EntityType, records: readonly StoredRecord[]): string {
  return page(type.plural, listOf(type, records));
}

/** Records in a table; those that have no page of their own are changed where they stand. */
function listOf(type: EntityType, records: readonly StoredRecord[]): string {
  const columns = columnsOf(type);
  const heads = ['', 'Name', ...columns.map(({ label }) => label)].map((head) => `<th>${safe(head)}</th>`);
  const rows = records.map((record) => {
    const { id, body } = record;
    const own = pathOf(type, id);
    const first = type.takesFiles ? `<a href="${safe(own)}">${safe(id)}</a>` : safe(String(body.position ?? ''));
    const cells = columns.map(({ name }) =>
      type.takesFiles ? safe(String(body[name] ?? '')) : changeForm(`${own}/change`, name, body[name]),
    );
    return `<tr>${[first, safe(calledOn(record)), ...cells].map((cell) => `<td>${cell}</td>`).join('')}</tr>`;
  });
  return `<table><tr>${heads.join('')}</tr>${rows.join('')}</table>`;
}

/** All fields of all types; whoever runs the CRM may give one another name. */
export function fieldsPage(message?: string): string {
  const note = message ? `<p class="note">${safe(message)}</p>` : '';
  const types = ENTITY_TYPES.map(({ name: type, plural, properties }) => {
    const rows = properties
      .filter(({ name }) => name !== 'id')
      .map(({ name, label }) => {
        const hidden = (key: string, value: string) => `<input type="hidden" name="${key}" value="${safe(value)}">`;
        const form = `<form class="row" method="post" action="/fields">${hidden('type', type)}${hidden('from', name)}<input name="to" aria-label="${safe(`${type} ${name}`)}" value="${safe(name)}"><button>Rename</button></form>`;
        return `<tr><td>${safe(label)}</td><td>${form}</td></tr>`;
      });
    return `<h2>${safe(plural)}</h2><table>${rows.join('')}</table>`;
  });
  return page('Fields', `${note}${types.join('')}`);
}

/** One record: its fields, the records that belong to it, and its attachments, each to be changed by hand. */
export function recordPage({
  type,
  record,
  lists,
  attachments,
  lumbix,
  message,
}: {
  type: EntityType;
  record: StoredRecord;
  lists: readonly { label: string; type: EntityType; records: readonly StoredRecord[] }[];
  attachments: readonly (Attachment & { earlier: readonly Pick<Attachment, 'revision' | 'name'>[] })[];
  lumbix: string;
  message?: string;
}): string {
  const note = message ? `<p class="note">${safe(message)}</p>` : '';
  // Any CRM can hold such a link: the name of the type, and the record's id.
  const link = `${lumbix}/records/${encodeURIComponent(type.name)}/${encodeURIComponent(record.id)}`;
  const open = `<p><a href="${safe(link)}">Open in Lumbix</a></p>`;
  const fields = type.properties.filter(({ computed }) => !computed);
  const files = attachments.map(({ id, name, size, sha256, revision, earlier }) => {
    const before = earlier.map(
      (each) =>
        `<a href="/attachments/${id}/${each.revision}" title="${safe(each.name)}">revision ${each.revision}</a>`,
    );
    const kept = revision > 1 ? `, revision ${revision}; before it: ${before.join(', ')}` : '';
    return `<tr><td><a href="/attachments/${id}">${safe(name)}</a>${kept}</td><td>${size} bytes</td><td><small>${sha256.slice(0, 16)}…</small></td></tr>`;
  });
  const shown = lists.map(({ label, type: of, records }) => `<h2>${safe(label)}</h2>${listOf(of, records)}`);
  const rows = fields.map(
    (field) =>
      `<tr><th>${safe(field.label)}</th><td>${changeForm(`${pathOf(type, record.id)}/change`, field.name, record.body[field.name], field.allowed)}</td></tr>`,
  );
  return page(
    `${record.id}: ${calledOn(record)}`,
    `${note}${open}<h2>Attachments</h2><table>${files.join('') || '<tr><td>None</td></tr>'}</table>
<h2>Fields</h2><table>${rows.join('')}</table>${shown.join('')}`,
  );
}

function changeForm(action: string, name: string, value: unknown, allowed?: readonly AllowedValue[]): string {
  const shown = Array.isArray(value) ? value.join(', ') : String(value ?? '');
  const option = (each: AllowedValue) =>
    `<option value="${safe(valueOf(each))}"${valueOf(each) === value ? ' selected' : ''}>${safe(typeof each === 'string' ? each : each.label)}</option>`;
  const input =
    allowed && !Array.isArray(value)
      ? `<select name="value" aria-label="${name}"><option></option>${allowed.map(option).join('')}</select>`
      : `<input name="value" aria-label="${name}" value="${safe(shown)}">`;
  return `<form class="row" method="post" action="${safe(action)}"><input type="hidden" name="property" value="${name}">${input}<button>Set</button></form>`;
}

/** Turns what was typed into a form into a property's value; an empty field is an absent value. */
export function typedValue({ type }: Property, typed: string): unknown {
  if (type === 'Collection(Edm.String)')
    return typed
      .split(',')
      .map((each) => each.trim())
      .filter(Boolean);
  if (typed.trim() === '') return null;
  if (type === 'Edm.Int32') return Number(typed);
  if (type === 'Edm.Boolean') return typed === 'true' || typed === 'yes';
  return typed;
}
