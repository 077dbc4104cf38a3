import { PDFArray, PDFDocument, PDFName, PDFString, type PDFDict } from '@cantoo/pdf-lib';
import { describe, expect, it } from 'vitest';
import { lookOver } from './look-over';

/** A PDF of one page with something put into it, saved with its objects packed or plain. */
async function pdf(change: (document: PDFDocument) => void, useObjectStreams = true): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  document.addPage([200, 200]);
  change(document);
  return document.save({ useObjectStreams });
}
const action = ({ context }: PDFDocument, type: string, more: object = {}): PDFDict =>
  context.obj({ Type: 'Action', S: type, ...more }) as PDFDict;
const annotated = (document: PDFDocument, annotation: object) =>
  document
    .getPage(0)
    .node.set(PDFName.of('Annots'), document.context.obj([{ Type: 'Annot', Rect: [0, 0, 9, 9], ...annotation }]));

describe('a PDF that is joined', () => {
  it.each<[string, (document: PDFDocument) => void, string]>([
    [
      'when it is opened',
      (each) =>
        each.catalog.set(PDFName.of('OpenAction'), action(each, 'JavaScript', { JS: PDFString.of('app.alert(1)') })),
      'runs a script',
    ],
    [
      'by a name that is written in another way',
      (each) => each.catalog.set(PDFName.of('OpenAction'), each.context.obj({ S: PDFName.of('J#61vaScript') })),
      'runs a script',
    ],
    [
      'when a page is turned',
      (each) => each.getPage(0).node.set(PDFName.of('AA'), each.context.obj({ O: action(each, 'Launch') })),
      'starts a program',
    ],
    [
      'from a list of actions',
      (each) => annotated(each, { Subtype: 'Link', A: action(each, 'URI', { Next: [action(each, 'SubmitForm')] }) }),
      'sends a form',
    ],
    ['from an annotation', (each) => annotated(each, { Subtype: 'RichMedia' }), 'plays media'],
    ['with a file inside', (each) => annotated(each, { Subtype: 'FileAttachment' }), 'holds another file'],
    [
      'with a form of another kind',
      (each) =>
        each.catalog.set(
          PDFName.of('AcroForm'),
          each.context.obj({ Fields: [], XFA: PDFArray.withContext(each.context) }),
        ),
      'form that computes',
    ],
  ])('and does something %s is refused, packed or plain', async (_, change, what) => {
    for (const packed of [true, false]) await expect(lookOver(await pdf(change, packed))).rejects.toThrow(what);
  });

  it('may lead to an address or to a place of its own', async () => {
    const links = (each: PDFDocument) =>
      annotated(each, { Subtype: 'Link', A: action(each, 'URI', { URI: PDFString.of('https://orrin-vale.example') }) });
    expect(await lookOver(await pdf(links))).toMatchObject({ mediaType: 'application/pdf', pages: 1 });
    expect(
      await lookOver(await pdf((each) => annotated(each, { Subtype: 'Link', A: action(each, 'GoTo') }))),
    ).toMatchObject({ pages: 1 });
  });
});
