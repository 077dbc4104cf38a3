/** What is used of the library that draws codes; its own types are behind conditions that a plain compiler does not set. */
declare module 'bwip-js' {
  export function toSVG(options: {
    bcid: string;
    text: string;
    eclevel?: 'L' | 'M' | 'Q' | 'H';
    height?: number;
  }): string;
}
