/**
 * What is on the pages of a proof is marked by links of private schemes in their drawings: a value is a link of `VALUE` and its id, and
 * a section begins and ends at a link of `SECTION`, `start:` or `end:`, and its id.
 */
export const VALUE = 'lumbix:';
export const SECTION = 'lumbix-section:';

/** The end of a section's id that only says where something was left out: the block beside it is as it was. */
export const GONE = '.gone';

/** What is on a page of a proof: who does not have its drawing yet knows where to look for a value. */
export interface PageContents {
  /** Ids of the values on it, in the order in which they stand there. */
  values: string[];
  /** Sections that are on it, and whether they begin and end here. */
  sections: { id: string; begins: boolean; ends: boolean }[];
}

const LINK = new RegExp(`href="(${VALUE}|${SECTION}start:|${SECTION}end:)([^"]*)"`, 'g');

/** Looks through the drawn pages of a proof for what is on them. */
export function pageContents(pages: readonly string[]): PageContents[] {
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
    return { values: [...values], sections: [...sections.values()] };
  });
}

const ENTITIES: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

/** An attribute's value without the entities of XML. */
const unescaped = (text: string): string =>
  text.replace(/&(?:#x([0-9a-f]+)|#(\d+)|(\w+));/gi, (whole, hex?: string, decimal?: string, name?: string) => {
    if (name !== undefined) return ENTITIES[name] ?? whole;
    return String.fromCodePoint(hex === undefined ? Number(decimal) : Number.parseInt(hex, 16));
  });
