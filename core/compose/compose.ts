import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { collectReads, figuresUnder, itemsOf, type Cell } from '../formula/cell';
import { dayOf } from '../formula/date';
import type { Figure, Role } from '../formula/figure';
import { asCondition } from '../formula/functions';
import type { RegisteredDocument } from '../formula/functions/function';
import type { Row } from '../formula/row';
import { Sheet } from '../formula/sheet';
import { error, formatValue, sentence, type Value, type ValueFormat } from '../formula/value';
import { workingsOf, type Workings } from '../formula/workings';
import { Decimal } from '../money/decimal';
import { isCurrencyCode } from '../money/currency';
import { formatMoney } from '../money/format';
import { gatherFindings, type Finding } from '../preflight/finding';
import type { RecordSchema } from '../record/schema';
import type { RecordSnapshot } from '../record/snapshot';
import { usedDigest } from '../record/used';
import type { Block, ColumnDefinition, Inline, Symbology, TableGroups, TotalsRow } from '../template/layout';
import { splitPlaceholders } from '../template/placeholders';
import { documentRoots } from '../template/roots';
import type { HouseStyle, Plan, Template } from '../template/template';
import type { Composition, PrintedValue } from './composition';
import { drawCode } from './code';
import type { Assets, ComposedBlock, ComposedCell, ComposedDocument, Run, TableSection } from './document';
import { priceBridge } from './bridge';
import { safeFileName } from './file-name';
import { paymentText } from './payment-code';

/** What a document depends on besides its template and its record. */
export interface ComposeContext {
  schema: RecordSchema;
  houseStyle: HouseStyle;
  /** ISO 8601 day in the company's time zone. */
  issueDate: string;
  edition: string;
  plan: string;
  /** The series' serial and the number made from it; absent until filing has taken one. */
  number?: { serial: number; text: string };
  /** Documents filed for the record before. */
  registered?: readonly RegisteredDocument[];
  /** IANA name of the company's time zone. */
  timeZone?: string;
}

/**
 * Composes a document: evaluates every condition and formula of the template over the record, unrolls its lists and
 * formats its values. Pure and deterministic: the same arguments give the same composition, and nothing is thrown for
 * what a record holds. Errors and blanks become findings and visible marks.
 */
export function compose(template: Template, snapshot: RecordSnapshot, context: ComposeContext): Composition {
  return composing(template, snapshot, context).composition;
}

/** A composition that can still be asked how its values came about. */
export interface Composing {
  composition: Composition;
  /** The workings of a figure or value by their id; made when asked for, since few are. */
  explain(id: string): Workings | undefined;
  /** The workings of every figure and every printed value, by id: kept with a filed document. */
  explainAll(): Record<string, Workings>;
}

/** Composes a document, and keeps what it takes to explain it. */
export function composing(template: Template, snapshot: RecordSnapshot, context: ComposeContext): Composing {
  const composer = new Composer(template, snapshot, context);
  return {
    composition: composer.compose(),
    explain: (id) => composer.explain(id),
    explainAll: () => composer.explainAll(),
  };
}

/** The state of one composition: what was printed, found and read so far. */
class Composer {
  readonly #sheet: Sheet;
  readonly #locale: string;
  readonly #plan: Plan;
  readonly #findings: Finding[] = [];
  readonly #values: Record<string, PrintedValue> = {};
  /** Cells that someone may want explained, by their ids. */
  readonly #explainable = new Map<string, Cell>();
  readonly #used = new Map<string, string>();
  readonly #leftOut: { block: string; note: string }[] = [];
  readonly #assets: Record<string, Assets[string]> = {};
  readonly #logoHash: string;

  constructor(
    readonly template: Template,
    snapshot: RecordSnapshot,
    readonly context: ComposeContext,
  ) {
    const edition = template.editions.find(({ id }) => id === context.edition) ?? template.editions[0]!;
    this.#locale = edition.locale;
    this.#plan = template.plans.find(({ id }) => id === context.plan) ?? template.plans[0]!;
    this.#logoHash = this.#asset(context.houseStyle.logo.svg);
    this.#sheet = new Sheet({
      sheet: template.sheet,
      schema: context.schema,
      snapshot,
      root: template.record.root,
      roots: documentRoots({
        company: context.houseStyle.company,
        issueDate: context.issueDate,
        edition: edition.id,
        number: context.number?.text,
      }),
      locale: this.#locale,
      today: dayOf(context.issueDate),
      timeZone: context.timeZone,
      registered: context.registered,
      serial: context.number?.serial,
    });
  }

  compose(): Composition {
    this.#checkCurrency();
    const { layout } = this.template;
    const header = this.#blocks(layout.header);
    const followingHeader = this.#blocks(layout.followingHeader ?? []);
    const body = this.#blocks(layout.body);
    const footer = this.#blocks(layout.footer);
    const title = this.#placed('title', this.#plan.title);
    const fileName = safeFileName(this.#placed('file name', this.#plan.fileName), 'pdf');
    const sums = this.#proveSums();
    this.#runChecks();
    const figures = this.#figures();
    const used = Object.fromEntries(this.#used);
    return {
      document: this.#document(title, { header, followingHeader, body, footer }),
      assets: this.#assets,
      figures,
      bridge: priceBridge((role) => this.#withRole(role), this.#locale),
      roles: this.#roles(),
      values: this.#values,
      findings: gatherFindings(this.#findings),
      fileName,
      title,
      currency: this.#sheet.currency ?? null,
      used,
      usedDigest: usedDigest(used),
      leftOut: this.#leftOut,
      proved: { sums },
    };
  }

  #document(
    title: string,
    parts: Pick<ComposedDocument, 'header' | 'followingHeader' | 'body' | 'footer'>,
  ): ComposedDocument {
    const { houseStyle, issueDate } = this.context;
    const { language, region } = new Intl.Locale(this.#locale);
    return {
      title,
      language,
      region,
      direction: ['ar', 'fa', 'he', 'ur'].includes(language) ? 'rtl' : 'ltr',
      date: issueDate,
      author: houseStyle.company.name ?? houseStyle.name,
      page: this.template.layout.page,
      style: { fonts: houseStyle.fonts, colours: houseStyle.colours },
      ...parts,
    };
  }

  #blocks(blocks: readonly Block[], row?: Row): ComposedBlock[] {
    return blocks.flatMap((block) => this.#block(block, row));
  }

  /** Composes a block, with the item of a for-each section in scope where it stands in one. */
  #block(block: Block, row?: Row): ComposedBlock[] {
    const source = block.attrs.id;
    switch (block.type) {
      case 'paragraph': {
        const runs = this.#inlines(block.content, source, row);
        if (runs.length === 0) return [];
        return [{ kind: 'paragraph', source, look: block.attrs.look, align: block.attrs.align ?? 'start', runs }];
      }
      case 'heading':
        return [{ kind: 'heading', source, level: block.attrs.level, runs: this.#inlines(block.content, source, row) }];
      case 'bulletList':
        return [{ kind: 'list', source, items: block.content.map((item) => this.#inlines(item, source, row)) }];
      case 'lineTable':
        return this.#lineTable(block, row);
      case 'totals':
        return this.#totals(block, row);
      case 'whenSection':
        return this.#whenSection(block, row);
      case 'forEach':
        return this.#forEach(block, row);
      case 'pageBreak':
        return [{ kind: 'pageBreak', source }];
      case 'signature': {
        const words = (text: string): Run[] => [{ kind: 'text', text }];
        const label = this.#placed(`${source} label`, block.attrs.label, source, row);
        return [{ kind: 'signature', source, label: words(label), date: words(block.attrs.date) }];
      }
      case 'code':
        return this.#code(block, row);
      case 'paymentCode':
        return this.#paymentCode(block, row);
      case 'keepTogether':
        return [{ kind: 'keep', source, blocks: withoutBreaks(this.#blocks(block.content, row)) }];
      case 'columns': {
        const columns = block.columns.map((column) => withoutBreaks(this.#blocks(column, row)));
        return [{ kind: 'columns', source, widths: block.attrs.widths, columns }];
      }
      case 'logo': {
        const { alt } = this.context.houseStyle.logo;
        return [{ kind: 'picture', source, picture: this.#logoHash, width: block.attrs.width, alt }];
      }
      case 'divider':
        return [{ kind: 'divider', source }];
      case 'space':
        return [{ kind: 'space', source, height: block.attrs.height }];
    }
  }

  #whenSection(block: Extract<Block, { type: 'whenSection' }>, row?: Row): ComposedBlock[] {
    const { id, when, note } = block.attrs;
    if (this.#chooses(id, when, id, row)) {
      const blocks = this.#blocks(block.content, row);
      return blocks.length === 0 ? [] : [{ kind: 'section', source: id, note: `when ${note}`, blocks }];
    }
    if (block.otherwise) {
      return [
        {
          kind: 'section',
          source: id,
          note: `unless ${note}`,
          blocks: this.#blocks(block.otherwise, row),
        },
      ];
    }
    this.#leftOut.push({ block: id, note });
    return [];
  }

  /** The outcome of a condition; what counts as used is the outcome, not the fields it looked at. */
  #chooses(id: string, formula: string, block: string, row?: Row): boolean {
    const key = row ? `${id} ${row.path}` : id;
    const cell = this.#sheet.evaluate(`when ${key}`, formula, row);
    const holds = asCondition(cell.value);
    if (typeof holds !== 'boolean') {
      this.#faulty(holds, block);
      return false;
    }
    this.#used.set(`when ${key}`, String(holds));
    return holds;
  }

  /** Blocks for each item of a list; nothing at all for an empty one. */
  #forEach(block: Extract<Block, { type: 'forEach' }>, row?: Row): ComposedBlock[] {
    const { id, list, note, startsPage } = block.attrs;
    const blocks = this.#rows(id, list, note, row).flatMap((item) => [
      ...(startsPage ? [{ kind: 'pageBreak' as const, source: id }] : []),
      ...this.#blocks(block.content, item),
    ]);
    return blocks.length === 0 ? [] : [{ kind: 'section', source: id, note: `for each ${note}`, blocks }];
  }

  /** The rows that a block prints for; what is no list is a finding. */
  #rows(id: string, list: string, label: string, row?: Row): Row[] {
    const cell = this.#sheet.evaluate(row ? `${id} ${row.path}` : id, list, row);
    collectReads(cell, this.#used);
    if (cell.value.type === 'list')
      return cell.value.items.flatMap((item) => (item.type === 'record' ? [item.row] : []));
    this.#faulty(cell.value.type === 'error' ? cell.value : error(`“${label}” is not over a list.`), id);
    return [];
  }

  /** A formula's text as a code that machines read. */
  #code(block: Extract<Block, { type: 'code' }>, row?: Row): ComposedBlock[] {
    const { id, symbology, formula, width, alt } = block.attrs;
    const value = this.#readFor(id, formula, row);
    return value === undefined ? [] : this.#drawnCode(id, symbology, value, width, alt);
  }

  #paymentCode(block: Extract<Block, { type: 'paymentCode' }>, row?: Row): ComposedBlock[] {
    const { id, width, amount, ...formulas } = block.attrs;
    const [payee, iban, reference] = [formulas.payee, formulas.iban, formulas.reference].map((formula, at) => this.#readFor(`${id} ${at}`, formula, row)); // prettier-ignore
    const cell = this.#sheet.evaluate(`${id} amount`, amount, row);
    collectReads(cell, this.#used);
    if (cell.value.type !== 'money') {
      this.#faulty(cell.value.type === 'error' ? cell.value : error('The amount of the payment code is no money.'), id);
      return [];
    }
    if (payee === undefined || iban === undefined || reference === undefined) return [];
    const payment = paymentText({ payee, iban, reference, amount: cell.value });
    if ('text' in payment) return this.#drawnCode(id, 'qrcode', payment.text, width, 'Payment code');
    this.#faulty(error(payment.problem), id);
    return [];
  }

  /** The text of a formula that is printed in another form than words; undefined, with a finding, where it has none. */
  #readFor(id: string, formula: string, row?: Row): string | undefined {
    const runs = this.#print({ id, formula, block: id, row });
    if (runs.some((run) => run.kind === 'text' && run.fault)) return undefined;
    return runs.map((run) => (run.kind === 'text' ? run.text : '\n')).join('');
  }

  #drawnCode(source: string, symbology: Symbology, text: string, width: number, alt: string): ComposedBlock[] {
    const svg = drawCode(symbology, text);
    if (svg === undefined) {
      this.#faulty(error(`“${text}” cannot be printed as this kind of code; choose another kind, or another text.`), source); // prettier-ignore
      return [];
    }
    return [{ kind: 'picture', source, picture: this.#asset(svg), width, alt }];
  }

  /** Keeps a picture among the document's assets; gives its hash. */
  #asset(svg: string): string {
    const hash = bytesToHex(sha256(utf8ToBytes(svg)));
    this.#assets[hash] = { mediaType: 'image/svg+xml', text: svg };
    return hash;
  }

  #inlines(inlines: readonly Inline[], block: string, row?: Row): Run[] {
    return inlines.flatMap((inline): Run[] => {
      switch (inline.type) {
        case 'text':
          return brokenLines({ kind: 'text', text: inline.text, ...marksOf(inline.marks) });
        case 'value': {
          const { id, formula, format, mayBeBlank } = inline.attrs;
          const runs = this.#print({ id, formula, format, mayBeBlank, block, row });
          return runs.map((run) => (run.kind === 'text' ? { ...run, ...marksOf(inline.marks) } : run));
        }
        case 'hardBreak':
          return [{ kind: 'break' }];
        default:
          return [{ kind: inline.type }];
      }
    });
  }

  /** Evaluates and prints one value, noting what it read, where it stands and what is wrong with it. */
  #print(request: ValueRequest): Run[] {
    const { id, formula, block, row, format, mayBeBlank } = request;
    const key = row ? `${id} ${row.path}` : id;
    const cell = this.#sheet.evaluate(key, formula, row);
    collectReads(cell, this.#used);
    this.#values[key] = { block, workings: this.#explain(this.#behind(cell)) };
    this.#refuseInternal(cell, block, key);
    const { value } = cell;
    if (value.type === 'error') {
      this.#faulty(value, block, key);
      return [{ kind: 'text', text: 'error', value: key, fault: 'error' }];
    }
    if (value.type === 'blank') {
      if (mayBeBlank) return [];
      this.#findings.push({
        id: `missing ${value.path ?? key}`,
        severity: 'stops',
        title: sentence(value.cause.replace(/^the .+? has /, '')),
        sentence: `${sentence(value.place ? `${value.place}: ${value.cause}` : value.cause)}, but it is printed here. Set it on the deal.`,
        block,
        values: [key],
        path: value.path,
        workings: this.#values[key].workings,
      });
      return [{ kind: 'text', text: '\u00a0\u00a0\u00a0\u00a0', value: key, fault: 'blank' }];
    }
    return brokenLines({ kind: 'text', text: formatValue(value, this.#locale, format), value: key });
  }

  /** For a value that is nothing but one figure, that figure: its workings are what a person wants to see. */
  #behind(cell: Cell): Cell {
    const { expression } = cell;
    if (expression?.kind !== 'name' && expression?.kind !== 'member') return cell;
    const [only, other] = itemsOf(cell.through);
    return only?.figure && !other && cell.value === only.value ? only : cell;
  }

  #faulty(value: Value, block: string, key?: string): void {
    if (value.type !== 'error') return;
    this.#findings.push({
      id: value.path ? `missing ${value.path}` : `error ${value.message}`,
      severity: 'stops',
      title: value.path ? 'A value is missing' : 'A figure cannot be computed',
      sentence: value.message.endsWith('.') ? value.message : `${value.message}.`,
      block,
      values: key ? [key] : [],
      path: value.path,
      workings: key && this.#values[key]?.workings,
    });
  }

  /** Internal figures (cost, margin) never reach the page, not even through another formula of the page. */
  #refuseInternal(cell: Cell, block: string, key: string): void {
    const internal = figuresUnder(cell).find(({ figure }) => figure?.internal);
    if (!internal) return;
    this.#findings.push({
      id: `internal ${internal.figure!.name}`,
      severity: 'stops',
      title: 'An internal figure is printed',
      sentence: `“${internal.figure!.label}” is internal and must not be printed. Take it off the page.`,
      block,
      values: [key],
    });
  }

  #lineTable(block: Extract<Block, { type: 'lineTable' }>, row?: Row): ComposedBlock[] {
    const { id, list, label, empty, groups } = block.attrs;
    const rows = this.#rows(id, list, label, row);
    if (rows.length === 0) return this.#emptyTable(id, label, empty);
    const columns = block.attrs.columns.filter(
      (column) => !column.when || this.#chooses(`${id} ${column.id}`, column.when, id),
    );
    let position = 0;
    const printed = (items: readonly Row[]) =>
      items.map((item) => {
        const at = position++;
        return columns.map((column) => ({ runs: this.#columnValue(column, id, item, at), detail: this.#detail(column, id, item) })); // prettier-ignore
      });
    const sections = groups ? this.#tableGroups(groups, id, label, printed, row) : [{ rows: printed(rows) }];
    const headings = columns.map((column) => ({
      heading: [{ kind: 'text' as const, text: this.#placed(`${id} ${column.id}`, column.heading, id) }],
      align: column.align,
      width: column.width,
    }));
    return [{ kind: 'table', source: id, label, columns: headings, sections }];
  }

  #tableGroups(
    groups: TableGroups,
    id: string,
    label: string,
    printed: (items: readonly Row[]) => ComposedCell[][],
    row?: Row,
  ): TableSection[] {
    const { heading, items, subtotal } = groups;
    return this.#rows(`${id} groups`, groups.list, label, row).map((group): TableSection => {
      const words = (text: string, part: string): Run[] => [{ kind: 'text', text: this.#placed(`${id} ${part}`, text, id, group) }]; // prettier-ignore
      return {
        heading: words(heading, 'group'),
        rows: printed(this.#rows(`${id} items`, items, label, group)),
        subtotal: subtotal && {
          label: words(subtotal.label, 'subtotal label'),
          value: this.#print({
            id: `${id}.subtotal`,
            formula: subtotal.formula,
            format: 'plain',
            block: id,
            row: group,
          }),
        },
      };
    });
  }

  #emptyTable(source: string, label: string, empty: string | undefined): ComposedBlock[] {
    if (empty === undefined) return [];
    this.#findings.push({
      id: `empty ${source}`,
      severity: 'warns',
      title: `Nothing in “${label}”`,
      sentence: 'The deal has no lines for this table, so a sentence is printed in its place.',
      block: source,
      values: [],
    });
    return [{ kind: 'paragraph', source, look: 'quiet', align: 'start', runs: [{ kind: 'text', text: empty }] }];
  }

  #columnValue(column: ColumnDefinition, block: string, row: Row, position: number): Run[] {
    if (column.counter) return [{ kind: 'text', text: String(position + 1) }];
    const { formula, format, mayBeBlank } = column;
    return this.#print({ id: `${block}.${column.id}`, formula, format, mayBeBlank, block, row });
  }

  #detail(column: ColumnDefinition, block: string, row: Row): Run[] | undefined {
    if (!column.detail) return undefined;
    const runs = this.#print({
      id: `${block}.${column.id}.detail`,
      formula: column.detail,
      mayBeBlank: true,
      block,
      row,
    });
    return runs.length === 0 ? undefined : runs;
  }

  #totals(block: Extract<Block, { type: 'totals' }>, outer?: Row): ComposedBlock[] {
    const { id, rows } = block.attrs;
    const printed = rows.flatMap((row) => {
      if (row.when && !this.#chooses(`${id} ${row.id}`, row.when, id, outer)) return [];
      return this.#totalsItems(row, id, outer).map((item) => ({
        label: [{ kind: 'text' as const, text: this.#placed(`${id} ${row.id} label`, row.label, id, item) }],
        value: this.#print({ id: `${id}.${row.id}`, formula: row.formula, format: 'plain', block: id, row: item }),
        emphasis: row.emphasis === 'total',
      }));
    });
    return [{ kind: 'totals', source: id, rows: printed }];
  }

  #totalsItems(row: TotalsRow, block: string, outer?: Row): (Row | undefined)[] {
    return row.each ? this.#rows(`${block} ${row.id} each`, row.each, row.label, outer) : [outer];
  }

  /** Text with placeholders, each value in the words of the edition. A fault in one is a finding. */
  #placed(id: string, source: string, block = 'plan', row?: Row): string {
    return splitPlaceholders(source)
      .map((part, position) => {
        if (part.kind === 'text') return part.text;
        const runs = this.#print({ id: `${id} ${position}`, formula: part.formula, block, row });
        return runs.map((run) => (run.kind === 'text' ? run.text : ' ')).join('');
      })
      .join('');
  }

  #checkCurrency(): void {
    const cell = this.#sheet.evaluate('currency', this.template.sheet.currency);
    collectReads(cell, this.#used);
    if (cell.value.type === 'text' && isCurrencyCode(cell.value.value)) return;
    const path = cell.value.type === 'blank' || cell.value.type === 'error' ? cell.value.path : undefined;
    this.#findings.push({
      id: 'currency',
      severity: 'stops',
      title: 'No currency',
      sentence: 'The deal has no currency that is an ISO 4217 code, so no sum can be printed. Set it on the deal.',
      values: [],
      path,
    });
  }

  /** What is printed adds up: each declared column sums to its figure (EN 16931 BR-CO-10, BR-CO-14). */
  #proveSums(): number {
    let proved = 0;
    for (const { column, figure } of this.template.sheet.sums) {
      const columnCell = this.#sheet.evaluate(`sum ${figure}`, column);
      const total = this.#sheet.figure(figure);
      if (columnCell.value.type !== 'list' || total.value.type !== 'money') continue;
      const { currency } = total.value;
      const printed = columnCell.value.items.reduce(
        (sum, item) => (item.type === 'money' ? sum.plus(item.value) : sum),
        Decimal.of(0),
      );
      if (printed.equals(total.value.value)) {
        proved++;
        continue;
      }
      this.#findings.push({
        id: `sum ${figure}`,
        severity: 'stops',
        title: 'A printed column does not add up',
        sentence: `The values of ${column} add up to ${formatMoney(printed, currency, this.#locale)}, but “${total.figure!.label}” prints ${formatValue(total.value, this.#locale)}.`,
        values: [],
        workings: this.#explain(total),
      });
    }
    return proved;
  }

  #runChecks(): void {
    for (const check of this.template.checks) {
      const { value } = this.#sheet.evaluate(`check ${check.id}`, check.formula);
      // A check over a value that is itself an error has nothing to add: the error is a finding already.
      if (value.type === 'error' || asCondition(value) === true) continue;
      this.#findings.push({
        id: `check ${check.id}`,
        severity: check.severity,
        title: check.title,
        sentence: this.#sentence(check.sentence),
        values: check.figure ? this.#valuesExplainedBy(check.figure) : [],
        workings: check.figure,
      });
    }
  }

  /** A check's sentence: for the person at the desk, not printed, so its values do not count as used. */
  #sentence(source: string): string {
    return splitPlaceholders(source)
      .map((part) =>
        part.kind === 'text'
          ? part.text
          : formatValue(this.#sheet.evaluate('sentence', part.formula).value, this.#locale),
      )
      .join('');
  }

  #valuesExplainedBy(workings: string): string[] {
    return Object.keys(this.#values).filter((key) => this.#values[key]!.workings === workings);
  }

  #figures(): Composition['figures'] {
    return this.template.sheet.document.map((figure) => {
      const cell = this.#sheet.figure(figure.name);
      return {
        name: figure.name,
        label: figure.label,
        result: formatValue(cell.value, this.#locale),
        failed: cell.value.type === 'error',
        workings: this.#explain(cell),
        internal: figure.internal ?? false,
      };
    });
  }

  #withRole(role: Role): Cell | undefined {
    const figure = this.template.sheet.document.find((each) => each.role === role);
    return figure && this.#sheet.figure(figure.name);
  }

  /** Notes that a cell can be explained; gives the id of its workings. */
  #explain(cell: Cell): string {
    this.#explainable.set(cell.id, cell);
    return cell.id;
  }

  explain(id: string): Workings | undefined {
    const cell = this.#explainable.get(id) ?? this.#allExplainable().get(id);
    return cell && workingsOf(cell, this.#sheet, this.#locale);
  }

  explainAll(): Record<string, Workings> {
    const all = [...this.#allExplainable()];
    return Object.fromEntries(all.map(([id, cell]) => [id, workingsOf(cell, this.#sheet, this.#locale)]));
  }

  /** Every printed value's cell and the figures it leads to, in turn. */
  #allExplainable(): Map<string, Cell> {
    const found = new Map(this.#explainable);
    const waiting = [...found.values()];
    for (let cell = waiting.pop(); cell; cell = waiting.pop()) {
      for (const figure of figuresUnder(cell)) {
        if (found.has(figure.id)) continue;
        found.set(figure.id, figure);
        waiting.push(figure);
      }
    }
    return found;
  }

  #roles(): Composition['roles'] {
    const roles: Record<string, { value: string; currency: string }> = {};
    const withRole = this.template.sheet.document.filter(
      (figure): figure is Figure & { role: string } => !!figure.role,
    );
    for (const figure of withRole) {
      const { value } = this.#sheet.figure(figure.name);
      if (value.type === 'money') roles[figure.role] = { value: value.value.toFixed(), currency: value.currency };
    }
    return roles;
  }
}

/** Page breaks are for the page itself, not for what is kept together or stands in columns. */
function withoutBreaks(blocks: ComposedBlock[]): ComposedBlock[] {
  return blocks.flatMap((block): ComposedBlock[] => {
    if (block.kind === 'pageBreak') return [];
    return [block.kind === 'section' ? { ...block, blocks: withoutBreaks(block.blocks) } : block];
  });
}

interface ValueRequest {
  id: string;
  formula: string;
  block: string;
  row?: Row;
  format?: ValueFormat;
  mayBeBlank?: boolean;
}

function marksOf(marks: { type: string }[] | undefined): Partial<Record<'bold' | 'italic' | 'quiet', true>> {
  return Object.fromEntries((marks ?? []).map(({ type }) => [type, true]));
}

/** Line ends in a value print as line ends. */
function brokenLines(run: Extract<Run, { kind: 'text' }>): Run[] {
  const lines = run.text.split(/\r\n|[\n\r\u2028\u2029]/);
  return lines.flatMap((line, position): Run[] => {
    const printed: Run[] = line === '' ? [] : [{ ...run, text: line }];
    return position === 0 ? printed : [{ kind: 'break' }, ...printed];
  });
}
