import { LINES } from '#core/record/schema';

/** The key of the figure that workings are of, by their id: `net of deal.lines{…}` are those of `lines.net`. */
export function figureOfWorkings(id: string): string {
  const name = id.split(' of ', 1)[0]!;
  const list = /\.lines\{/.test(id) ? LINES : /of (\w+)\{/.exec(id)?.[1];
  return list === undefined ? name : `${list}.${name}`;
}
