/** A page of words as a PDF (ISO 32000-2, 7.5), in the one font that every reader has. */
function pdfOf(lines: readonly string[]): Buffer {
  const shown = lines.map((line) => `(${line.replaceAll(/[\\()]/g, String.raw`\$&`)}) Tj T*`).join('\n');
  const text = `BT /F1 14 Tf 20 TL 60 760 Td\n${shown}\nET`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${text.length} >>\nstream\n${text}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>',
  ];
  let file = '%PDF-1.7\n';
  const places = objects.map((object, at) => {
    const place = file.length;
    file += `${at + 1} 0 obj\n${object}\nendobj\n`;
    return `${String(place).padStart(10, '0')} 00000 n \n`;
  });
  const table = file.length;
  const count = objects.length + 1;
  file += `xref\n0 ${count}\n0000000000 65535 f \n${places.join('')}trailer\n<< /Size ${count} /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`;
  return Buffer.from(file, 'latin1');
}

/** What is known of some products besides, by their SKU. */
const SHEETS: Readonly<Record<string, readonly string[]>> = {
  'GL-4T': ['Toughened glass, 4 mm', '', 'Light transmission: 90 %', 'Weight: 10 kg for each square metre', 'Edges ground'],
  'GL-16D': ['Diffuse double glazing, 16 mm', '', 'Haze: 70 %', 'U-value: 1.2 W for each square metre and kelvin'],
  'PC-16': ['Polycarbonate sheet, 16 mm', '', 'Twin wall, drip-free inside', 'U-value: 2.3 W for each square metre and kelvin'],
}; // prettier-ignore

/** The name of a product’s data sheet among the CRM’s media; null for one that has none. */
export const dataSheetOf = (sku: string): string | null => (SHEETS[sku] ? `data-sheet-${sku}.pdf` : null);

/** The data sheets of products, by their names. */
export const dataSheets = (): [name: string, file: { type: string; content: Buffer }][] =>
  Object.entries(SHEETS).map(([sku, lines]) => [
    dataSheetOf(sku)!,
    { type: 'application/pdf', content: pdfOf([`Data sheet ${sku}`, '', ...lines]) },
  ]);
