/**
 * What a list shows – search, filters, sort, page – kept in the address, so that a view can be shared and the back
 * button returns to it.
 */
export function useListQuery(defaults: { sort: string; descending: boolean }) {
  const route = useRoute();
  const router = useRouter();
  const read = (name: string) => (typeof route.query[name] === 'string' ? (route.query[name] as string) : undefined);

  /** Changes some of it and goes back to the first page unless the page itself is what changed. */
  function change(parts: Record<string, string | undefined>): void {
    const query = { ...route.query, ...('skip' in parts ? {} : { skip: undefined }), ...parts };
    const kept = Object.entries(query).filter(([, value]) => value !== undefined && value !== '');
    void router.replace({ query: Object.fromEntries(kept) });
  }
  return {
    read,
    change,
    sort: computed(() => read('sort') ?? defaults.sort),
    descending: computed(() => (read('descending') ?? String(defaults.descending)) === 'true'),
    skip: computed(() => Number(read('skip') ?? 0) || 0),
    search: computed(() => read('search') ?? ''),
    /** For watching: changes whenever anything of it does. */
    whole: computed(() => JSON.stringify(route.query)),
  };
}
