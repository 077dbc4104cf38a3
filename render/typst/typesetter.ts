import type { PdfStandard } from '../../core/template/template-file';
import type { ComposedBlock } from '../../core/template/blocks';
import { NodeCompiler, type CompileDocArgs, type NodeTypstDocument } from '@myriaddreamin/typst-ts-node-compiler';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { LRUCache } from 'lru-cache';
import type { ComposedTable } from '../../core/template/blocks/line-table';
import type { PageSize } from '../../core/template/layout';
import type { Asset, Assets, ComposedDocument, Run } from '../../core/template/composed';
import { isRuns, setRuns, type RunSetting } from './set-runs';
import { setTable, type FontWidths, type TableSetting } from './set-table';
import { keptEnd } from './kept-end';

/** The pages of a proof, with links that tell what is on them (core/production/page-contents.ts). */
export interface ProofPages {
  /** The glyphs that all pages share, as SVG definitions. */
  glyphs: string;
  /** One SVG element each. */
  pages: string[];
  /** In points. */
  pageSize: { width: number; height: number };
}

/** A document that could not be set. The message is the typesetter's own. */
export class TypesettingError extends Error {
  override name = 'TypesettingError';
}

const PROGRAM = '/document.typ';

/** How wide letters and figures are, by font. */
type FontFile = Readonly<Record<'letters' | 'figures', Readonly<Record<string, FontWidths>>>>;

/** Width and height of a page in millimetres (ISO 216; ANSI Y14.1 A for letter), and a point in them. */
const PAGES: Readonly<Record<PageSize, readonly [number, number]>> = {
  a4: [210, 297],
  a5: [148, 210],
  letter: [216, 279],
};
const POINT = 25.4 / 72;

/** How many compilations an unused part of the cache survives while one document is being proofed. */
const PROOF_AGE = 3;

/**
 * Sets composed documents as PDF and as SVG pages. One for each process of the press: it keeps its fonts and its cache. Only
 * the shipped fonts are used, so a page looks the same on every machine.
 */
export class Typesetter {
  readonly #compiler: NodeCompiler;

  /** `folder` holds `document.typ`, `fonts/` and how wide their letters are, in `widths.json`. */
  constructor(folder: string) {
    this.#compiler = NodeCompiler.create({
      workspace: folder,
      fontArgs: [{ fontPaths: [join(folder, 'fonts')] }],
    });
    this.#compiler.addSource(join(folder, PROGRAM), readFileSync(join(folder, PROGRAM), 'utf8'));
    this.#widths = JSON.parse(readFileSync(join(folder, 'widths.json'), 'utf8')) as FontFile;
    this.#folder = folder;
  }
  readonly #folder: string;

  /**
   * The document as a tagged PDF, by a standard for archives or for accessibility if one is asked for. Nothing stays in the cache, so memory does not grow with the number of documents.
   * @throws TypesettingError
   */
  pdf(document: ComposedDocument, assets: Assets, standard?: PdfStandard): Uint8Array {
    this.#place(document, assets);
    const options = {
      creationTimestamp: Date.parse(document.date) / 1000,
      pdfStandard: standard?.slice('pdf/'.length),
    };
    try {
      return this.#compiler.pdf(this.#compiled(this.#arguments('print')), options);
    } catch (problem) {
      throw problem instanceof TypesettingError ? problem : new TypesettingError(String(problem));
    } finally {
      this.#compiler.evictCache(0);
    }
  }

  /**
   * The pages of a proof. The cache is kept between calls, so that a page is set again in a few milliseconds after a small edit; what
   * stands between two page breaks and did not change is not set again at all.
   * @throws TypesettingError
   */
  proof(document: ComposedDocument, assets: Assets): ProofPages {
    const parts = this.#drawParts(document, assets);
    const count = parts.reduce((sum, { groups }) => sum + groups.length, 0);
    const running = this.#drawFurniture(document, count);
    this.#compiler.evictCache(PROOF_AGE);
    const { width, height } = parts[0]!;
    const pages = parts
      .flatMap(({ groups }) => groups.map((group, at) => ({ group, at })))
      .map(({ group, at }, index) => {
        const viewBox = `0 ${index * height} ${width} ${height}`;
        const moved = index === at ? group : `<g transform="translate(0 ${(index - at) * height})">${group}</g>`;
        return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="${viewBox}">${moved}${running.groups[index] ?? ''}</svg>`;
      });
    const glyphs = parts.length === 1 ? parts[0]!.glyphs : withoutTwice(parts.map((part) => part.glyphs).join(''));
    return { glyphs: glyphs + running.glyphs, pages, pageSize: { width, height } };
  }

  /** The parts of a proof between its page breaks, each drawn anew only where it changed. */
  #drawParts(document: ComposedDocument, assets: Assets): Drawing[] {
    this.#placeAssets(assets);
    const setting = { direction: document.direction, proof: true };
    const tables = this.#tablesOf(document);
    // Nothing of these is in the pages themselves.
    const around = { ...document, title: '', followingHeader: [], footer: [], pictures: mediaTypes(assets) };
    return betweenBreaks(keptEnd(document.body)).map((body, at) => {
      const goesOn = at > 0;
      const content = json({ ...around, body, goesOn, ...(goesOn && { header: [] }) }, setting, tables);
      const known = this.#parts.get(content);
      if (known) return known;
      this.#map('document.json', content);
      const drawing = this.#draw('proof');
      this.#parts.set(content, drawing);
      return drawing;
    });
  }
  readonly #parts = new LRUCache<string, Drawing>({
    maxSize: 6_000_000,
    sizeCalculation: ({ groups, glyphs }, content) =>
      groups.reduce((sum, { length }) => sum + length, content.length + glyphs.length),
  });

  /**
   * Draws a picture for nothing, to learn whether it can be.
   * @throws TypesettingError
   */
  tryPicture({ mediaType, bytes }: Asset): void {
    const name = `tried.${FORMATS[mediaType]}`;
    const picture = join(this.#folder, name);
    this.#compiler.mapShadow(picture, Buffer.from(bytes));
    try {
      this.#compiler.plainSvg(this.#compiled({ mainFileContent: `#image("/${name}", width: 10pt)` }));
    } finally {
      this.#compiler.unmapShadow(picture);
      this.#compiler.evictCache(0);
    }
  }

  #draw(mode: Mode): Drawing {
    const compiled = this.#compiled(this.#arguments(mode));
    return readDrawing(this.#compiler.plainSvg(compiled), compiled.numOfPages);
  }

  #compiled(what: CompileDocArgs): NodeTypstDocument {
    const compiled = this.#compiler.compile(what);
    if (compiled.result) return compiled.result;
    const problem = compiled.takeDiagnostics() ?? compiled.takeError();
    const reasons = problem ? (this.#compiler.fetchDiagnostics(problem) as { message: string }[]) : [];
    throw new TypesettingError(reasons.map(({ message }) => message).join('; ') || 'The page could not be set.');
  }

  #arguments(mode: Mode) {
    return { mainFilePath: join(this.#folder, PROGRAM), inputs: { mode } };
  }

  /** Running header and footer, drawn anew only where they changed. */
  #drawFurniture(document: ComposedDocument, pages: number): Drawing {
    const setting = { direction: document.direction, proof: true };
    const { body: _, ...around } = document;
    const sheets = json(furniture(document, pages), setting, this.#tablesOf(document));
    const drawnOf = sheets + JSON.stringify(around);
    if (this.#furniture?.drawnOf !== drawnOf) {
      this.#map('furniture.json', sheets);
      this.#furniture = { drawnOf, drawing: this.#draw('furniture') };
    }
    return this.#furniture.drawing;
  }
  #furniture?: { drawnOf: string; drawing: Drawing };

  readonly #widths: FontFile;

  #tablesOf({ style, page, decimal }: ComposedDocument): TableSetting {
    const room =
      (PAGES[page.size][page.landscape ? 1 : 0] - page.margins.left - page.margins.right) / (style.type.text * POINT);
    const { letters, figures } = this.#widths;
    return { letters: letters[style.fonts.text] ?? {}, figures: figures[style.fonts.text] ?? {}, decimal, room };
  }

  #place(document: ComposedDocument, assets: Assets): void {
    const setting = { direction: document.direction, proof: false };
    const body = keptEnd(document.body);
    this.#map(
      'document.json',
      json({ ...document, body, pictures: mediaTypes(assets) }, setting, this.#tablesOf(document)),
    );
    this.#placeAssets(assets);
  }

  #placeAssets(assets: Assets): void {
    for (const [hash, asset] of Object.entries(assets))
      this.#compiler.mapShadow(join(this.#folder, 'assets', hash), Buffer.from(asset.bytes));
  }

  #map(name: string, content: string): void {
    this.#compiler.mapShadow(join(this.#folder, name), Buffer.from(content));
  }
}

const mediaTypes = (assets: Assets) =>
  Object.fromEntries(Object.entries(assets).map(([hash, { mediaType }]) => [hash, mediaType]));

/** Blocks between page breaks. A break that would leave a page empty breaks nothing, as in the whole; on the first one stands the header. */
function betweenBreaks(blocks: readonly ComposedBlock[]): ComposedBlock[][] {
  const parts: ComposedBlock[][] = [[]];
  for (const block of blocks) {
    if (block.kind !== 'pageBreak') parts.at(-1)!.push(block);
    else if (parts.length === 1 || parts.at(-1)!.length > 0) parts.push([]);
  }
  return parts.length > 1 && parts.at(-1)!.length === 0 ? parts.slice(0, -1) : parts;
}

const SYMBOL = /<symbol id="([^"]*)"[^]*?<\/symbol>\s*/g;
/** Definitions of glyphs, each once. */
function withoutTwice(definitions: string): string {
  const seen = new Set<string>();
  return definitions.replace(SYMBOL, (whole, id: string) => {
    if (seen.has(id)) return '';
    seen.add(id);
    return whole;
  });
}

const FORMATS: Readonly<Record<Asset['mediaType'], string>> = {
  'image/svg+xml': 'svg',
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'application/pdf': 'pdf',
};

/** What document.typ is asked to set. */
type Mode = 'print' | 'proof' | 'furniture';

/** What document.typ reads of a document. */
const json = (content: unknown, setting: RunSetting, tables: TableSetting): string =>
  JSON.stringify(content, (_key, value: unknown) => {
    if (isRuns(value)) return setRuns(value, setting);
    return isTable(value) ? setTable(value, tables) : value;
  });

const isTable = (value: unknown): value is ComposedTable => (value as Partial<ComposedTable> | null)?.kind === 'table';

/** Running header and footer of each page, with the page's number in place of the page fields. */
function furniture(document: ComposedDocument, pages: number): { header: ComposedBlock[]; footer: ComposedBlock[] }[] {
  const counted = pages + document.annexPages;
  const inDigits = (number: number) => String(number).replace(/\d/g, (digit) => [...document.digits][Number(digit)]!);
  return Array.from({ length: pages }, (_, index) => ({
    header: index === 0 ? [] : numbered(document.followingHeader, inDigits(index + 1), inDigits(counted)),
    footer: numbered(document.footer, inDigits(index + 1), inDigits(counted)),
  }));
}

function numbered(blocks: readonly ComposedBlock[], page: string, pages: string): ComposedBlock[] {
  return JSON.parse(JSON.stringify(blocks), (_key, value: Run | unknown) => {
    const kind = (value as Run | null)?.kind;
    if (kind === 'pageNumber') return { kind: 'text', text: page };
    return kind === 'pageCount' ? { kind: 'text', text: pages } : value;
  }) as ComposedBlock[];
}

/** The typesetter's one tall picture, taken apart. Lengths in points. */
interface Drawing {
  groups: string[];
  glyphs: string;
  width: number;
  height: number;
}

/** Takes the tall picture apart: its top level holds a background and a group for each page, then the definitions. */
function readDrawing(svg: string, pages: number): Drawing {
  const [, width, total] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!.map(Number) as [number, number, number];
  const elements = topElements(svg);
  return {
    groups: elements.filter((element) => element.startsWith('<g')),
    glyphs: elements.filter((element) => element.startsWith('<defs')).join(''),
    width,
    height: total / pages,
  };
}

/** What begins a line with the four spaces of the top level, up to the next of its kind, without its inner indentation. */
function topElements(svg: string): string[] {
  const TOP = '\n    <';
  const elements: string[] = [];
  let from = svg.indexOf(TOP);
  while (from >= 0) {
    let next = svg.indexOf(TOP, from + TOP.length);
    while (svg[next + TOP.length] === '/') next = svg.indexOf(TOP, next + TOP.length);
    const element = svg.slice(from + TOP.length - 1, next < 0 ? svg.lastIndexOf('</svg>') : next);
    elements.push(element.replace(/\n +/g, ' '));
    from = next;
  }
  return elements;
}
