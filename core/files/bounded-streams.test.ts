import { PDFDocument, PDFName, PDFRawStream } from '@cantoo/pdf-lib';
import { strToU8, zlibSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { lookOver } from './look-over';

/** Bytes of a stream that was packed twice: some kilobytes that unpack to all of it. */
function packedTwice(size: number): Uint8Array {
  return zlibSync(zlibSync(new Uint8Array(size).fill(0x20), { level: 6 }), { level: 6 });
}
const BOMB = packedTwice(120_000_000);

/** A PDF by hand, with one object stream. */
function pdfWith(dictionary: string, content: Uint8Array): Uint8Array {
  const head = strToU8(`%PDF-1.7\n1 0 obj\n<< ${dictionary} /Length ${content.length} >>\nstream\n`);
  const tail = strToU8('\nendstream\nendobj\ntrailer\n<< /Root 2 0 R >>\n%%EOF');
  const whole = new Uint8Array(head.length + content.length + tail.length);
  whole.set(head);
  whole.set(content, head.length);
  whole.set(tail, head.length + content.length);
  return whole;
}

describe('a PDF that unpacks to much', () => {
  it.each(['/Type /ObjStm', '/Type /Obj#53tm', '/Type /XRef /W [1 2 1] /Size 9'])(
    'is refused as soon as it does: %s',
    async (type) => {
      const bytes = pdfWith(`${type} /N 1 /First 4 /Filter [/FlateDecode /FlateDecode]`, BOMB);
      expect(bytes.length).toBeLessThan(10_000);
      await expect(lookOver(bytes)).rejects.toThrow('unpacks to more than 100 MB');
    },
  );

  it('is refused for its metadata too', async () => {
    const document = await PDFDocument.create();
    document.addPage();
    const dictionary = document.context.obj({ Filter: ['FlateDecode', 'FlateDecode'] });
    const metadata = PDFRawStream.of(dictionary, BOMB);
    document.catalog.set(PDFName.of('Metadata'), document.context.register(metadata));
    await expect(lookOver(await document.save())).rejects.toThrow('unpacks to more than 100 MB');
  });

  it('is taken where it keeps to the bound, though one before it did not', async () => {
    const document = await PDFDocument.create();
    for (let page = 0; page < 300; page++) document.addPage();
    expect(await lookOver(await document.save())).toEqual({ mediaType: 'application/pdf', pages: 300 });
  });
});
