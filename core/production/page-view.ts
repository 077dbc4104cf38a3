import { strFromU8 } from 'fflate';
import type { Row } from '../formula/row';
import type { Checker } from '../sheet/check';
import type { Sheet } from '../sheet/sheet';
import { NoteWords } from '../template/noted';
import { composeBlock, withInner, type Block, type ComposedBlock } from '../template/blocks';
import { textOfRuns, type Assets, type Run } from '../template/composed';
import type { HouseStyle } from '../template/house-style';
import type { Pins, Template } from '../template/template';
import { FormulaError } from '../formula/ast';
import { Compositor } from './compositor';

/** A value as the sheet of a template shows it. `text` is empty where it is blank and prints nothing. */
export interface ShownValue {
  text: string;
  fault?: 'error' | 'blank';
}

/** Something wrong with a block for the record that is shown, or with one value of it. */
export interface PageFault {
  block: string;
  /** The value's id. */
  value?: string;
  sentence: string;
}

/** What the sheet of a template shows for one record, as plain data. */
export interface PageView {
  /** Values in running text, by their ids. In a section for each item of a list, those of its first item. */
  values: Record<string, ShownValue>;
  /** Blocks that are computed as a whole, as they print, by their ids. */
  blocks: Record<string, ComposedBlock[]>;
  /** Ids of sections, and of their branches, that the record leaves out. */
  leftOut: string[];
  /** Margin notes by the ids of their blocks: "when the heating is pipe". */
  notes: Record<string, string>;
  faults: PageFault[];
  /** The document's title, as its first plan has it. */
  title: string;
  /** The house style's stationery as it prints, where the template has none of its own. */
  letterhead: { header: ComposedBlock[]; footer: ComposedBlock[] };
  /** SVG source of drawn pictures by their hashes. */
  drawings: Record<string, string>;
}

/** Kinds whose text is written on the sheet itself: of them, only the values are computed. */
const WRITTEN: ReadonlySet<Block['type']> = new Set([
  'paragraph',
  'heading',
  'bulletList',
  'numberedList',
  'gridTable',
]);

interface Shown {
  /** Of the template's formulas. */
  checker: Checker;
  template: Template;
  pins: Pins;
  houseStyle: HouseStyle;
  sheet: Sheet;
  /** BCP 47. */
  locale: string;
}

/** What the sheet of a template shows for the record of a figure sheet: every part of it, whatever the record leaves out. */
export function pageView({ checker, template, pins, houseStyle, sheet, locale }: Shown): PageView {
  const by = new Compositor(sheet, locale, known(template, sheet));
  const { logo, table } = houseStyle;
  const around = {
    logo: { picture: by.drawn(logo.svg), alt: logo.alt },
    table,
    files: template.files ?? {},
  };
  const view = new SheetView(by, pins);
  by.around = { ...around, title: view.readable('plan', () => by.placed('title', template.plans[0]!.title, 'plan')) };
  const { header, followingHeader = [], footer, body } = template.layout;
  const words = new NoteWords(checker);
  const notes: PageView['notes'] = {};
  for (const part of [header ?? [], followingHeader, body, footer ?? []]) {
    view.show(part);
    words.notesOf(part, notes);
  }
  const { letterhead } = houseStyle;
  return {
    ...view.shown(),
    notes,
    title: textOfRuns(by.around.title),
    letterhead: {
      header: header ? [] : by.blocks(letterhead.header),
      footer: footer ? [] : by.blocks(letterhead.footer),
    },
    drawings: drawingsOf(by.assets),
  };
}

/** Looks at all blocks of a sheet, with an item in scope inside of what is repeated. */
class SheetView {
  readonly #values: Record<string, ShownValue> = {};
  readonly #blocks: Record<string, ComposedBlock[]> = {};
  readonly #leftOut: string[] = [];
  readonly #faults: PageFault[] = [];
  /** Ids of blocks whose text is written on the sheet. */
  readonly #written = new Set<string>();

  constructor(
    readonly by: Compositor,
    readonly pins: Pins,
  ) {}

  show(blocks: readonly Block[], row?: Row): void {
    for (const block of blocks) this.#show(block, row);
  }

  shown(): Pick<PageView, 'values' | 'blocks' | 'leftOut' | 'faults'> {
    for (const [key, { block }] of Object.entries(this.by.values)) {
      // What was asked for and printed nothing is blank.
      if (this.#written.has(block)) this.#values[idOf(key)] ??= { text: '' };
    }
    const faults = this.by.findings.flatMap(({ block, values, sentence }): PageFault[] => {
      if (values.length > 0) return values.map((key) => ({ block: this.#blockOf(key), value: idOf(key), sentence }));
      return block === undefined ? [] : [{ block, sentence }];
    });
    return {
      values: this.#values,
      blocks: this.#blocks,
      leftOut: this.#leftOut,
      faults: [...this.#faults, ...faults],
    };
  }

  /** What a text with placeholders is composed to; nothing, with a fault, while one of them is not closed. */
  readable<Composed>(block: string, compose: () => Composed[]): Composed[] {
    try {
      return compose();
    } catch (problem) {
      if (!(problem instanceof FormulaError)) throw problem;
      this.#faults.push({ block, sentence: problem.message });
      return [];
    }
  }

  readonly #blockOf = (key: string) => this.by.values[key]!.block;

  #show(block: Block, row: Row | undefined): void {
    const { id } = block.attrs;
    if (block.type === 'whenSection') this.#choose(block, row);
    if (block.type === 'clause') {
      const clause = this.pins.clauses.find((each) => each.id === block.attrs.clause);
      this.#blocks[id] = this.by.blocks(clause?.content, row);
      return;
    }
    let holds = false;
    withInner(block, (inner, list) => {
      holds = true;
      const item = list === undefined ? row : this.by.rows(id, list, id, row)[0];
      // Without an item, what is inside has no values.
      if (list === undefined || item) this.show(inner, item);
      else this.#leftOut.push(id);
      return [...inner];
    });
    if (holds) return;
    const composed = this.readable(id, () => composeBlock(block, this.by, row));
    if (!WRITTEN.has(block.type)) this.#blocks[id] = composed;
    else this.#take(id, composed);
  }

  /** Notes which branch of a section the record leaves out. */
  #choose({ attrs: { id, when }, content }: Extract<Block, { type: 'whenSection' }>, row: Row | undefined): void {
    const holds = this.by.chooses(id, when, id, row);
    const out = holds ? 'otherwise' : 'then';
    this.#leftOut.push(...content.filter(({ type }) => type === out).map((branch) => branch.attrs.id));
  }

  /** Takes the values out of running text that was composed. */
  #take(block: string, composed: readonly ComposedBlock[]): void {
    this.#written.add(block);
    for (const run of runsIn(composed)) {
      const id = idOf(run.value!);
      const before = this.#values[id]?.text ?? '';
      this.#values[id] = {
        text: before === '' ? run.text : `${before}\n${run.text}`,
        ...(run.fault && { fault: run.fault }),
      };
    }
  }
}

/** A value's key is its id, and after it the item that it is of. */
const idOf = (key: string): string => key.split(' ', 1)[0]!;

/** The runs that print a value, wherever they stand. */
function* runsIn(composed: unknown): Generator<Extract<Run, { kind: 'text' }>> {
  if (typeof composed !== 'object' || composed === null) return;
  const { kind, value } = composed as Partial<Extract<Run, { kind: 'text' }>>;
  if (kind === 'text' && value !== undefined) yield composed as Extract<Run, { kind: 'text' }>;
  else for (const inner of Object.values(composed)) yield* runsIn(inner);
}

const NOTHING = new Uint8Array();

/** The files and pictures that may be shown: their bytes stay where they are. */
function known({ files = {} }: Template, { input }: Sheet): Assets {
  const found: Record<string, Assets[string]> = {};
  for (const { sha256, mediaType } of Object.values(files)) found[sha256] = { mediaType, bytes: NOTHING };
  JSON.stringify(input.snapshot, (key, value: unknown) => {
    if (key === 'sha256' && typeof value === 'string') found[value] = { mediaType: 'image/png', bytes: NOTHING };
    return value;
  });
  return found;
}

function drawingsOf(assets: Assets): Record<string, string> {
  const drawn = Object.entries(assets).filter(([, { bytes }]) => bytes.length > 0);
  return Object.fromEntries(drawn.map(([hash, { bytes }]) => [hash, strFromU8(bytes)]));
}
