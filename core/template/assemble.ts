import { own } from '../record/own';
import { withInner, withWords, type Block } from './blocks';
import type { PieceChange } from './changes';
import type { Clause } from './clause';
import type { HouseStyle, Letterhead, Margins } from './house-style';
import { houseStyleOf } from './house-style-of';
import type { Inline } from './inlines';
import { withIds } from './node';
import type { Plan } from './plan';
import type { Edition, Pins, Template } from './template';
import { everyBlock, mapBlocks, ownBlockLists } from './walk';
import { hasWords, reworded, wordingDigest, type Piece, type Words } from './wording';

/** A piece that an edition does not say in its own words, or said before the source was changed. */
export interface WordingGap {
  block: string;
  kind: 'missing' | 'outdated';
}

/** Something that a template refers to and that is not there. */
export interface Absent {
  what: 'house style' | 'clause';
  id: string;
}

/** A template made whole for one edition: nothing refers to anything outside of it any more. */
export interface Assembled {
  template: Omit<Template, 'layout'> & { layout: Template['layout'] & Letterhead & { page: { margins: Margins } } };
  edition: Edition;
  /** With what the template has otherwise. */
  houseStyle: HouseStyle;
  gaps: WordingGap[];
  /** Clauses and house styles that the pins do not hold. */
  absent: Absent[];
  /** Clauses that hold themselves, if only through others. */
  circular: string[];
}

/**
 * Puts together what a template prints in one edition: the house style's stationery, the clauses' blocks, and the
 * edition's words in place of the author's.
 */
export function assemble(
  template: Template,
  pins: Pins,
  editionId: string | undefined,
  houseStyleId?: string,
): Assembled {
  const edition = template.editions.find(({ id }) => id === editionId) ?? template.editions[0]!;
  const wanted = houseStyleId ?? edition.houseStyle ?? template.houseStyle;
  const { houseStyle, isThere } = houseStyleOf(template, pins, wanted);
  const assembler = new Assembler(template, pins, edition);
  if (!isThere) assembler.absent.set(wanted, { what: 'house style', id: wanted });
  const { page, header, followingHeader, footer, body } = template.layout;
  const letterhead: Letterhead = {
    header: header ? assembler.whole(header) : houseStyle.letterhead.header,
    followingHeader: (followingHeader ? assembler.whole(followingHeader) : houseStyle.letterhead.followingHeader) ?? [],
    footer: footer ? assembler.whole(footer) : houseStyle.letterhead.footer,
  };
  return {
    template: {
      ...template,
      layout: {
        ...letterhead,
        body: assembler.whole(body),
        page: { ...page, margins: page.margins ?? houseStyle.margins },
      },
      plans: template.plans.map((each) => assembler.plan(each)),
    },
    edition,
    houseStyle,
    gaps: [...assembler.gaps.values()],
    absent: [...assembler.absent.values()],
    circular: [...assembler.circular],
  };
}

/** Blocks that are put into a template for one edition, made whole: its clauses in place of their names. */
export const wholeBlocks = (blocks: readonly Block[], template: Template, pins: Pins, edition: Edition): Block[] =>
  new Assembler(template, pins, edition).whole(blocks);

/** Makes the blocks of one edition whole, and notes what it lacks. */
class Assembler {
  readonly gaps = new Map<string, WordingGap>();
  readonly absent = new Map<string, Absent>();
  readonly circular = new Set<string>();
  readonly #clauses: ReadonlyMap<string, Clause>;
  readonly #language: string;
  readonly #isAuthors: boolean;
  readonly #words: PieceChange;

  constructor(
    template: Template,
    pins: Pins,
    readonly edition: Edition,
  ) {
    this.#clauses = new Map(pins.clauses.map((clause) => [clause.id, clause]));
    this.#language = languageOf(edition.locale);
    this.#isAuthors = this.#language === languageOf(template.editions[0]!.locale);
    this.#words = this.#translation(edition.words);
  }

  /** Blocks in the words of the edition, with what it leaves out, puts in place of others, and the clauses. */
  whole(blocks: readonly Block[]): Block[] {
    return this.#expanded(mapPieces(blocks, this.#words), { replaced: [], clauses: [] });
  }

  plan(plan: Plan): Plan {
    const said = (part: 'title' | 'fileName') =>
      this.#words<Piece & { text: string }>(`plan.${plan.id}.${part}`, { text: plan[part] }, 'plan').text;
    return { ...plan, title: said('title'), fileName: said('fileName') };
  }

  /** `replaced` and `clauses`: what is being put in around these blocks, so that nothing is put in within itself. */
  #expanded(blocks: readonly Block[], around: { replaced: readonly string[]; clauses: readonly string[] }): Block[] {
    const { without, instead } = this.edition;
    return blocks.flatMap((block): Block[] => {
      const { id } = block.attrs;
      if (without?.includes(id)) return [];
      const others = instead && !around.replaced.includes(id) ? own(instead, id) : undefined;
      if (others) return this.#expanded(others, { ...around, replaced: [...around.replaced, id] });
      if (block.type === 'clause') return this.#clauseBlocks(block.attrs.clause, id, around);
      return [withInner(block, (inner) => this.#expanded(inner, around))];
    });
  }

  /** A clause's blocks, their ids told apart from the template's own. */
  #clauseBlocks(
    name: string,
    id: string,
    around: { replaced: readonly string[]; clauses: readonly string[] },
  ): Block[] {
    const clause = this.#clauses.get(name);
    if (!clause) this.absent.set(name, { what: 'clause', id: name });
    if (around.clauses.includes(name)) this.circular.add(name);
    if (!clause || around.clauses.includes(name)) return [];
    const words = this.#translation(clause.words && own(clause.words, this.#language));
    const blocks = mapPieces(clause.content, words).map((block) => withIds(block, (inner) => `${id}.${inner}`));
    return this.#expanded(blocks, { ...around, clauses: [...around.clauses, name] });
  }

  #translation(words: Words | undefined): PieceChange {
    return (key, piece, block) => {
      const wording = words && own(words, key);
      if (wording === undefined) {
        if (!this.#isAuthors && hasWords(piece)) this.gaps.set(block, { block, kind: 'missing' });
        return piece;
      }
      if (wording.of !== wordingDigest(piece)) this.gaps.set(block, { block, kind: 'outdated' });
      return reworded(piece, wording) as typeof piece;
    };
  }
}

/** The same blocks with every piece of their words changed. */
function mapPieces(blocks: readonly Block[], change: PieceChange): Block[] {
  return mapBlocks(blocks, (block) => {
    const { id } = block.attrs;
    return withWords(block, {
      content: (key, inlines): { content?: Inline[] } => (inlines ? change(key, { content: [...inlines] }, id) : {}),
      text: (part, words) => change(`${id}.${part}`, { text: words }, id).text,
    });
  });
}

/** Every house style that some edition of a template prints with. */
export function houseStylesOf(template: Pick<Template, 'houseStyle' | 'editions'>): string[] {
  return [...new Set([template.houseStyle, ...template.editions.flatMap(({ houseStyle }) => houseStyle ?? [])])];
}

/** Every clause that a template refers to, in blocks of its editions too; `clauses`: those whose own clauses count as well. */
export function clausesOf(template: Template, clauses: readonly Clause[] = []): string[] {
  const found = new Set<string>();
  const visit = (blocks: readonly Block[]) => {
    for (const block of everyBlock(blocks)) {
      if (block.type !== 'clause' || found.has(block.attrs.clause)) continue;
      found.add(block.attrs.clause);
      visit(clauses.find(({ id }) => id === block.attrs.clause)?.content ?? []);
    }
  };
  ownBlockLists(template).forEach(visit);
  return [...found];
}

const languageOf = (locale: string): string => locale.split('-')[0]!;
