import { outcomePath } from '../record/value-path';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { FormulaError, type Expression } from '../formula/ast';
import { collectReads, figuresUnder, type Cell } from '../sheet/cell';
import { asCondition } from '../formula/functions';
import { parseFormula } from '../formula/parse';
import { printFormula } from '../formula/print';
import { type Row, itemsOf } from '../formula/row';
import type { Sheet } from '../sheet/sheet';
import { error, formatValue, NO_CURRENCY, rowsIn, type Value } from '../formula/value';
import { workingsOf, type Workings } from '../sheet/workings';
import { calledByType } from '../record/schema';
import type { PrintedSum } from '../sheet/printed-sum';
import { composeBlock, withInner, type Block, type ComposedBlock } from '../template/blocks';
import { idsIn } from '../template/node';
import { GONE } from './page-contents';
import { sectionOf } from '../template/blocks/section';
import { brokenLines, textOfRuns, type Asset, type Assets, type PlacedPicture, type Run } from '../template/composed';
import type { ColumnTotal, Composer, PictureBox, PrintedRuns, ValueRequest } from '../template/composer';
import { composeInline, type Inline } from '../template/inlines';
import { INTERFACE_LOCALE } from '../words/interface';
import { splitPlaceholders } from '../template/placeholders';
import type { PrintedValue } from './composition';
import { changeNote } from './change-note';
import type { MadeChange } from './document-change';
import { emptyTable } from './findings/empty-table';
import { failedValue } from './findings/failed-value';
import type { Finding } from './findings/finding';
import { missingPicture } from './findings/missing-picture';
import { missingValue } from './findings/missing-value';
import { printedInternal } from './findings/printed-internal';
import { tooMuch } from './findings/too-much';
import { unprovedSum } from './findings/unproved-sum';
import { placesOf } from './with-changes';

/** The most rows of lists in one document, and the most characters of one formatted text: far beyond what anybody reads. */
const MOST_ROWS = 20_000;
const MOST_TEXT = 100_000;

/** Room to write on by pen, of spaces that do not break: four centimetres at ten points. */
const RULED = '\u00a0'.repeat(60);

/** What was changed for one document. */
interface MadeChanges {
  changes: readonly MadeChange[];
  /** What was left out beside blocks that stay, by their ids. */
  gone: ReadonlyMap<string, readonly MadeChange[]>;
}

/**
 * The state of one composition: evaluates what is to be printed, and notes what was printed where, what was read for
 * it and what is wrong with it. The composing of blocks stands in functions of their own that ask it.
 */
export class Compositor implements Composer {
  /** Set once the title is composed, before any block. */
  around!: Composer['around'];
  readonly findings: Finding[] = [];
  readonly values: Record<string, PrintedValue> = {};
  readonly used = new Map<string, string>();
  readonly leftOut: { block: string; note: string }[] = [];
  readonly assets: Record<string, Asset> = {};
  /** Id of the finding that the document has no currency. */
  noCurrency?: string;
  /** How many columns were found to add up to their totals. */
  provedSums = 0;
  /** Figures that the sheet declares as the sum of a column, by `columnKey`. */
  readonly declaredTotals: ReadonlyMap<string, string>;
  /** How many rows of lists were printed so far. */
  #rows = 0;
  /** Ids of the blocks that printed something. */
  readonly printedBlocks = new Set<string>();
  /** Ids of the conditions that held, of those that are asked for each item at least once. */
  readonly held = new Set<string>();
  /** Keys of the values that are printed otherwise, by the change that makes them so. */
  readonly changed = new Map<string, Set<string>>();
  /** Changes by the path of the value that each gives, and by the block that it is seen on. */
  readonly #given = new Map<string, string>();
  readonly #changedBlocks = new Map<string, MadeChange>();
  readonly #gone: MadeChanges['gone'];
  /** The cells of what was printed, by the keys of `values`. */
  readonly #read = new Map<string, Cell>();
  /** Cells that someone may want explained, by their ids. */
  readonly #explainable = new Map<string, Cell>();

  /** What the record is called by its type: "deal". */
  readonly #record: string;

  constructor(
    readonly sheet: Sheet,
    readonly locale: string,
    /** Bytes of the files and pictures that may be printed. */
    readonly available: Assets,
    /** What was changed for this document alone, and what is left out beside which blocks. */
    { changes, gone }: MadeChanges = { changes: [], gone: new Map() },
  ) {
    this.#gone = gone;
    for (const made of changes) {
      if (made.change.type === 'value') this.#given.set(made.change.path, made.id);
      for (const place of placesOf(made)) this.#changedBlocks.set(place, made);
    }
    const { schema, snapshot } = sheet.input;
    this.#record = calledByType(schema, snapshot.type);
    this.declaredTotals = new Map(
      sheet.input.sheet.sums.flatMap(({ column, figure }) => {
        const key = keyOfColumn(column);
        return key === undefined ? [] : [[key, figure]];
      }),
    );
  }

  /** Notes all that a cell read as used. What was noted once, whichever value asked for it, is not walked again. */
  uses(cell: Cell): void {
    collectReads(cell, this.used, this.#collected);
  }
  readonly #collected = new Set<Cell>();

  /** The outcome of a condition; what counts as used is the outcome, not the fields it looked at. */
  chooses(id: string, formula: string, block: string, row?: Row): boolean {
    const key = keyOf(id, row);
    const cell = this.sheet.evaluate(outcomePath('when', key), formula, row);
    const holds = asCondition(cell.value);
    if (typeof holds !== 'boolean') {
      this.fault(holds, block);
      return false;
    }
    this.used.set(outcomePath('when', key), String(holds));
    if (holds) this.held.add(id);
    return holds;
  }

  /** A value that decides something and is not printed itself. Its outcome counts as used. */
  decides(id: string, formula: string, block: string, row?: Row): Value {
    const key = keyOf(id, row);
    const { value } = this.sheet.evaluate(outcomePath('choice', key), formula, row);
    this.fault(value, block);
    this.used.set(outcomePath('choice', key), formatValue(value, 'en'));
    return value;
  }

  /** The rows that a block prints for; what is no list, or more than a document may have, is a finding. */
  rows(id: string, list: string, label: string, row?: Row): Row[] {
    if (this.#rows > MOST_ROWS) return [];
    const cell = this.sheet.evaluate(keyOf(id, row), list, row);
    this.uses(cell);
    if (cell.value.type === 'list') return this.#counted(rowsIn(cell.value), id, label);
    this.fault(cell.value.type === 'error' ? cell.value : error(`“${label}” is not over a list.`), id);
    return [];
  }

  #counted(rows: Row[], id: string, label: string): Row[] {
    this.#rows += rows.length;
    if (this.#rows <= MOST_ROWS) return rows;
    this.findings.push(
      tooMuch(
        id,
        `With “${label}” this document would print more than ${MOST_ROWS.toLocaleString('en')} items. Repetitions inside of repetitions multiply: repeat over fewer items, or filter the list.`,
      ),
    );
    return [];
  }

  /** A formatted text that is printed, or a finding where it is longer than any page of terms. */
  readable(html: string, block: string, key: string): string {
    if (html.length <= MOST_TEXT) return html;
    this.findings.push(
      tooMuch(
        block,
        `This text has ${html.length.toLocaleString('en')} characters with its formats; ${MOST_TEXT.toLocaleString('en')} can be printed. Shorten it in the CRM, or join it as a PDF.`,
        key,
      ),
    );
    return '';
  }

  /** Evaluates one value that is printed here, noting what it read and where it stands. */
  read({ id, formula, block, row }: ValueRequest): { key: string; value: Value } {
    const key = keyOf(id, row);
    const cell = this.sheet.evaluate(key, formula, row);
    this.uses(cell);
    this.#noteGiven(cell, key);
    this.#read.set(key, cell);
    this.values[key] = { block, workings: this.explained(this.#behind(cell)) };
    this.#refuseInternal(cell, block, key);
    return { key, value: cell.value };
  }

  /** Evaluates and prints one value in the words of the edition. */
  print(request: ValueRequest): Run[] {
    return this.printed(request).runs;
  }

  /** The same, with the value that was printed and the id of its workings. */
  printed(request: ValueRequest): PrintedRuns {
    const { key, value } = this.read(request);
    return { runs: this.#runsOf(value, request, key), value, workings: this.values[key]!.workings };
  }

  #runsOf(value: Value, request: ValueRequest, key: string): Run[] {
    if (value.type === 'error') {
      this.fault(value, request.block, key);
      return [{ kind: 'text', text: 'error', value: key, fault: 'error' }];
    }
    if (value.type === 'blank') return this.#blank(value, request, key);
    return brokenLines({ kind: 'text', text: formatValue(value, this.locale, request.format), value: key });
  }

  /** What a column is held to, by the formula that it declares or by the sheet's declaration for this list and column. */
  totalOf(
    { id, list, formula, total }: Parameters<Composer['totalOf']>[0],
    row?: Row,
  ): ReturnType<Composer['totalOf']> {
    const declared = total ?? this.declaredTotals.get(columnKey(list, formula) ?? '');
    if (declared === undefined) return undefined;
    const cell = this.sheet.evaluate(`${id} total`, declared, row);
    const label = this.sheet.world.figures.get(declared)?.label ?? declared;
    return { label, value: cell.value, workings: this.explained(cell) };
  }

  /**
   * Holds a column to the total that is printed for it (EN 16931 BR-CO-10: what is printed adds up); what does not add up
   * stops filing. An error is a finding already.
   */
  prove(sum: PrintedSum, total: ColumnTotal): void {
    if (total.value.type === 'error') return;
    const contradiction = sum.contradicts(total.value, total.column, total.label, INTERFACE_LOCALE);
    if (contradiction === undefined) {
      this.provedSums++;
      return;
    }
    this.findings.push(unprovedSum(total, contradiction));
  }

  blocks(blocks: readonly Block[] = [], row?: Row): ComposedBlock[] {
    const all: ComposedBlock[] = [];
    /** What was left out before the next block that prints something. */
    let gone: readonly MadeChange[] = [];
    for (const block of blocks) {
      const composed = composeBlock(block, this, row);
      if (composed.length > 0) this.printedBlocks.add(block.attrs.id);
      const made = this.#changedBlocks.size === 0 ? undefined : this.#changeOf(block);
      const marked = made ? this.#marked(made, block, composed) : composed;
      const isSwitchedOff = made?.change.type === 'section' && composed.length === 0;
      gone = [...gone, ...(this.#gone.get(block.attrs.id) ?? []), ...(isSwitchedOff ? [made] : [])];
      if (marked.length === 0 || gone.length === 0) {
        all.push(...marked);
        continue;
      }
      all.push(...sectionOf(`${block.attrs.id}${GONE}`, gone.map(changeNote).join('; '), marked));
      gone = [];
    }
    return all;
  }

  /** What was changed for this document has a note in the margin that says by whom. */
  #marked(made: MadeChange, block: Block, composed: ComposedBlock[]): ComposedBlock[] {
    const note = changeNote(made);
    const [section] = composed;
    // A section that was switched on says so in place of its condition.
    if (block.type === 'whenSection' && section?.kind === 'section') return [{ ...section, note }];
    return sectionOf(`${block.attrs.id}.change`, note, composed);
  }

  /** What was changed of a block: of itself, or of the items that its text is in. */
  #changeOf(block: Block): MadeChange | undefined {
    const own = this.#changedBlocks.get(block.attrs.id);
    if (own || withInner(block, () => []) !== block) return own;
    for (const { id } of idsIn(block)) if (this.#changedBlocks.has(id)) return this.#changedBlocks.get(id);
    return undefined;
  }

  /** Notes that a value is printed from one that was given for this document. */
  #noteGiven(cell: Cell, key: string): void {
    if (this.#given.size === 0) return;
    const reads = new Map<string, string>();
    collectReads(cell, reads, new Set());
    for (const [path, change] of this.#given)
      if (reads.has(path)) this.changed.set(change, (this.changed.get(change) ?? new Set()).add(key));
  }

  /** Keys of the values that print one of these paths themselves, not through a figure. */
  readersOf(paths: ReadonlySet<string>): string[] {
    return [...this.#read].flatMap(([key, { reads }]) =>
      [...itemsOf(reads)].some(({ path }) => paths.has(path)) ? [key] : [],
    );
  }

  inlines(inlines: readonly Inline[] = [], block: string, row?: Row): Run[] {
    return inlines.flatMap((inline) => composeInline(inline, this, block, row));
  }

  leaveOut(block: string, note: string): void {
    this.leftOut.push({ block, note });
  }

  tellEmpty(block: string, label: string): void {
    this.findings.push(emptyTable(block, label, this.#record));
  }

  #blank(value: Extract<Value, { type: 'blank' }>, request: ValueRequest, key: string): Run[] {
    const { mayBeBlank, blankAs, block } = request;
    if (mayBeBlank) return blankAs === 'ruledSpace' ? [{ kind: 'text', text: RULED, underline: true, value: key }] : [];
    this.findings.push(missingValue(value, this.#record, { block, key, workings: this.values[key]!.workings }));
    return [{ kind: 'text', text: '\u00a0\u00a0\u00a0\u00a0', value: key, fault: 'blank' }];
  }

  /** Text with placeholders as runs, so that each value of it leads back to where it came from. */
  placed(id: string, source: string, block: string, row?: Row): Run[] {
    return splitPlaceholders(source).flatMap((part, position): Run[] =>
      part.kind === 'text'
        ? brokenLines({ kind: 'text', text: part.text })
        : this.print({ id: `${id} ${position}`, formula: part.formula, block, row }),
    );
  }

  /** Text with placeholders as plain text. A fault in one is a finding. */
  placedText(id: string, source: string, block: string): string {
    return textOfRuns(this.placed(id, source, block));
  }

  /** The text of a formula that is printed in another form than words; undefined, with a finding, where it has none. */
  printedText(request: ValueRequest): string | undefined {
    const runs = this.print(request);
    if (runs.some((run) => run.kind === 'text' && run.fault)) return undefined;
    return runs.map((run) => (run.kind === 'text' ? run.text : '\n')).join('');
  }

  /** The picture that a formula gives. Without one nothing is printed; that it is missing is a finding. */
  picture(request: ValueRequest, box: PictureBox): PlacedPicture | undefined {
    const { key, value } = this.read(request);
    const { sha256: hash, mediaType } = value.type === 'image' ? value.picture : {};
    if (value.type === 'image' && hash && !mediaType && this.available[hash])
      return { ...this.fitted(hash, value.picture, box), value: key };
    if (value.type === 'blank' && request.mayBeBlank) return undefined;
    if (value.type === 'error') this.fault(value, request.block, key);
    else this.findings.push(missingPicture(value, { block: request.block, key }));
    return undefined;
  }

  /** A picture by its hash, as large as its box allows; `size` in pixels, where it is known. */
  fitted(hash: string, size: { width?: number; height?: number }, box: PictureBox): PlacedPicture {
    const asset = this.available[hash];
    if (asset) this.assets[hash] = asset;
    const { width: across, height: down } = size;
    const limit = box.height !== undefined && across && down ? (box.height * across) / down : Infinity;
    return { picture: hash, width: Math.min(box.width, limit), alt: box.alt };
  }

  /** Keeps a drawn picture among the document's assets; gives its hash. */
  drawn(svg: string): string {
    const bytes = utf8ToBytes(svg);
    const hash = bytesToHex(sha256(bytes));
    this.assets[hash] = { mediaType: 'image/svg+xml', bytes };
    return hash;
  }

  /** Notes an error as a finding; other values are none. */
  fault(value: Value, block: string, key?: string, of?: Finding['of']): void {
    if (value.type !== 'error') return;
    const workings = key === undefined ? undefined : this.values[key]?.workings;
    const finding = failedValue(value, { block, key, workings, of });
    // That there is no currency is one finding, however many sums want one.
    const isToldAlready = value.message.endsWith(NO_CURRENCY) && this.noCurrency !== undefined;
    this.findings.push(isToldAlready ? { ...finding, id: this.noCurrency! } : finding);
  }

  /** Internal figures (cost, margin) never reach the page, not even through another formula of the page. */
  #refuseInternal(cell: Cell, block: string, key: string): void {
    const internal = figuresUnder(cell).find(({ figure }) => figure?.internal);
    if (!internal) return;
    this.findings.push(printedInternal(internal.figure!, { block, key }));
  }

  /** For a value that is one figure's as it is, chosen or alone, that figure: its workings are what a person wants to see. */
  #behind(cell: Cell): Cell {
    const [alike, other] = [...itemsOf(cell.through)].filter(({ figure, value }) => figure && value === cell.value);
    return alike && !other ? alike : cell;
  }

  /** Notes that a cell can be explained; gives the id of its workings. */
  explained(cell: Cell): string {
    this.#explainable.set(cell.id, cell);
    return cell.id;
  }

  explain(id: string): Workings | undefined {
    const cell = this.#explainable.get(id) ?? this.#allExplainable().get(id);
    return cell && this.#workingsOf(cell);
  }

  #workingsOf(cell: Cell): Workings {
    const { id } = cell;
    const called = this.#called.get(id) ?? this.#called.get(id.slice(0, id.indexOf(' ')));
    return workingsOf(cell, this.sheet, INTERFACE_LOCALE, called);
  }

  /** What people call values, by their ids: what stands over their column or before them. */
  readonly #called = new Map<string, string>();
  calls(id: string, name: string, row?: Row): void {
    if (name.trim() !== '') this.#called.set(keyOf(id, row), name.trim());
  }

  explainAll(): Record<string, Workings> {
    const all = [...this.#allExplainable()];
    return Object.fromEntries(all.map(([id, cell]) => [id, this.#workingsOf(cell)]));
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
}

/** A value's id, told apart by the item it is printed for. */
const keyOf = (id: string, row: Row | undefined): string => (row ? `${id} ${row.path}` : id);

/** A column of a list, however its formulas are spaced; undefined for one that is more than a name. */
function columnKey(list: string, column: string): string | undefined {
  const parsed = parsedOrNone(column);
  return parsed?.kind === 'name' ? keyOfColumn(`(${list}).${column.trim()}`) : undefined;
}

function keyOfColumn(formula: string): string | undefined {
  const parsed = parsedOrNone(formula);
  return parsed && printFormula(parsed);
}

function parsedOrNone(formula: string): Expression | undefined {
  try {
    return parseFormula(formula);
  } catch (problem) {
    if (problem instanceof FormulaError) return undefined;
    throw problem;
  }
}
