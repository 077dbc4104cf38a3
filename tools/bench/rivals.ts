import type { ComposedBlock } from '../../core/template/blocks';
import pdfmake from 'pdfmake';
import type { Composition } from '../../core/production/composition';
import type { Asset, ComposedDocument, PlacedPicture, Run } from '../../core/template/composed';

/** The same content as a composed document, for other ways of setting it. */
const plain = (runs: readonly Run[]) => runs.map((run) => (run.kind === 'text' ? run.text : '\n')).join('');
const escape = (text: string) => text.replace(/[&<>]/g, (character) => `&#${character.charCodeAt(0)};`);

const dataUrl = ({ mediaType, bytes }: Asset) => `data:${mediaType};base64,${Buffer.from(bytes).toString('base64')}`;

const FONTS = `${process.cwd()}/node_modules/@expo-google-fonts`;
const face = (family: string, weight: number, file: string) =>
  `@font-face { font-family: '${family}'; font-weight: ${weight}; src: url('file://${FONTS}/${file}') }`;

/** The document as HTML with the same fonts, logo and measures, for Chromium. */
export function asHtml({ document, assets }: Composition): string {
  const picture = ({ picture: hash, width, alt }: PlacedPicture) =>
    `<img style="width:${width}pt" alt="${escape(alt)}" src="${dataUrl(assets[hash]!)}">`;
  const block = (each: ComposedBlock): string => {
    switch (each.kind) {
      case 'paragraph':
        return `<p>${escape(plain(each.runs)).replaceAll('\n', '<br>')}</p>`;
      case 'heading':
        return `<h${each.level}>${escape(plain(each.runs))}</h${each.level}>`;
      case 'list':
        return `<ul>${each.items.map((item) => `<li>${escape(plain(item))}</li>`).join('')}</ul>`;
      case 'table': {
        const head = each.columns.map((column) => `<th class="${column.align}">${escape(plain(column.heading))}</th>`);
        const rows = each.sections
          .flatMap(({ rows: all }) => all)
          .map((row) => {
            const cells = row.cells.map((cell, index) => {
              const drawn = cell.picture ? picture(cell.picture) : '';
              const detail = cell.detail ? `<small>${escape(plain(cell.detail))}</small>` : '';
              return `<td class="${each.columns[index]!.align}">${drawn}${escape(plain(cell.runs))}${detail}</td>`;
            });
            return `<tr>${cells.join('')}</tr>`;
          });
        return `<table><thead><tr>${head.join('')}</tr></thead><tbody>${rows.join('')}</tbody></table>`;
      }
      case 'totals': {
        const rows = each.rows.map(
          (row) => `<tr><td>${escape(plain(row.label))}</td><td class="end">${escape(plain(row.value))}</td></tr>`,
        );
        return `<table class="totals">${rows.join('')}</table>`;
      }
      case 'section':
        return each.blocks.map(block).join('');
      case 'keep':
        return `<div class="keep">${each.blocks.map(block).join('')}</div>`;
      case 'columns':
        return `<div class="columns">${each.columns.map((column) => `<div>${column.map(block).join('')}</div>`).join('')}</div>`;
      case 'picture':
        return picture(each);
      case 'pageBreak':
        return '<div style="break-after:page"></div>';
      default:
        return '';
    }
  };
  return `<!doctype html><meta charset="utf-8"><title>${escape(document.title)}</title><style>
${face('Text', 400, 'source-sans-3/400Regular/SourceSans3_400Regular.ttf')}
${face('Text', 600, 'source-sans-3/600SemiBold/SourceSans3_600SemiBold.ttf')}
${face('Heading', 600, 'source-serif-4/600SemiBold/SourceSerif4_600SemiBold.ttf')}
@page { size: A4; margin: 22mm 20mm 24mm } body { font: 9.5pt/14pt Text } h1, h2 { font-family: Heading; font-weight: 600 } th { font-weight: 600 } table { width: 100%; border-collapse: collapse }
thead { display: table-header-group } tr, .keep { break-inside: avoid } td { border-bottom: .4pt solid #ccc; vertical-align: top }
.end { text-align: right } small { display: block } .totals { width: 52%; margin-left: auto } .columns { display: flex; gap: 14pt }
</style>${[...document.header, ...document.body].map(block).join('')}`;
}

pdfmake.setFonts({
  Text: {
    normal: `${FONTS}/source-sans-3/400Regular/SourceSans3_400Regular.ttf`,
    bold: `${FONTS}/source-sans-3/600SemiBold/SourceSans3_600SemiBold.ttf`,
  },
});
const policies = pdfmake as unknown as Record<
  'setUrlAccessPolicy' | 'setLocalAccessPolicy',
  (allow: () => boolean) => void
>;
policies.setUrlAccessPolicy(() => false);
policies.setLocalAccessPolicy(() => true);

/** Sets the document with pdfmake and gives the PDF's bytes. */
export async function withPdfmake(document: ComposedDocument): Promise<Buffer> {
  const block = (each: ComposedBlock): unknown => {
    switch (each.kind) {
      case 'paragraph':
        return { text: plain(each.runs), margin: [0, 2, 0, 4] };
      case 'heading':
        return { text: plain(each.runs), bold: true, fontSize: each.level === 1 ? 21 : 12.5 };
      case 'list':
        return { ul: each.items.map(plain) };
      case 'table': {
        const head = each.columns.map((column) => ({
          text: plain(column.heading),
          bold: true,
          alignment: column.align === 'end' ? 'right' : 'left',
        }));
        const rows = each.sections
          .flatMap(({ rows: all }) => all)
          .map((row) =>
            row.cells.map((cell, index) => {
              const alignment = each.columns[index]!.align === 'end' ? 'right' : 'left';
              const runs = { text: plain(cell.runs), alignment };
              return cell.detail ? { stack: [runs, { text: plain(cell.detail), fontSize: 8 }] } : runs;
            }),
          );
        const widths = each.columns.map(({ width }) => (width === 'rest' ? '*' : 'auto'));
        return {
          table: { headerRows: 1, dontBreakRows: true, widths, body: [head, ...rows] },
          layout: 'lightHorizontalLines',
        };
      }
      case 'totals':
        return {
          table: {
            widths: ['*', 'auto'],
            body: each.rows.map((row) => [plain(row.label), { text: plain(row.value), alignment: 'right' }]),
          },
          layout: 'lightHorizontalLines',
        };
      case 'section':
      case 'keep':
        return { stack: each.blocks.map(block), unbreakable: each.kind === 'keep' };
      case 'columns':
        return { columns: each.columns.map((column) => ({ stack: column.map(block) })) };
      case 'picture':
      case 'divider':
      case 'space':
        return '';
    }
  };
  const content = [...document.header, ...document.body].map(block);
  const definition = {
    content,
    defaultStyle: { font: 'Text', fontSize: 9.5 },
    pageMargins: [57, 62, 57, 68],
    pageSize: 'A4',
  };
  return (await pdfmake.createPdf(definition as never).getBuffer()) as unknown as Buffer;
}
