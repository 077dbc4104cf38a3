import { own } from '../record/own';
import { visitBlocks, withInnerBlocks, type Block, type Inline, type Letterhead, type Margins } from './layout';
import type { Clause, Edition, HouseStyle, Pins, Plan, Template } from './template';
import { hasWords, mapPieces, reworded, wordingDigest, type Piece, type PieceChange, type Words } from './wording';

/** A piece that an edition does not say in its own words, or said before the source was changed. */
export interface WordingGap {
  block: string;
  kind: 'missing' | 'outdated';
}

/** A template made whole for one edition: nothing refers to anything outside of it any more. */
export interface Assembled {
  template: Omit<Template, 'layout'> & { layout: Template['layout'] & Letterhead & { page: { margins: Margins } } };
  edition: Edition;
  /** With what the template has otherwise. */
  houseStyle: HouseStyle;
  gaps: WordingGap[];
  /** Ids of clauses and house styles that the pins do not hold. */
  absent: string[];
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
  const style = pins.houseStyles.find(({ id }) => id === wanted);
  const houseStyle = overridden(style ?? pins.houseStyles[0]!, template);
  const absent = style ? [] : [wanted];
  const language = languageOf(edition.locale);
  const source = languageOf(template.editions[0]!.locale);
  const gaps = new Map<string, WordingGap>();
  const translate = (words: Words | undefined, authors = language === source): PieceChange => (key, piece, block) => {
    const wording = words && own(words, key);
    if (wording === undefined) {
      if (!authors && hasWords(piece)) gaps.set(block, { block, kind: 'missing' });
      return piece;
    }
    if (wording.of !== wordingDigest(piece)) gaps.set(block, { block, kind: 'outdated' });
    return reworded(piece, wording) as typeof piece;
  }; // prettier-ignore
  const words = translate(edition.words);
  const clauses = new Map(pins.clauses.map((clause) => [clause.id, clause]));

  const expanded = (blocks: readonly Block[]): Block[] =>
    blocks.flatMap((block): Block[] => {
      const { id } = block.attrs;
      if (edition.without?.includes(id)) return [];
      const instead = edition.instead && own(edition.instead, id);
      if (instead) return [...instead];
      if (block.type !== 'clause') return [withInnerBlocks(block, expanded)];
      const clause = clauses.get(block.attrs.clause);
      if (clause) return withinClause(clause, id, translate(clause.words && own(clause.words, language)));
      absent.push(block.attrs.clause);
      return [];
    });
  const { page, header, followingHeader, footer, body } = template.layout;
  const whole = (blocks: Block[]) => expanded(mapPieces(blocks, words));
  const letterhead: Letterhead = {
    header: header ? whole(header) : houseStyle.letterhead.header,
    followingHeader: (followingHeader ? whole(followingHeader) : houseStyle.letterhead.followingHeader) ?? [],
    footer: footer ? whole(footer) : houseStyle.letterhead.footer,
  };
  return {
    template: {
      ...template,
      layout: { ...letterhead, body: whole(body), page: { ...page, margins: page.margins ?? houseStyle.margins } },
      plans: template.plans.map((plan) => reworkedPlan(plan, words)),
    },
    edition,
    houseStyle,
    gaps: [...gaps.values()],
    absent,
  };
}

/** Every house style that some edition of a template prints with. */
export function houseStylesOf(template: Pick<Template, 'houseStyle' | 'editions'>): string[] {
  return [...new Set([template.houseStyle, ...template.editions.flatMap(({ houseStyle }) => houseStyle ?? [])])];
}

/** Every clause that a template refers to, in blocks of its editions too. */
export function clausesOf({ layout, editions }: Pick<Template, 'layout' | 'editions'>): string[] {
  const ids = new Set<string>();
  const parts = [layout.header, layout.followingHeader, layout.footer, layout.body, ...editions.flatMap(({ instead }) => Object.values(instead ?? {}))]; // prettier-ignore
  for (const part of parts) visitBlocks(part ?? [], (block) => block.type === 'clause' && ids.add(block.attrs.clause));
  return [...ids];
}

function overridden(houseStyle: HouseStyle, { style }: Template): HouseStyle {
  return style ? { ...houseStyle, ...style, colours: { ...houseStyle.colours, ...style.colours } } : houseStyle;
}

function reworkedPlan(plan: Plan, words: PieceChange): Plan {
  const said = (part: 'title' | 'fileName') => words<Piece & { text: string }>(`plan.${plan.id}.${part}`, { text: plan[part] }, 'plan').text; // prettier-ignore
  return { ...plan, title: said('title'), fileName: said('fileName') };
}

/** A clause's blocks, their ids told apart from the template's own. */
function withinClause(clause: Clause, id: string, words: PieceChange): Block[] {
  return mapPieces(clause.content, words).map((block) => prefixed(block, id));
}

function prefixed(block: Block, prefix: string): Block {
  const inlines = (all: Inline[]) => all.map((inline): Inline => (inline.type === 'value' ? { ...inline, attrs: { ...inline.attrs, id: `${prefix}.${inline.attrs.id}` } } : inline)); // prettier-ignore
  const named = { ...block, attrs: { ...block.attrs, id: `${prefix}.${block.attrs.id}` } } as Block;
  const inner = withInnerBlocks(named, (blocks) => blocks.map((each) => prefixed(each, prefix)));
  switch (inner.type) {
    case 'paragraph':
    case 'heading':
      return { ...inner, content: inlines(inner.content) };
    case 'bulletList':
    case 'numberedList':
      return { ...inner, content: inner.content.map(inlines) };
    case 'gridTable':
      return { ...inner, rows: inner.rows.map((row) => row.map(inlines)) };
    default:
      return inner;
  }
}

const languageOf = (locale: string): string => locale.split('-')[0]!;
