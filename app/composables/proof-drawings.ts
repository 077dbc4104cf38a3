import type { Answer } from './api';

type Answered = Answer<'POST /productions'>['pages'];
type Part = Pick<Answered['glyphs'], 'digest' | 'drawing'>;

/** Pages of a proof with the drawings that are at hand. */
export interface ProofPages extends Omit<Answered, 'glyphs'> {
  /** The glyphs that all pages share, as SVG definitions. */
  glyphs: string;
}
/** What is drawn of a proof, whatever it is of. */
export type ShownProof = Pick<Answer<'POST /productions'>, 'values' | 'sections' | 'givenNotes'> & {
  pages: ProofPages;
};
export type ProofPage = ProofPages['pages'][number];

/** How many pages are sent for at once. */
const TOP = 5;

/** Drawings by their digests. Those of the last proof stay at hand: what did not change since is not sent again. */
export class Drawings {
  #atHand: ReadonlyMap<string, string> = new Map();

  get digests(): string[] {
    return [...this.#atHand.keys()];
  }

  /** A proof's pages, each with its drawing where it came now or came before. */
  of({ glyphs, pages, pageSize }: Answered): ProofPages {
    const withDrawing = <P extends Part>(part: P): P => ({
      ...part,
      drawing: part.drawing ?? this.#atHand.get(part.digest),
    });
    const [shared, drawn] = [withDrawing(glyphs), pages.map(withDrawing)];
    this.#atHand = new Map();
    this.#keep([shared, ...drawn]);
    return { glyphs: shared.drawing ?? '', pages: drawn, pageSize };
  }

  /** The same pages with drawings that came later. */
  with(shown: ProofPages, came: readonly Part[]): ProofPages {
    this.#keep(came);
    const pages = shown.pages.map((page) => {
      const drawing = page.drawing ?? this.#atHand.get(page.digest);
      return drawing === page.drawing ? page : { ...page, drawing };
    });
    return { ...shown, pages };
  }

  #keep(parts: readonly Part[]): void {
    const drawn = parts.flatMap(({ digest, drawing }) => (drawing === undefined ? [] : [[digest, drawing] as const]));
    this.#atHand = new Map([...this.#atHand, ...drawn]);
  }
}

/** Which pages to send for next: those near the view first. None where all are drawn. */
export function undrawn(
  pages: readonly ProofPage[],
  near: readonly number[],
): { skip: number; top: number; isNear: boolean } | undefined {
  const isMissing = (page: ProofPage | undefined) => page !== undefined && page.drawing === undefined;
  const nearest = pages.findIndex((page, index) => isMissing(page) && near.includes(index + 1));
  const skip = nearest >= 0 ? nearest : pages.findIndex(isMissing);
  if (skip < 0) return undefined;
  let top = 1;
  while (top < TOP && isMissing(pages[skip + top])) top++;
  return { skip, top, isNear: nearest >= 0 };
}
