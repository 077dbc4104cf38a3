/**
 * PDF files are packed in streams, and the library unpacks some of them while it loads, however large they get. All its decoders
 * share one class whose buffer grows in one method; here that method keeps to a bound.
 */
import { decodePDFRawStream, PDFContext, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { RefusedFile } from './refused-file';

/** Bytes of buffers for all streams of a file together: the objects and metadata of any real file are far below it. */
const MOST_UNPACKED = 100 * 1024 * 1024;

/** What the library's decoders have in common, as far as it is looked at here. */
interface Decoder {
  buffer: Uint8Array;
  ensureBuffer(this: Decoder, wanted: number): Uint8Array;
}

let left = Infinity;
let isBounded = false;

/** Reads a PDF while its streams unpack to no more than the bound. @throws RefusedFile where they do */
export async function withinBounds<T>(read: () => Promise<T>): Promise<T> {
  if (!isBounded) bound();
  left = MOST_UNPACKED;
  try {
    // The library takes errors of a stream for damage, and tries to go on.
    const outcome = await read().catch((problem: unknown) => Promise.reject(left < 0 ? tooMuch() : problem));
    if (left < 0) throw tooMuch();
    return outcome;
  } finally {
    left = Infinity;
  }
}

const tooMuch = () =>
  new RefusedFile('The PDF unpacks to more than 100 MB. Save it again, or leave out what is large in it.');

function bound(): void {
  const dictionary = PDFContext.create().obj({});
  dictionary.set(PDFName.of('Filter'), PDFName.of('FlateDecode'));
  const flate: unknown = decodePDFRawStream(PDFRawStream.of(dictionary, Uint8Array.of(0x78, 0x9c)));
  const shared = Object.getPrototypeOf(Object.getPrototypeOf(flate)) as Decoder;
  const { ensureBuffer } = shared;
  shared.ensureBuffer = function (wanted) {
    // It grows by doubling at least.
    const has = this.buffer.byteLength;
    if (wanted > has) left -= Math.max(wanted, 2 * has) - has;
    if (left < 0) throw tooMuch();
    return ensureBuffer.call(this, wanted);
  };
  isBounded = true;
}
