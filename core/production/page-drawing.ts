/**
 * Outlines of glyphs by their ids: the data of an SVG path without its beginning, which is where the glyph stands. All of it is
 * relative to there.
 */
export type Outlines = ReadonlyMap<string, string>;

/** The glyphs of a proof: the outlines of those that are drawn with one, and the definitions of the others, such as pictures. */
export interface Glyphs {
  outlines: Outlines;
  others: string;
}

const OUTLINE = /<symbol id="([^"]*)" overflow="visible">\s*<path d="M 0 0([^"]*)"\/>\s*<\/symbol>/g;
const ABSOLUTE = /[MLHVCSQTA]/;

/** Reads the definitions of glyphs as the typesetter writes them. */
export function glyphsOf(definitions: string): Glyphs {
  const outlines = new Map<string, string>();
  const others = definitions.replace(OUTLINE, (whole, id: string, path: string) => {
    if (ABSOLUTE.test(path)) return whole;
    outlines.set(id, path);
    return '';
  });
  return { outlines, others };
}

const USES = /(?:<use xlink:href="#[^"]*" x="[^"]*" y="[^"]*"[^>]*\/>\s*)+/g;
const USE = /<use xlink:href="#([^"]*)" x="([^"]*)" y="([^"]*)"([^>]*)\/>/g;

/**
 * A page with each run of glyphs as one path. Browsers lay out a page of some hundred paths several times as fast as one of thousands
 * of instances of glyphs.
 */
export function drawnWithPaths(page: string, outlines: Outlines): string {
  return page.replace(USES, (uses) => {
    let drawn = '';
    let [path, look] = ['', ''];
    const finish = () => {
      if (path) drawn += `<path d="${path}"${look}/>`;
      path = '';
    };
    for (const [use, id, x, y, itsLook] of uses.matchAll(USE)) {
      const outline = outlines.get(id!);
      if (outline === undefined || itsLook !== look) finish();
      if (outline === undefined) drawn += use;
      else path += `M${x} ${y}${outline}`;
      look = itsLook!;
    }
    finish();
    return drawn;
  });
}
