import { decodePDFRawStream, PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { strFromU8 } from 'fflate';
import { imageSize } from 'image-size';
import { LARGEST_FILE, type TemplateFile } from '../template/template-file';
import { activeContent } from './active-pdf';
import { withinBounds } from './bounded-streams';
import { RefusedFile } from './refused-file';
import { lookOverSvg } from './svg';

/** What a file is, as far as its own bytes say. */
export type LookedOver = Omit<TemplateFile, 'sha256' | 'content'>;

/** Pixels along one side, and in all: what is larger prints no sharper and fills the memory. */
const LONGEST_SIDE = 10_000;
const MOST_PIXELS = 40_000_000;
const MOST_PAGES = 500;

/**
 * Tells what kind of file this is by its own bytes, whatever its name says, and whether it is fit to be printed.
 * @throws RefusedFile
 */
export async function lookOver(bytes: Uint8Array): Promise<LookedOver> {
  if (bytes.length === 0) throw new RefusedFile('The file is empty. Choose another one.');
  if (bytes.length > LARGEST_FILE) throw new RefusedFile('The file is larger than 20 MB. Make it smaller first.');
  if (startsWith(bytes, 0x25, 0x50, 0x44, 0x46)) return withinBounds(() => lookOverPdf(bytes));
  if (startsWith(bytes, 0x89, 0x50, 0x4e, 0x47)) return { mediaType: 'image/png', ...pngSize(bytes) };
  if (startsWith(bytes, 0xff, 0xd8, 0xff)) return { mediaType: 'image/jpeg', ...jpegSize(bytes) };
  if (startsWith(bytes, 0x50, 0x4b))
    throw new RefusedFile('This is a ZIP archive, not a picture. Unpack it and choose what is inside.');
  return { mediaType: 'image/svg+xml', ...lookOverSvg(strFromU8(bytes)) };
}

function pngSize(bytes: Uint8Array): { width: number; height: number } {
  // A whole PNG ends in its IEND chunk (ISO/IEC 15948, 11.2.5): length 0, type, checksum.
  const end = String.fromCharCode(...bytes.subarray(-8, -4));
  if (end !== 'IEND') throw new RefusedFile('The picture is cut off: the end of the PNG is missing. Save it again.');
  return pixels(bytes, 'PNG');
}

function jpegSize(bytes: Uint8Array): { width: number; height: number } {
  const tail = bytes.subarray(-64);
  const ends = tail.some((byte, at) => byte === 0xff && tail[at + 1] === 0xd9);
  if (!ends) throw new RefusedFile('The picture is cut off: the end of the JPEG is missing. Save it again.');
  return pixels(bytes, 'JPEG');
}

function pixels(bytes: Uint8Array, kind: string): { width: number; height: number } {
  let size: { width: number; height: number };
  try {
    size = imageSize(bytes);
  } catch {
    throw new RefusedFile(`The ${kind} is damaged: its size cannot be read. Save it again.`);
  }
  const { width, height } = size;
  if (width < 1 || height < 1) throw new RefusedFile(`The ${kind} has no pixels. Choose another picture.`);
  if (Math.max(width, height) > LONGEST_SIDE || width * height > MOST_PIXELS)
    throw new RefusedFile(
      `The picture has ${width} × ${height} pixels. Make it smaller: 10,000 along a side and 40 million in all are enough for any page.`,
    );
  return { width, height };
}

async function lookOverPdf(bytes: Uint8Array): Promise<LookedOver> {
  let document: PDFDocument;
  let pages: number;
  try {
    document = await PDFDocument.load(bytes, { updateMetadata: false });
    pages = document.getPageCount();
  } catch (problem) {
    if (problem instanceof RefusedFile) throw problem;
    const locked = problem instanceof Error && /encrypt/i.test(problem.message);
    throw new RefusedFile(
      locked
        ? 'The PDF is protected by a password. Choose one without.'
        : 'The PDF is damaged and cannot be read. Save it again.',
    );
  }
  if (pages < 1) throw new RefusedFile('The PDF has no pages.');
  if (pages > MOST_PAGES) throw new RefusedFile(`The PDF has ${pages} pages; ${MOST_PAGES} at most can be joined.`);
  const active = activeContent(document);
  if (active !== undefined)
    throw new RefusedFile(`The PDF ${active}. Save it without, as a PDF that is only looked at, and choose it again.`);
  return { mediaType: 'application/pdf', pages, ...(isArchival(document) && { standard: 'pdf/a-2b' as const }) };
}

/** Whether a PDF says of itself that it may stand in a PDF/A-2 archive: that it is PDF/A-1 or 2 (ISO 19005-2, 6.6.4). */
function isArchival(document: PDFDocument): boolean {
  const metadata = document.catalog.lookup(PDFName.of('Metadata'));
  if (!(metadata instanceof PDFRawStream)) return false;
  return /pdfaid:part\s*(>|=\s*["'])\s*[12]\b/.test(strFromU8(decodePDFRawStream(metadata).decode()));
}

function startsWith(bytes: Uint8Array, ...wanted: number[]): boolean {
  return wanted.every((byte, at) => bytes[at] === byte);
}
