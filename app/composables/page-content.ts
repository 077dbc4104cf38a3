/** A value on a proof is a link of this scheme and its id. */
export const VALUE = 'lumbix:';
/** A section begins and ends at a link of this scheme, `start:` or `end:`, and its id. */
export const SECTION = 'lumbix-section:';

/** What is on a page of a proof, known before it is drawn. */
export interface PageContent {
  /** An SVG element. */
  svg: string;
  /** Ids of the values on it. */
  values: ReadonlySet<string>;
  /** Sections that are on it, and whether they begin and end here. */
  sections: { id: string; begins: boolean; ends: boolean }[];
}

const LINK = /href="(lumbix:|lumbix-section:start:|lumbix-section:end:)([^"]*)"/g;

/** Looks through the drawn pages of a proof for what is on them. */
export function pageContents(pages: readonly string[]): PageContent[] {
  /** Sections that began on an earlier page and did not end yet. */
  const open = new Set<string>();
  return pages.map((svg) => {
    const values = new Set<string>();
    const sections = new Map([...open].map((id) => [id, { id, begins: false, ends: false }]));
    for (const [, scheme, escaped] of svg.matchAll(LINK)) {
      const id = unescaped(escaped!);
      if (scheme === VALUE) values.add(id);
      else if (scheme!.includes('start')) {
        sections.set(id, { id, begins: true, ends: false });
        open.add(id);
      } else {
        const section = sections.get(id);
        if (section) section.ends = true;
        open.delete(id);
      }
    }
    return { svg, values, sections: [...sections.values()] };
  });
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** An attribute's value without the entities of XML. */
const unescaped = (text: string): string =>
  text.replace(/&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi, (whole, hex?: string, decimal?: string, name?: string) => {
    if (name !== undefined) return ENTITIES[name] ?? whole;
    return String.fromCodePoint(hex === undefined ? Number(decimal) : Number.parseInt(hex, 16));
  });
