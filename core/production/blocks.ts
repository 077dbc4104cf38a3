import { collectReads } from '../sheet/cell';
import type { Row } from '../formula/row';
import { error } from '../formula/value';
import { own } from '../record/own';
import { richBlocks, type RichRun } from '../rich/rich-text';
import type { Block, Inline, Mark, Symbology, TableStyle, TotalsRow } from '../template/layout';
import type { TemplateFile } from '../template/template';
import { drawCode } from './code';
import { brokenLines, type Compositor } from './compositor';
import type { ComposedBlock, Run } from './document';
import { paymentText } from './payment-code';
import { composeTable } from './table';

/** What blocks print that is the document's, not theirs. */
export interface Surroundings {
  title: readonly Run[];
  logo: { picture: string; alt: string };
  table: TableStyle;
  files: Readonly<Record<string, TemplateFile>>;
}

type Of<Type extends Block['type']> = Extract<Block, { type: Type }>;

/** Composes the blocks of a part of the page, each with the item of a for-each section in scope where it stands in one. */
export class BlockComposer {
  constructor(
    readonly by: Compositor,
    readonly around: Surroundings,
  ) {}

  blocks(blocks: readonly Block[], row?: Row): ComposedBlock[] {
    return blocks.flatMap((block) => this.#block(block, row));
  }

  #block(block: Block, row?: Row): ComposedBlock[] {
    const { by } = this;
    const source = block.attrs.id;
    const inlines = (all: readonly Inline[]) => this.#inlines(all, source, row);
    switch (block.type) {
      case 'paragraph': {
        const runs = inlines(block.content);
        if (runs.length === 0) return [];
        return [{ kind: 'paragraph', source, look: block.attrs.look, align: block.attrs.align ?? 'start', runs }];
      }
      case 'heading':
        return [{ kind: 'heading', source, level: block.attrs.level, runs: inlines(block.content) }];
      case 'bulletList':
      case 'numberedList': {
        // An item whose values are all blank is no item.
        const items = block.content.map(inlines).filter((runs) => runs.length > 0);
        const start = block.type === 'numberedList' ? (block.attrs.start ?? 1) : undefined;
        return items.length === 0 ? [] : [{ kind: 'list', source, items, start }];
      }
      case 'gridTable': {
        const { widths, header = false } = block.attrs;
        return [{ kind: 'grid', source, widths, header, rows: block.rows.map((cells) => cells.map(inlines)) }];
      }
      case 'lineTable':
        return composeTable(by, block.attrs, this.around.table, row);
      case 'totals':
        return this.#totals(block, row);
      case 'whenSection':
        return this.#whenSection(block, row);
      case 'forEach':
        return this.#forEach(block, row);
      case 'clause':
        // The assembled template has the clause's blocks in its place.
        return [];
      case 'richText':
        return this.#richText(block, row);
      case 'pageBreak':
        return [{ kind: 'pageBreak', source }];
      case 'signature': {
        const { label, date } = block.attrs;
        const placed = (part: string, words: string) => by.placed(`${source} ${part}`, words, source, row);
        return [{ kind: 'signature', source, label: placed('label', label), date: placed('date', date) }];
      }
      case 'picture':
        return this.#picture(block, row);
      case 'code':
        return this.#code(block, row);
      case 'paymentCode':
        return this.#paymentCode(block, row);
      case 'keepTogether': {
        const blocks = withoutBreaks(this.blocks(block.content, row));
        return blocks.length === 0 ? [] : [{ kind: 'keep', source, blocks }];
      }
      case 'columns': {
        const columns = block.columns.map((column) => withoutBreaks(this.blocks(column, row)));
        return [{ kind: 'columns', source, widths: block.attrs.widths, columns }];
      }
      case 'logo':
        return [{ kind: 'picture', source, ...this.around.logo, width: block.attrs.width, align: block.attrs.align ?? 'start' }]; // prettier-ignore
      case 'divider':
        return [{ kind: 'divider', source }];
      case 'space':
        return [{ kind: 'space', source, height: block.attrs.height }];
    }
  }

  #whenSection({ attrs, content, otherwise }: Of<'whenSection'>, row?: Row): ComposedBlock[] {
    const { id, when, note } = attrs;
    if (this.by.chooses(id, when, id, row)) return sectionOf(id, `when ${note}`, this.blocks(content, row));
    if (otherwise) return sectionOf(id, `unless ${note}`, this.blocks(otherwise, row));
    this.by.leftOut.push({ block: id, note });
    return [];
  }

  /** Blocks for each item of a list; nothing at all for an empty one. */
  #forEach({ attrs, content }: Of<'forEach'>, row?: Row): ComposedBlock[] {
    const { id, list, note, startsPage } = attrs;
    const blocks = this.by
      .rows(id, list, note, row)
      .flatMap((item): ComposedBlock[] => [
        ...(startsPage ? [{ kind: 'pageBreak' as const, source: id }] : []),
        ...this.blocks(content, item),
      ]);
    return sectionOf(id, `for each ${note}`, blocks);
  }

  /** A formatted text; plain text prints as paragraphs. */
  #richText({ attrs }: Of<'richText'>, row?: Row): ComposedBlock[] {
    const { id, formula, mayBeBlank } = attrs;
    const { key, value } = this.by.read({ id, formula, block: id, row });
    const paragraph = (runs: Run[]): ComposedBlock => ({ kind: 'paragraph', source: id, align: 'start', runs });
    if (value.type !== 'rich') {
      const runs = this.by.print({ id, formula, block: id, row, mayBeBlank });
      return runs.length === 0 ? [] : [paragraph(runs)];
    }
    const set = (runs: readonly RichRun[]) => runs.map((run): Run => (run.kind === 'text' ? { ...run, value: key } : run)); // prettier-ignore
    return richBlocks(value.html).map((block): ComposedBlock => {
      if (block.kind === 'list') return { kind: 'list', source: id, items: block.items.map(set), ...(block.ordered && { start: 1 }) }; // prettier-ignore
      return block.kind === 'heading' ? { kind: 'heading', source: id, level: 3, runs: set(block.runs) } : paragraph(set(block.runs)); // prettier-ignore
    });
  }

  #picture({ attrs }: Of<'picture'>, row?: Row): ComposedBlock[] {
    const { id, file, formula, width, height, alt, align = 'start' } = attrs;
    const box = { width, height, alt };
    if (formula !== undefined) {
      const placed = this.by.picture({ id, formula, block: id, row }, box);
      return placed ? [{ kind: 'picture', source: id, align, ...placed }] : [];
    }
    const known = file === undefined ? undefined : own(this.around.files, file);
    if (known) return [{ kind: 'picture', source: id, align, ...this.by.fitted(known.sha256, known, box) }];
    this.by.fault(error(`The template has no file “${file ?? ''}” to print as a picture.`), id);
    return [];
  }

  /** A formula's text as a code that machines read. */
  #code({ attrs }: Of<'code'>, row?: Row): ComposedBlock[] {
    const { id, symbology, formula, width, alt } = attrs;
    const value = this.by.textOf({ id, formula, block: id, row });
    return value === undefined ? [] : this.#drawnCode(id, symbology, value, width, alt);
  }

  #paymentCode({ attrs }: Of<'paymentCode'>, row?: Row): ComposedBlock[] {
    const { by } = this;
    const { id, width, amount, ...formulas } = attrs;
    const part = (at: number, formula: string) => by.textOf({ id: `${id} ${at}`, formula, block: id, row });
    const [payee, iban, reference] = [part(0, formulas.payee), part(1, formulas.iban), part(2, formulas.reference)];
    const cell = by.sheet.evaluate(`${id} amount`, amount, row);
    collectReads(cell, by.used);
    if (cell.value.type !== 'money') {
      by.fault(cell.value.type === 'error' ? cell.value : error('The amount of the payment code is no money.'), id);
      return [];
    }
    if (payee === undefined || iban === undefined || reference === undefined) return [];
    const payment = paymentText({ payee, iban, reference, amount: cell.value });
    if ('text' in payment) return this.#drawnCode(id, 'qrcode', payment.text, width, 'Payment code');
    by.fault(error(payment.problem), id);
    return [];
  }

  #drawnCode(source: string, symbology: Symbology, text: string, width: number, alt: string): ComposedBlock[] {
    const svg = drawCode(symbology, text);
    if (svg !== undefined) return [{ kind: 'picture', source, picture: this.by.drawn(svg), width, alt, align: 'start' }]; // prettier-ignore
    this.by.fault(error(`“${text}” cannot be printed as this kind of code; choose another kind, or another text.`), source); // prettier-ignore
    return [];
  }

  #totals({ attrs }: Of<'totals'>, outer?: Row): ComposedBlock[] {
    const { by } = this;
    const { id } = attrs;
    const rows = attrs.rows.flatMap((row) => {
      if (row.when && !by.chooses(`${id} ${row.id}`, row.when, id, outer)) return [];
      return this.#totalsItems(row, id, outer).map((item) => ({
        label: by.placed(`${id} ${row.id} label`, row.label, id, item),
        value: by.print({ id: `${id}.${row.id}`, formula: row.formula, format: 'plain', block: id, row: item }),
        emphasis: row.emphasis === 'total',
      }));
    });
    return rows.length === 0 ? [] : [{ kind: 'totals', source: id, rows }];
  }

  #totalsItems(row: TotalsRow, block: string, outer?: Row): (Row | undefined)[] {
    return row.each ? this.by.rows(`${block} ${row.id} each`, row.each, row.label, outer) : [outer];
  }

  #inlines(inlines: readonly Inline[], block: string, row?: Row): Run[] {
    return inlines.flatMap((inline): Run[] => {
      switch (inline.type) {
        case 'text':
          return brokenLines({ kind: 'text', text: inline.text, ...looksOf(inline.marks) });
        case 'value': {
          const { id, formula, format, mayBeBlank } = inline.attrs;
          const runs = this.by.print({ id, formula, format, mayBeBlank, block, row });
          return runs.map((run) => (run.kind === 'text' ? { ...run, ...looksOf(inline.marks) } : run));
        }
        case 'hardBreak':
          return [{ kind: 'break' }];
        case 'documentTitle':
          return [...this.around.title];
        default:
          return [{ kind: inline.type }];
      }
    });
  }
}

/** A section with its margin note; without blocks it leaves no trace. */
function sectionOf(source: string, note: string, blocks: ComposedBlock[]): ComposedBlock[] {
  return blocks.length === 0 ? [] : [{ kind: 'section', source, note, blocks }];
}

/** Page breaks are for the page itself, not for what is kept together or stands in columns. */
function withoutBreaks(blocks: ComposedBlock[]): ComposedBlock[] {
  return blocks.flatMap((block): ComposedBlock[] => {
    if (block.kind === 'pageBreak') return [];
    return [block.kind === 'section' ? { ...block, blocks: withoutBreaks(block.blocks) } : block];
  });
}

function looksOf(marks: readonly Mark[] = []): Partial<Extract<Run, { kind: 'text' }>> {
  return Object.assign(
    {},
    ...marks.map((mark) => {
      if (mark.type === 'colour') return { colour: mark.attrs.colour };
      return mark.type === 'link' ? { link: mark.attrs.href } : { [mark.type]: true };
    }),
  ) as Partial<Extract<Run, { kind: 'text' }>>;
}
