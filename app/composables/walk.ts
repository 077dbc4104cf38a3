import { recordsAsked, ROWS, type PageQuery } from '#core/contract/page-reads';

/** Records in the order in which a list showed them. */
interface Walk {
  type: string;
  ids: string[];
  /** The list that goes on before and after them; absent where a person chose them. */
  query?: PageQuery;
}

/** How far a record is looked for in the usual list. */
const FIRST_PAGES = 5;
const LARGEST_PAGE = 100;

/** Leads from a record to the next one of the list that one came from. It outlives a reload. */
export function useWalk() {
  const kept = useKept<Walk | null>('walk', null);

  const begin = (walk: Walk): void => void (kept.value = walk);

  /** The record before (-1) or after (1) another; undefined at either end. Where one came from no list, by the usual one. */
  async function beside(type: string, id: string, step: 1 | -1): Promise<string | undefined> {
    let walk: Walk | null | undefined = kept.value;
    if (walk?.type !== type || !walk.ids.includes(id)) walk = await usual(type, id);
    if (!walk) return undefined;
    const at = walk.ids.indexOf(id) + step;
    if (at >= 0 && at < walk.ids.length) {
      kept.value = walk;
      return walk.ids[at];
    }
    if (!walk.query || (at < 0 && !walk.query.skip)) return undefined;
    const skip = Number(walk.query.skip ?? 0);
    const more = await idsOf(type, walk.query, step === 1 ? skip + walk.ids.length : Math.max(0, skip - ROWS.records));
    kept.value =
      step === 1
        ? { ...walk, ids: [...walk.ids, ...more] }
        : {
            ...walk,
            ids: [...more, ...walk.ids],
            query: { ...walk.query, skip: String(Math.max(0, skip - ROWS.records)) },
          };
    return step === 1 ? more[0] : more.at(-1);
  }

  /** The usual list up to the page with a record, if it is on one of the first. */
  async function usual(type: string, id: string): Promise<Walk | undefined> {
    const ids: string[] = [];
    for (let page = 0; page < FIRST_PAGES; page++) {
      const more = await idsOf(type, {}, ids.length, LARGEST_PAGE);
      ids.push(...more);
      if (more.includes(id)) return { type, ids, query: {} };
      if (more.length < LARGEST_PAGE) break;
    }
    return undefined;
  }

  async function idsOf(type: string, query: PageQuery, skip: number, top = ROWS.records): Promise<string[]> {
    const { records } = await api('GET /records/{type}', {
      parameters: { type },
      query: { ...recordsAsked(query), skip, top },
    });
    return records.map(({ id }) => id);
  }

  return { begin, beside };
}
