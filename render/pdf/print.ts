import { PDFDocument } from '@cantoo/pdf-lib';
import { randomBytes } from 'node:crypto';
import type { Composition, OutputSettings } from '../../core/production/composition';
import type { Typesetter } from '../typst/typesetter';

/**
 * The PDF of a composed document: set by its standard, with its annexes joined to the end, and protected last.
 * @throws TypesettingError
 */
export async function printPdf(
  typesetter: Typesetter,
  { document, assets, output, annexes }: Pick<Composition, 'document' | 'assets' | 'output' | 'annexes'>,
): Promise<Uint8Array> {
  const set = typesetter.pdf(document, assets, output.standard);
  if (annexes.length === 0 && !output.protection) return set;
  const pdf = await PDFDocument.load(set, { updateMetadata: false });
  for (const { sha256 } of annexes) {
    const annex = await PDFDocument.load(assets[sha256]!.bytes, { updateMetadata: false });
    for (const page of await pdf.copyPages(annex, annex.getPageIndices())) pdf.addPage(page);
  }
  if (output.protection) protect(pdf, output.protection);
  return pdf.save({ updateFieldAppearances: false });
}

/** AES-256 (ISO 32000-2, 7.6). The owner's password is thrown away: nobody needs to lift the protection. */
function protect(
  pdf: PDFDocument,
  { password, printing, copying, changing }: NonNullable<OutputSettings['protection']>,
): void {
  pdf.encrypt({
    ...(password !== undefined && { userPassword: password }),
    ownerPassword: randomBytes(24).toString('base64url'),
    permissions: {
      printing: printing ? 'highResolution' : false,
      copying,
      modifying: changing,
      annotating: changing,
      fillingForms: changing,
      documentAssembly: changing,
      contentAccessibility: true,
    },
  });
}
