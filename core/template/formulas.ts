import { mapSheetFormulas, sheetFormulas } from '../sheet/formulas';
import type { Block, ColumnDefinition, Inline, LineTable, TableGroups, TotalsRow } from './layout';
import { splitPlaceholders } from './placeholders';
import type { Plan, Template } from './template';

/** Where a formula of a template stands. */
export interface FormulaPlace {
  /** For people: "the table “Lines”", "the file name". */
  words: string;
  /** Id of the block on the page. */
  block?: string;
  /** Key of the figure whose formula it is. */
  figure?: string;
  /** The list whose items are in scope: a figure list's name, or any formula that gives a list. */
  list?: string;
}

/** What to put in place of a formula: itself, to leave all as it is. */
export type FormulaChange = (formula: string, place: FormulaPlace) => string;

/** The same template with every formula changed, wherever it stands. */
export function mapFormulas(template: Template, change: FormulaChange): Template {
  const { layout } = template;
  const labels = new Map(
    sheetFormulas(template.sheet).map(({ key, figure, derived }) => [key, (figure ?? derived)!.label]),
  );
  const text = (source: string, place: FormulaPlace) =>
    splitPlaceholders(source)
      .map((part) => (part.kind === 'text' ? part.text : `=[${change(part.formula, place)}]`))
      .join('');
  const blocks = (all: readonly Block[]) => all.map((block) => mapBlock(block, change, text));
  return {
    ...template,
    sheet: mapSheetFormulas(template.sheet, (formula, list, key) =>
      change(formula, {
        words: key === undefined ? 'the currency, or a column proved to add up' : `the figure “${labels.get(key)}”`,
        figure: key,
        list,
      }),
    ),
    layout: {
      ...layout,
      ...(layout.header && { header: blocks(layout.header) }),
      ...(layout.followingHeader && { followingHeader: blocks(layout.followingHeader) }),
      ...(layout.footer && { footer: blocks(layout.footer) }),
      body: blocks(layout.body),
    },
    plans: template.plans.map((plan) => ({
      ...plan,
      fileName: text(plan.fileName, { words: `the file name of “${plan.label}”` }),
      title: text(plan.title, { words: `the title of “${plan.label}”` }),
      ...(plan.pdf && { pdf: mapOutput(plan.pdf, change, `the PDF of “${plan.label}”`) }),
    })),
    ...(template.edition !== undefined && {
      edition: change(template.edition, { words: 'the choice of the edition' }),
    }),
    ...(template.annexes && {
      annexes: template.annexes.map((annex) => ({ ...annex, file: change(annex.file, { words: `the annex “${annex.label}”` }) })), // prettier-ignore
    }),
    checks: template.checks.map((check) => ({
      ...check,
      formula: change(check.formula, { words: `the check “${check.title}”` }),
      sentence: text(check.sentence, { words: `the check “${check.title}”` }),
    })),
  };
}

function mapOutput(pdf: NonNullable<Plan['pdf']>, change: FormulaChange, words: string): NonNullable<Plan['pdf']> {
  const { protection } = pdf;
  if (protection?.password === undefined) return pdf;
  return { ...pdf, protection: { ...protection, password: change(protection.password, { words }) } };
}

/** Every formula of a template with its place. */
export function placedFormulas(template: Template): { formula: string; place: FormulaPlace }[] {
  const found: { formula: string; place: FormulaPlace }[] = [];
  mapFormulas(template, (formula, place) => {
    found.push({ formula, place });
    return formula;
  });
  return found;
}

type TextChange = (source: string, place: FormulaPlace) => string;

function mapBlock(block: Block, change: FormulaChange, text: TextChange): Block {
  const each = (blocks: readonly Block[]) => blocks.map((child) => mapBlock(child, change, text));
  const { id } = block.attrs;
  const inlines = (all: readonly Inline[], words: string) => all.map((inline) => mapInline(inline, change, { words, block: id })); // prettier-ignore
  switch (block.type) {
    case 'paragraph':
      return { ...block, content: inlines(block.content, 'a paragraph') };
    case 'heading':
      return { ...block, content: inlines(block.content, 'a heading') };
    case 'bulletList':
    case 'numberedList':
      return { ...block, content: block.content.map((item) => inlines(item, 'a list')) };
    case 'gridTable':
      return { ...block, rows: block.rows.map((row) => row.map((cell) => inlines(cell, 'a table of words'))) };
    case 'lineTable': {
      return { ...block, attrs: mapTable(block.attrs, change, text) };
    }
    case 'totals': {
      const place = { words: 'the totals', block: id };
      return { ...block, attrs: { ...block.attrs, rows: block.attrs.rows.map((row) => mapRow(row, change, text, place)) } }; // prettier-ignore
    }
    case 'whenSection': {
      const when = change(block.attrs.when, { words: `the section “${block.attrs.note}”`, block: id });
      const { content, otherwise } = block;
      return { ...block, attrs: { ...block.attrs, when }, content: each(content), ...(otherwise && { otherwise: each(otherwise) }) }; // prettier-ignore
    }
    case 'forEach': {
      const { list, note } = block.attrs;
      const inner: FormulaChange = (formula, place) => change(formula, { ...place, list: place.list ?? list });
      const innerText: TextChange = (source, place) => text(source, { ...place, list: place.list ?? list });
      const content = block.content.map((child) => mapBlock(child, inner, innerText));
      return { ...block, attrs: { ...block.attrs, list: change(list, { words: `the section for each ${note}`, block: id }) }, content }; // prettier-ignore
    }
    case 'signature': {
      const place = { words: 'a signature place', block: id };
      const { label, date } = block.attrs;
      return { ...block, attrs: { ...block.attrs, label: text(label, place), date: text(date, place) } };
    }
    case 'richText':
      return { ...block, attrs: { ...block.attrs, formula: change(block.attrs.formula, { words: 'a formatted text', block: id }) } }; // prettier-ignore
    case 'picture': {
      const { formula } = block.attrs;
      return formula === undefined ? block : { ...block, attrs: { ...block.attrs, formula: change(formula, { words: 'a picture', block: id }) } }; // prettier-ignore
    }
    case 'code':
      return {
        ...block,
        attrs: { ...block.attrs, formula: change(block.attrs.formula, { words: 'a code', block: id }) },
      };
    case 'paymentCode': {
      const place = { words: 'the payment code', block: id };
      const { payee, iban, amount, reference } = block.attrs;
      const parts = { payee: change(payee, place), iban: change(iban, place), amount: change(amount, place), reference: change(reference, place) }; // prettier-ignore
      return { ...block, attrs: { ...block.attrs, ...parts } };
    }
    case 'keepTogether':
      return { ...block, content: each(block.content) };
    case 'columns':
      return { ...block, columns: block.columns.map(each) };
    case 'clause':
    case 'logo':
    case 'divider':
    case 'space':
    case 'pageBreak':
      return block;
  }
}

function mapInline(inline: Inline, change: FormulaChange, place: FormulaPlace): Inline {
  if (inline.type !== 'value') return inline;
  return { ...inline, attrs: { ...inline.attrs, formula: change(inline.attrs.formula, place) } };
}

function mapTable(table: LineTable, change: FormulaChange, text: TextChange): LineTable {
  const { id, label, list, filter, sort, groups, bundles, empty } = table;
  const place = { words: `the table “${label}”`, block: id };
  const ofItem = { ...place, list };
  const formula = (each: string) => change(each, ofItem);
  return {
    ...table,
    list: change(list, place),
    ...(filter !== undefined && { filter: formula(filter) }),
    ...(sort && { sort: { ...sort, by: formula(sort.by) } }),
    columns: table.columns.map((column) => mapColumn(column, change, text, place, list)),
    ...(groups && { groups: mapGroups(groups, change, text, place) }),
    ...(bundles && { bundles: { key: formula(bundles.key), partOf: formula(bundles.partOf), show: formula(bundles.show), name: formula(bundles.name) } }), // prettier-ignore
    ...(empty !== undefined && { empty: text(empty, place) }),
  };
}

function mapColumn(
  column: ColumnDefinition,
  change: FormulaChange,
  text: TextChange,
  place: FormulaPlace,
  list: string,
): ColumnDefinition {
  const ofItem = { ...place, list };
  return {
    ...column,
    heading: text(column.heading, place),
    formula: column.counter ? column.formula : change(column.formula, ofItem),
    ...(column.detail !== undefined && { detail: change(column.detail, ofItem) }),
    ...(column.when !== undefined && { when: change(column.when, place) }),
    ...(column.total !== undefined && { total: change(column.total, place) }),
  };
}

function mapGroups(groups: TableGroups, change: FormulaChange, text: TextChange, place: FormulaPlace): TableGroups {
  const ofGroup = { ...place, list: groups.list };
  const { subtotal } = groups;
  return {
    list: change(groups.list, place),
    items: change(groups.items, ofGroup),
    heading: text(groups.heading, ofGroup),
    ...(subtotal && { subtotal: { label: text(subtotal.label, ofGroup), formula: change(subtotal.formula, ofGroup) } }),
  };
}

function mapRow(row: TotalsRow, change: FormulaChange, text: TextChange, place: FormulaPlace): TotalsRow {
  const ofItem = row.each === undefined ? place : { ...place, list: row.each };
  return {
    ...row,
    label: text(row.label, ofItem),
    formula: change(row.formula, ofItem),
    ...(row.each !== undefined && { each: change(row.each, place) }),
    ...(row.when !== undefined && { when: change(row.when, place) }),
  };
}
