import type { ComposedBlock } from './blocks';
import type { HouseStyle, Margins } from './house-style';
import type { PageSize } from './layout';
import type { FILE_MEDIA_TYPES } from './template-file';

/** A piece of running text, already in the words and digits it prints with. */
export type Run =
  | {
      kind: 'text';
      text: string;
      bold?: boolean;
      italic?: boolean;
      underline?: boolean;
      quiet?: boolean;
      /** `accent`, or six hexadecimal digits after `#`. */
      colour?: string;
      link?: string;
      /** Where a value came from, so that a click on the proof can lead back: a key of `Composition.values`. */
      value?: string;
      /** A visible mark of what is wrong; never in a filed document. */
      fault?: 'error' | 'blank';
    }
  | { kind: 'break' }
  | { kind: 'pageNumber' }
  | { kind: 'pageCount' };

/** A picture by the SHA-256 of its bytes. Sizes in points; the height follows from the width. */
export interface PlacedPicture {
  picture: string;
  width: number;
  alt: string;
  value?: string;
}

/** A document as it prints: no formula, no condition, only text, tables and pictures by hash. */
export interface ComposedDocument {
  title: string;
  /** BCP 47 language and, where it has one, region. */
  language: string;
  region?: string;
  direction: 'ltr' | 'rtl';
  /** The ten digits that its numbers are written in, those of its pages and lists too. */
  digits: string;
  /** What its numbers have before their decimals. */
  decimal: string;
  /** ISO 8601 day of issue. */
  date: string;
  author: string;
  page: { size: PageSize; landscape?: boolean; margins: Margins };
  style: Pick<HouseStyle, 'fonts' | 'type' | 'colours' | 'composition'>;
  /** Text across every page. */
  watermark?: string;
  /** Pages of what is joined to the end, as far as they count. */
  annexPages: number;
  header: ComposedBlock[];
  followingHeader: ComposedBlock[];
  footer: ComposedBlock[];
  body: ComposedBlock[];
}

/** The bytes of a picture, or of a PDF that is joined to the end. */
export interface Asset {
  mediaType: (typeof FILE_MEDIA_TYPES)[number];
  bytes: Uint8Array;
}

/** Pictures and annexes by their SHA-256. */
export type Assets = Readonly<Record<string, Asset>>;

/** Runs as plain text, on one line. */
export function textOfRuns(runs: readonly Run[]): string {
  return runs.map((run) => (run.kind === 'text' ? run.text : ' ')).join('');
}

/** Line ends in a value print as line ends. */
export function brokenLines(run: Extract<Run, { kind: 'text' }>): Run[] {
  if (!/[\n\r\u2028\u2029]/.test(run.text)) return run.text === '' ? [] : [run];
  const lines = run.text.split(/\r\n|[\n\r\u2028\u2029]/);
  return lines.flatMap((line, position): Run[] => {
    const printed: Run[] = line === '' ? [] : [{ ...run, text: line }];
    return position === 0 ? printed : [{ kind: 'break' }, ...printed];
  });
}
