import { ordered, type PageQuery } from '#core/contract/page-reads';
import { useChangeQuery } from './change-query';

/**
 * What a list shows – search, filters, sort, page – kept in the address, so that a view can be shared and the back
 * button returns to it.
 */
export function useListQuery(defaults: { sort: string; descending: boolean }) {
  const route = useRoute();
  const changeQuery = useChangeQuery();
  const query = computed(() => queryTexts(route.query));
  const read = (name: string) => query.value[name];
  const order = computed(() => ordered(query.value, defaults));

  /**
   * Changes some of it and goes back to the first page unless the page itself is what changed. Back returns to what was shown
   * before; words that are still being typed take each other's place.
   */
  function change(parts: Record<string, string | undefined>): void {
    const isTyping = 'search' in parts && read('search') !== undefined && Boolean(parts.search);
    void changeQuery({ skip: undefined, ...parts }, isTyping ? 'replace' : 'push');
  }
  /** Shows the list without any filter; its order and view stay. */
  const clear = (...filters: string[]) =>
    change(Object.fromEntries(['search', ...filters].map((name) => [name, undefined])));

  return {
    clear,
    read,
    change,
    query,
    sort: computed(() => order.value.sort),
    descending: computed(() => order.value.descending),
    skip: computed(() => order.value.skip),
    search: computed(() => read('search') ?? ''),
    /** For watching: changes whenever anything of it does. */
    whole: computed(() => JSON.stringify(route.query)),
  };
}

/** What is given once in a query, with something in it. */
export function queryTexts(query: Readonly<Record<string, unknown>>): PageQuery {
  return Object.fromEntries(
    Object.entries(query).filter((each): each is [string, string] => typeof each[1] === 'string' && each[1] !== ''),
  );
}
