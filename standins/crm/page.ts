import { escapeXml as safe } from './metadata';
import { ENTITY_TYPES, STAGES, typeNamed, type Property } from './model';
import type { Attachment, StoredRecord } from './store';

const STYLE = `body{font:15px/1.5 system-ui,sans-serif;margin:2rem auto;max-width:60rem;padding:0 1rem;color:#222}
table{border-collapse:collapse;width:100%}td,th{text-align:left;padding:.3rem .6rem;border-bottom:1px solid #ddd;vertical-align:top}
input,select{font:inherit;padding:.15rem .3rem}form.row{display:flex;gap:.5rem}a{color:#234}.note{background:#eef;padding:.5rem 1rem}`;

const page = (title: string, body: string) =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>${safe(title)}</title><style>${STYLE}</style><body><p><a href="/">CRM stand-in</a> · <a href="/fields">Fields</a></p><h1>${safe(title)}</h1>${body}</body></html>`;

/** All deals, plainly. */
export function dealsPage(deals: readonly StoredRecord[]): string {
  const rows = deals.map(({ id, body }) => {
    const cells = [body.stage, body.amount ?? '', body.currency ?? ''].map((cell) => `<td>${safe(String(cell))}</td>`);
    return `<tr><td><a href="/deals/${encodeURIComponent(id)}">${safe(id)}</a></td><td>${safe(String(body.name))}</td>${cells.join('')}</tr>`;
  });
  return page(
    'Deals',
    `<table><tr><th>Number</th><th>Name</th><th>Stage</th><th>Amount</th><th></th></tr>${rows.join('')}</table>`,
  );
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

/** One deal: its stage, fields, line items and attachments, each to be changed by hand. */
export function dealPage(
  deal: StoredRecord,
  lines: readonly StoredRecord[],
  attachments: readonly Attachment[],
  lumbix: string,
  message?: string,
): string {
  const note = message ? `<p class="note">${safe(message)}</p>` : '';
  const open = `<p><a href="${safe(lumbix)}/records/Deal/${encodeURIComponent(deal.id)}">Open in Lumbix</a></p>`;
  const stages = STAGES.map((stage) => `<option${stage === deal.body.stage ? ' selected' : ''}>${stage}</option>`).join(
    '',
  );
  const stage = `<form class="row" method="post" action="/deals/${safe(deal.id)}/change"><input type="hidden" name="property" value="stage"><select name="value" aria-label="Stage">${stages}</select><button>Move</button></form>`;
  const fields = typeNamed('Deal').properties.filter(({ computed, name }) => !computed && name !== 'stage');
  const files = attachments.map(
    ({ id, name, size, sha256 }) =>
      `<tr><td><a href="/attachments/${id}">${safe(name)}</a></td><td>${size} bytes</td><td><small>${sha256.slice(0, 16)}…</small></td></tr>`,
  );
  const lineRows = lines.map(
    (line) =>
      `<tr><td>${safe(String(line.body.position))}</td><td>${safe(String(line.body.name))}</td>${['quantity', 'unit_price', 'discount'].map((name) => `<td>${changeForm(`/lines/${line.id}/change`, name, line.body[name])}</td>`).join('')}</tr>`,
  );
  return page(
    `${deal.id}: ${String(deal.body.name)}`,
    `${note}${open}<h2>Stage</h2>${stage}<h2>Attachments</h2><table>${files.join('') || '<tr><td>None</td></tr>'}</table>
<h2>Fields</h2><table>${fields.map((field) => fieldRow(deal, field)).join('')}</table>
<h2>Line items</h2><table><tr><th></th><th>Name</th><th>Quantity</th><th>Unit price</th><th>Discount %</th></tr>${lineRows.join('')}</table>`,
  );
}

function fieldRow(deal: StoredRecord, { name, label }: Property): string {
  return `<tr><th>${safe(label)}</th><td>${changeForm(`/deals/${deal.id}/change`, name, deal.body[name])}</td></tr>`;
}

function changeForm(action: string, name: string, value: unknown): string {
  const shown = Array.isArray(value) ? value.join(', ') : String(value ?? '');
  return `<form class="row" method="post" action="${safe(action)}"><input type="hidden" name="property" value="${name}"><input name="value" aria-label="${name}" value="${safe(shown)}"><button>Set</button></form>`;
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
