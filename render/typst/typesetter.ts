import { NodeCompiler } from '@myriaddreamin/typst-ts-node-compiler';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Assets, ComposedDocument } from '../../core/compose/document';

/** Where a section of a proof begins or ends: page from 1, height in points from the page's upper edge. */
export interface Landmark {
  id: string;
  edge: 'start' | 'end';
  page: number;
  y: number;
}

/** The pages of a proof. Every value is an SVG link to `lumbix:` and its id. */
export interface ProofPages {
  /** The glyphs that all pages share, as SVG definitions. */
  glyphs: string;
  /** One SVG element each. */
  pages: string[];
  /** In points. */
  pageSize: { width: number; height: number };
  landmarks: Landmark[];
}

/** A document that could not be set. The message is the typesetter's own. */
export class TypesettingError extends Error {
  override name = 'TypesettingError';
}

const PROGRAM = '/document.typ';

/** How many compilations an unused part of the cache survives while one document is being proofed. */
const PROOF_AGE = 12;

/**
 * Sets composed documents as PDF and as SVG pages. One for each worker thread: it keeps its fonts and its cache. Only
 * the shipped fonts are used, so a page looks the same on every machine.
 */
export class Typesetter {
  readonly #compiler: NodeCompiler;

  /** `folder` holds `document.typ` and `fonts/`. */
  constructor(folder: string) {
    this.#compiler = NodeCompiler.create({
      workspace: folder,
      fontArgs: [{ fontPaths: [join(folder, 'fonts')] }],
    });
    this.#compiler.addSource(join(folder, PROGRAM), readFileSync(join(folder, PROGRAM), 'utf8'));
    this.#folder = folder;
  }
  readonly #folder: string;

  /**
   * The document as a tagged PDF. Nothing stays in the cache, so memory does not grow with the number of documents.
   * @throws TypesettingError
   */
  pdf(document: ComposedDocument, assets: Assets): Uint8Array {
    this.#place(document, assets);
    const pdf = this.#compiler.pdf(this.#arguments('no'), { creationTimestamp: Date.parse(document.date) / 1000 });
    this.#compiler.evictCache(0);
    return pdf;
  }

  /**
   * The pages of a proof. The cache is kept between calls, so that a page is set again in a few milliseconds after a
   * small edit.
   * @throws TypesettingError
   */
  proof(document: ComposedDocument, assets: Assets): ProofPages {
    this.#place(document, assets);
    const compiled = this.#compiler.compile(this.#arguments('yes'));
    const { result } = compiled;
    if (!result) throw new TypesettingError(reason(compiled.takeError()));
    const svg = this.#compiler.plainSvg(result);
    const landmarks = this.#compiler.query(result, { selector: '<landmark>' }) as { value: Landmark }[];
    this.#compiler.evictCache(PROOF_AGE);
    return { ...separatePages(svg), landmarks: landmarks.map(({ value }) => value) };
  }

  #arguments(proof: 'yes' | 'no') {
    return { mainFilePath: join(this.#folder, PROGRAM), inputs: { proof } };
  }

  #place(document: ComposedDocument, assets: Assets): void {
    this.#compiler.mapShadow(join(this.#folder, 'document.json'), Buffer.from(JSON.stringify(document, breakable)));
    for (const [hash, asset] of Object.entries(assets)) {
      this.#compiler.mapShadow(join(this.#folder, 'assets', hash), Buffer.from(asset.text));
    }
  }
}

/** Longer runs without a space may be broken anywhere, rather than run out of their column. */
const UNBROKEN = /\S{29,}/gu;

/** Puts zero-width spaces into words that no column is wide enough for, on the way to the typesetter only. */
function breakable(key: string, value: unknown): unknown {
  if (key !== 'text' || typeof value !== 'string') return value;
  return value.replace(UNBROKEN, (word) =>
    [...new Intl.Segmenter().segment(word)].map(({ segment }) => segment).join('\u200b'),
  );
}

function reason(problem: unknown): string {
  return problem instanceof Error ? problem.message : String(problem ?? 'The page could not be set.');
}

/**
 * Takes the one tall picture that the typesetter draws apart into its pages. Its top level holds a background and a
 * group for each page, then the definitions.
 */
function separatePages(svg: string): Omit<ProofPages, 'landmarks'> {
  const compact = svg.replace(/\n {8,}/g, ' ');
  const [, width, total] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(compact)!.map(Number) as [number, number, number];
  const elements = compact.split(/\n {4}(?=<)/).slice(1);
  const groups = elements.filter((element) => element.startsWith('<g'));
  const defs = elements
    .filter((element) => element.startsWith('<defs'))
    .map((element) => element.replace(/<\/svg>\s*$/, ''));
  const height = total / groups.length;
  const pages = groups.map((group, index) => {
    const content = group.replace(/<\/svg>\s*$/, '');
    return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 ${index * height} ${width} ${height}">${content}</svg>`;
  });
  return { glyphs: defs.join(''), pages, pageSize: { width, height } };
}
