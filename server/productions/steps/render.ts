import type { Composed } from '../../press/press';
import { freeFileName } from '../../../core/production/file-name';
import { sha256 } from '../../assets';
import { files, type KeptComposition } from '../../db/schema';
import { crm } from '../../records/sources';
import { documentWords } from '../../register';
import { productionInput } from '../production';
import { recordOf, Unfileable, whatStops, type StepKind } from './step';

/** Sets the PDF with its number: the bytes and their hash are kept, under a name that is free on the record. */
export const render: StepKind = {
  reachesOut: false,
  async run({ document, production, number }, { database, press }) {
    const input = await productionInput(database, production, { serial: number.serial, text: document.number });
    const { composition, workings, pdf } = await press.print(input);
    if (!pdf || !workings) throw new Unfileable(whatStops(composition));
    const taken = (await crm.files(recordOf(document))).map(({ name }) => name);
    const bytes = Buffer.from(pdf);
    return {
      changes: {
        state: 'rendered',
        composition: { ...kept(composition), workings },
        title: composition.title,
        words: documentWords({ ...document, title: composition.title }),
        fileName: freeFileName(composition.fileName, taken),
      },
      answer: { pages: pagesOf(bytes), sha256: sha256(bytes) },
      told: [{ kind: 'rendered', sentence: `The PDF was set on ${inWords(pagesOf(bytes))}.` }],
      async write(transaction) {
        const row = { documentId: document.id, format: 'pdf' as const, mediaType: 'application/pdf', bytes };
        await transaction
          .insert(files)
          .values({ ...row, sha256: sha256(bytes) })
          .onConflictDoNothing();
      },
    };
  },
};

/** A composition as it is kept: without the password that opens the PDF. */
function kept({ output, ...rest }: Composed): Omit<KeptComposition, 'workings'> {
  const { password: _password, ...protection } = output.protection ?? {};
  return {
    ...rest,
    output: output.protection ? { ...output, protection: protection as typeof output.protection } : output,
  };
}

const pagesOf = (pdf: Buffer): number => pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)?.length ?? 0;
const inWords = (pages: number): string => (pages === 1 ? 'one page' : `${pages} pages`);
