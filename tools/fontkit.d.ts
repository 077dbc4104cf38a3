/** What is used of the library that reads fonts, which ships no types. */
declare module 'fontkit' {
  export interface Font {
    familyName: string;
    subfamilyName: string;
    unitsPerEm: number;
    hasGlyphForCodePoint(code: number): boolean;
    layout(text: string, features?: string[]): { positions: { xAdvance: number }[] };
  }
  export function openSync(path: string): Font;
}
