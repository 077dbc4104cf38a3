import { strFromU8, Unzip, UnzipInflate } from 'fflate';
import { RefusedFile } from './refused-file';

/** A template with pictures inside is at most this large, packed or not. */
export const LARGEST_TEMPLATE = 30 * 1024 * 1024;

/**
 * The text of a template file: as it is, or the one file of a ZIP archive. Unpacking stops as soon as more comes out
 * than any template has, whatever the archive says of itself.
 * @throws RefusedFile
 */
export function unpackedText(bytes: Uint8Array): string {
  if (bytes.length === 0) throw new RefusedFile('The file is empty. Choose a template that was taken out of Lumbix.');
  if (bytes.length > LARGEST_TEMPLATE)
    throw new RefusedFile('The file is larger than 30 MB, which no template is. Look whether it is the right one.');
  const packed = bytes[0] === 0x50 && bytes[1] === 0x4b;
  return strFromU8(packed ? unpacked(bytes) : bytes);
}

function unpacked(bytes: Uint8Array): Uint8Array {
  const chunks: Uint8Array[] = [];
  let size = 0;
  let files = 0;
  const unzip = new Unzip((file) => {
    if (file.name.endsWith('/')) return;
    if (++files > 1)
      throw new RefusedFile('The archive holds more than one file. Pack the template alone, or choose it unpacked.');
    file.ondata = (problem, chunk) => {
      // The library hands back what was thrown in here before.
      if (problem) throw problem;
      size += chunk.length;
      if (size > LARGEST_TEMPLATE)
        throw new RefusedFile(
          'The archive unpacks to more than 30 MB, which no template is. Nothing was taken from it.',
        );
      chunks.push(chunk);
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  // In pieces, so that a small archive of much cannot unpack all of it before it is stopped.
  const PIECE = 16 * 1024;
  try {
    for (let at = 0; at < bytes.length; at += PIECE)
      unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
  } catch (problem) {
    if (problem instanceof RefusedFile) throw problem;
    throw new RefusedFile('The archive is damaged and cannot be unpacked. Pack it again.');
  }
  if (files === 0)
    throw new RefusedFile('The archive is empty or damaged. Choose a template that was taken out of Lumbix.');
  const whole = new Uint8Array(size);
  let at = 0;
  for (const chunk of chunks) {
    whole.set(chunk, at);
    at += chunk.length;
  }
  return whole;
}
